"""Sense: what is told of random layouts against what happens when it is played.

Nothing absurd first, nothing true called false: an open ball stands in the list, no row or verdict contradicts the
played shot, no mark lies off its rail, no advice makes a landing worse, no ball is its own obstacle, and the first row
is as good as any.
"""

import math
import random
import re
from collections.abc import Iterator

from campaign.plans import fault_in, layout

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.report import Plan
from fandle.core.choice.told import Line
from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.games import CAROM_GAMES, GAMES
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.player.scatter import CLUB
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.systems.base import Count
from fandle.core.systems.registry import count_steps
from fandle.core.systems.verdict import room_said, verdict_of
from fandle.core.words.balls import spoken

DRAWS, USUAL = 40, 0.05  # a plan over all usual strokes takes seconds: one in twenty
AS_GOOD = 0.05  # as much less likely than the best the first row may be
ADVICE = re.compile(r"aim at (-?[\d.]+)\.$")


def faults_of(seed: int) -> tuple[int, int, list[str]]:
    """(lines, counts looked at, what makes no sense of them) on one random layout."""
    rng = random.Random(seed)
    laid = layout(rng, GAMES[seed % len(GAMES)])
    goal = rng.choice(("hit", "pot", "safe")) if laid.table.pockets is not None else "hit"
    stroke = Stroke(rng.uniform(1.2, 5.0))
    strokes = "usual" if rng.random() < USUAL else "this"
    try:
        found = finish(plan(Situation(laid, stroke), wish_of(goal, CLUB, strokes, None, DRAWS, seed, laid), 2))
        counts = _counts(laid, found.on, rng)
    except FandleError as error:
        return 0, 0, [f"seed {seed}: {error}"]
    told = [*_of_plan(laid, stroke, found), *(fault for each in counts for fault in _of_count(*each))]
    return len(found.lines), len(counts), [f"seed {seed}, {goal}: {fault}" for fault in told]


def _of_plan(laid: Layout, stroke: Stroke, found: Plan) -> Iterator[str]:
    for line in found.lines:
        wrong = fault_in(laid, line) or _mark_off(line)
        if wrong:
            yield wrong
    if found.goal != "pot" and laid.game not in CAROM_GAMES:
        straight = {line.target for line in found.lines if line.kind in ("straight", "push")}
        for ball in found.on:
            if ball not in straight and _open(laid, stroke, ball):
                yield f"{ball} lies open and is not told straight"
    for no in found.refused:
        if f"{spoken(no.target)} is " in no.reason and "in the way" in no.reason:
            yield f"{no.kind} at {no.target}: {no.reason}"
    if found.lines and found.lines[0].wanted.p < max(line.wanted.p for line in found.lines) - AS_GOOD:
        yield f"the first row has {found.lines[0].wanted.p}, another {max(line.wanted.p for line in found.lines)}"


def _open(laid: Layout, stroke: Stroke, ball: str) -> bool:
    """Is a ball met straight at its middle, over no rail? One that touches the cue ball is pushed."""
    if laid.touch("cue", ball):
        return False
    (x, y), (gx, gy) = laid.metres(laid.cue), laid.metres(laid.ball(ball))
    shot = play(laid, stroke, math.atan2(gy - y, gx - x) - stroke.squirt)
    return shot.first_ball == ball and shot.events[0].kind == "ball"


def _mark_off(line: Line) -> str:
    """A number that lies off the rail it is read at; "" where none does."""
    if line.aim is None:
        return (
            ""
            if line.mark.grade == "between" and line.mark.say.startswith("the ")
            else f"a mark of nothing: {line.mark}"
        )
    most = line.mark_rail.diamonds
    off = [at for at in (line.aim.nose, line.aim.sight) if at is not None and not 0.0 <= at <= most]
    return f"{line.kind} over {line.rails}: a mark at {off[0]:.2f} of the {line.mark_rail} rail" if off else ""


def _counts(laid: Layout, on: tuple[str, ...], rng: random.Random) -> list[tuple[Layout, str, Count]]:
    """Every system's count at one of the balls on."""
    if not on:
        return []
    target = rng.choice(on)
    try:
        found = finish(count_steps(laid, target=target, cue=HOUSE))
    except BadInputError:  # a frozen ball cannot be counted
        return []
    return [(laid.settled(), target, each) for each in found if isinstance(each, Count)]


def _of_count(laid: Layout, target: str, count: Count) -> Iterator[str]:
    shot, lands, name = play(laid, count.stroke, count.direction), count.lands, f"{count.method} at {target}"
    met = _rails_before(shot)
    hits = shot.first_ball == target and met[: len(count.rails)] == count.rails[: len(met)]
    hits = hits and len(met) <= len(count.rails) + 1
    if hits != lands.hits:
        yield f"{name}: played it {'hits' if hits else 'goes by'}, told {lands}"
    if lands.hits != (lands.off_balls < 1.0) or lands.hits != (lands.full is not None):
        yield f"{name}: {lands} contradicts itself"
    said = f"{verdict_of(lands)}, {room_said(lands)}"
    if said.startswith("hits") != lands.hits or "by 0.0" in said:
        yield f"{name}: {said!r} of {lands}"
    if lands.pots is not None and (target, lands.pots) not in shot.potted:
        yield f"{name}: told to pot, and does not"
    advice = ADVICE.search(count.squirt)
    if advice is not None:
        at = direction_to(laid.table, count.rails[0], laid.metres(laid.cue), float(advice[1]), count.frame)
        again = play(laid, count.stroke, at)
        if again.first_ball != target or "cue" in dict(again.potted):
            yield f"{name}: {count.squirt!r} meets {again.first_ball}, pots {again.potted}"


def _rails_before(shot: Shot) -> tuple[object, ...]:
    """The cue ball's rails before it meets a ball."""
    found = []
    for event in shot.events:
        if event.kind == "ball":
            break
        if event.kind == "rail" and event.ball == "cue":
            found.append(event.rail)
    return tuple(found)
