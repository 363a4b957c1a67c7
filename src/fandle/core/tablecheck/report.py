"""What a table check comes to, in a player's words: how it plays, what the systems change, who the misses were."""

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from fandle.core.physics.trace import trace
from fandle.core.player.scatter import CLUB, Player
from fandle.core.steps import Steps, finish
from fandle.core.systems.base import figure
from fandle.core.table.condition import CLOTHS, OWN, RUBBERS, conditioned
from fandle.core.table.model import Table
from fandle.core.table.rails import Contact
from fandle.core.table.standards import standard_twin
from fandle.core.tablecheck.blame import Blame, blame_steps, named
from fandle.core.tablecheck.evidence import KINDS, READING, Seen, made, predicted
from fandle.core.tablecheck.fit import NUMBERS, STEP, Fitting, moved, shot_figures
from fandle.core.tablecheck.rails import odd_rail
from fandle.core.tablecheck.shots import Setup, kinds_for, setup

Floats = NDArray[np.float64]
Who = Literal["table", "you", "neither", "not yet"]
ALIKE = 2.0 * math.sqrt(2.0)  # times the scatter: two landings nearer to one another are alike
SURE = 2.0  # standard deviations
DRAWS = 200
LEAST_SD = 0.3  # prior standard deviations: two tables are never told apart more sharply
TELLING = 0.04  # diamonds: less is nothing to speak of
LEVEL = 3.0  # standard deviations of a lag's drift
FORETELLS, ODDS = 3.0, 2.0  # logs from which a fit foretells better, and up to which it may be the one or the other
ENOUGH = 0.25  # diamonds: a difference that players see


@dataclass(frozen=True)
class Plays:
    """A kind of shot: how much longer (+) than on the table as it was, diamonds, with its standard deviation."""

    kind: str
    off: float
    sd: float

    @property
    def say(self) -> str:
        """In words: "0.24 short, ± 0.05"."""
        if abs(self.off) < max(TELLING, self.sd):
            return f"{self.kind}: as expected, ± {figure(self.sd)}"
        return f"{self.kind}: {figure(abs(self.off))} {'long' if self.off > 0 else 'short'}, ± {figure(self.sd)}"


@dataclass(frozen=True)
class Verdict:
    """Me or the table? who, and why."""

    who: Who
    say: str


@dataclass(frozen=True)
class Told:
    """A shot of the check: predicted by the table as it was, and as fitted; landed: as it was read. Diamonds."""

    id: str
    before: tuple[float, ...]
    after: tuple[float, ...]
    landed: tuple[float, ...]


def last_landing(setup_: Setup, tables: Sequence[Table]) -> Floats:
    """Where a shot, made as meant, comes to its last rail watched on each of some tables, diamonds, long positive.

    Long is further in the direction of travel. Of one that is read where it stops: how far it has come back.
    """
    by_stop = len(setup_.watch) == 1
    rest = (0.0, 0.0) if by_stop else None
    seen = Seen(setup_, tuple(Contact(rail, 1.0) for rail in setup_.watch), rest)
    rows = made([seen], CLUB, np.zeros((len(tables), len(KINDS))), np.arange(len(tables)))
    found = trace(rows, np.array([table.params() for table in tables]))
    out = []
    for k, table in enumerate(tables):
        part = type(found)._make(column[k : k + 1] for column in found)
        figures = predicted([seen], part, table)[0]
        if by_stop:
            out.append(-float(figures[-2]))
            continue
        rail, before = setup_.watch[-1], part.at[0, len(setup_.watch) - 2]
        came = before[0] / table.diamond_x if rail.is_long else before[1] / table.diamond_y
        value = float(figures[len(setup_.watch) - 1])
        out.append(math.copysign(1.0, value - came) * value)
    return np.array(out)


def plays(before: Table, fitting: Fitting) -> list[Plays]:
    """How each kind of shot plays, against the table as it was.

    The standard deviation: the fit's covariance carried through the landing's slopes.
    """
    after, k = fitting.table, len(NUMBERS)
    z = np.array([(n.value - n.prior) / n.prior_sd for n in fitting.numbers])
    shifted = [moved(before, z + STEP * sign * np.eye(k)[j]) for j in range(k) for sign in (1.0, -1.0)]
    found = []
    for shot in kinds_for(before):
        lands = last_landing(setup(before, shot), [before, after, *shifted])
        slope = (lands[2::2] - lands[3::2]) / (2.0 * STEP)
        sd = math.sqrt(max(float(slope @ fitting.covariance @ slope), 0.0))
        found.append(Plays(shot.kind, float(lands[1] - lands[0]), sd))
    return found


def told(before: Table, fitting: Fitting, seen: Sequence[Seen], player: Player) -> list[Told]:
    """Every shot as it was predicted and as it landed."""
    found = []
    for one in seen:
        landed = [contact.at for contact in one.landed] + ([] if one.rest is None else list(one.rest))
        was, now = (tuple(shot_figures(one, table, player).tolist()) for table in (before, fitting.table))
        found.append(Told(one.setup.id, was, now, tuple(landed)))
    return found


def verdict(before: Table, fitting: Fitting, seen: Sequence[Seen], player: Player) -> Verdict:
    """The same at once."""
    return finish(verdict_steps(before, fitting, seen, player))


def verdict_steps(before: Table, fitting: Fitting, seen: Sequence[Seen], player: Player) -> Steps[Verdict]:
    """Me or the table? From the shots that were played more than once.

    Two landings are alike where they are apart by less than 2√2 of the scatter expected of this player in this shot;
    off where their mean is beyond twice its own standard deviation. Alike and off: the table; apart: the player. Alike
    and on: the table, too, where each shot is foretold better with its numbers; too few tries where a difference of
    `ENOUGH` would not have been seen. A player who is steadily off is told from the table by the odds (`blame`).
    """
    groups: dict[str, list[Seen]] = defaultdict(list)
    for one in seen:
        groups[one.setup.id].append(one)
    repeated = {name: some for name, some in groups.items() if len(some) > 1}
    if not repeated:
        return Verdict("not yet", "One landing of each: play one again. Two alike are the table, two apart you.")
    votes: dict[Who, list[str]] = defaultdict(list)
    for some in repeated.values():
        who, say = _of_repeats(before, fitting, some, player)
        votes[who].append(f"{some[0].setup.kind}: {say}")
    order: tuple[Who, ...] = ("table", "you", "neither")
    best = max(order, key=lambda who: len(votes[who]))
    said = "; ".join(votes[best])
    if any(number.beyond for number in fitting.numbers):
        return Verdict("not yet", "Not yet: no table plays as these shots say. Look at what was noted, and play again.")
    if best == "you":
        return Verdict("you", f"It is you, not the table. {said}.")
    found = yield from blame_steps(fitting)
    return _weighed(found, off=best == "table", said=said, player=player) or _seen_nothing(
        fitting, repeated, said, player
    )


def _weighed(found: Blame, *, off: bool, said: str, player: Player) -> Verdict | None:
    """The table or a steady error, where the shots foretell each other better with either; off: are repeats so?"""
    if not off and found.gain < FORETELLS:
        return None
    worst = found.worst
    steady = abs(worst.off) > SURE * worst.sd and found.gain >= FORETELLS
    what = named(worst, player)
    if steady and found.you > 0.0:
        return Verdict("you", f"It is you, steadily: {what} in every shot explains them better than another table.")
    if off:
        return Verdict("table", f"It is the table. {said}.")
    if steady and found.you > -ODDS:
        return Verdict("not yet", f"Not yet: the table, or {what} in every shot. Play one off the other long rail.")
    return Verdict("table", f"It is the table: with what was found of it each shot is foretold better. {said}.")


def _seen_nothing(fitting: Fitting, repeated: Mapping[str, list[Seen]], said: str, player: Player) -> Verdict:
    """As expected; or were there too few tries for a difference to be seen?"""
    hidden = min(
        SURE * expected_scatter(some[0], fitting.table, player) / math.sqrt(len(some)) for some in repeated.values()
    )
    if hidden > ENOUGH:
        much = f"{figure(hidden)} long or short would not have been seen"
        return Verdict("not yet", f"Not yet: too few tries to tell. {much}; {said}.")
    return Verdict("neither", f"Neither: it plays as expected. {said}.")


def _of_repeats(before: Table, fitting: Fitting, some: list[Seen], player: Player) -> tuple[Who, str]:
    values = np.array([_read(one) for one in some])
    scatter = expected_scatter(some[0], fitting.table, player)
    apart = float(values.max() - values.min())
    if apart >= ALIKE * scatter:
        return "you", f"{figure(apart)} apart, {figure(ALIKE * scatter)} would be alike"
    off = float(values.mean() - _value(some[0], shot_figures(some[0], before, player)))
    if abs(off) > SURE * scatter / math.sqrt(len(values)):
        return "table", f"alike within {figure(apart)}, and {figure(abs(off))} off"
    return "neither", f"alike within {figure(apart)}, and on"


def _read(one: Seen) -> float:
    """The figure a shot is judged by: the last contact; of a lag where it stopped."""
    return one.landed[-1].at if len(one.landed) > 1 or one.rest is None else one.rest[0]


def _value(one: Seen, figures: Floats) -> float:
    return float(figures[len(one.landed) - 1] if len(one.landed) > 1 or one.rest is None else figures[-2])


def expected_scatter(one: Seen, table: Table, player: Player) -> float:
    """The standard deviation of a shot's landing as this player makes it, reading included, diamonds."""
    rng = np.random.default_rng(0)
    rows = made([one], player, rng.standard_normal((DRAWS, len(KINDS))), np.zeros(DRAWS, np.int64))
    found = trace(rows, table.params()[None])
    values = np.array([_value(one, figures) for figures in predicted([one] * DRAWS, found, table)])
    low, high = np.nanquantile(values, (0.16, 0.84))  # a stray that meets another rail is no measure of it
    return math.hypot(0.5 * float(high - low), READING)


def notes(fitting: Fitting, seen: Sequence[Seen], player: Player) -> list[str]:
    """What else the shots say: not level, an odd rail, the player's usual speed, shots that do not fit."""
    said = []
    drifts = [one.landed[0].at - one.setup.layout.cue.y for one in seen if one.setup.id == "lag" and one.landed]
    if drifts:
        lag = next(one for one in seen if one.setup.id == "lag" and one.landed)
        way = (lag.setup.layout.table.length - lag.setup.start[0]) / lag.setup.layout.table.diamond_y
        sd = math.hypot(math.radians(player.direction_deg) * way, READING) / math.sqrt(len(drifts))
        if abs(float(np.mean(drifts))) > LEVEL * sd:
            side = "far" if np.mean(drifts) > 0 else "near"
            said.append(
                f"the lag drifts {figure(abs(float(np.mean(drifts))))} to the {side} rail: the table is not level"
            )
    odd = odd_rail(fitting.problem, fitting.around)
    if odd is not None:
        said.append(odd.say)
    speed = float(fitting.off[:, KINDS.speed].mean()) * player.speed_part
    if abs(speed) > player.speed_part / math.sqrt(len(seen)):
        said.append(f"you play about {abs(speed):.0%} {'firmer' if speed > 0 else 'softer'} than meant")
    said += [f"shot {k + 1} ({seen[k].setup.id}) does not fit the others: you, or measure again" for k in fitting.wild]
    return said


def nearest(fitting: Fitting, before: Table, others: Mapping[str, Table]) -> str | None:
    """Which of some other tables of the same make it is most like, by name; None where the one it was is nearer."""
    best: tuple[str | None, float] = None, min(SURE * math.sqrt(len(NUMBERS)), _away(fitting, before))
    for name, other in others.items():
        if other.standard == fitting.table.standard:
            away = _away(fitting, other)
            best = (name, away) if away < best[1] else best
    return best[0]


def _away(fitting: Fitting, other: Table) -> float:
    """How far another table's numbers lie, in standard deviations of all of them together.

    Nothing is known better than to a third of its prior's.
    """
    off = np.array([(getattr(other, n.name) - n.value) / n.prior_sd for n in fitting.numbers])
    return math.sqrt(off @ np.linalg.inv(fitting.covariance + LEAST_SD**2 * np.eye(len(off))) @ off)


def like(fitting: Fitting) -> str:
    """The words of condition that it is nearest to: "damp cloth, soft rubber"."""
    twin, best = standard_twin(fitting.table), ("", math.inf)
    for cloth in CLOTHS:
        for rubber in RUBBERS:
            if OWN in (cloth, rubber):
                continue
            other = conditioned(twin, cloth, rubber)
            away = _away(fitting, other)
            if away < best[1]:
                best = f"{cloth} cloth, {rubber} rubber", away
    return best[0]
