"""Invented tables and misses of a known cause: what the trials of the table check and of the diagnosis are made of."""

from dataclasses import replace

import numpy as np

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import direction_to
from fandle.core.lines.solution import Aim
from fandle.core.physics.batch import Strokes
from fandle.core.physics.trace import trace, trace_by_rail
from fandle.core.player.scatter import CLUB, Player
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Contact, Rail
from fandle.core.table.standards import STANDARDS
from fandle.core.tablecheck.diagnose import KIND_OF
from fandle.core.tablecheck.evidence import KINDS, Seen, made, predicted
from fandle.core.tablecheck.fit import NUMBERS
from fandle.core.tablecheck.miss import Miss, figures_of, seen_of
from fandle.core.tablecheck.shooter import read, shoot
from fandle.core.tablecheck.shots import reference_shot, shots_for

POOL = STANDARDS["pool-9ft"]
SIX = ("plain", "lag", "firm", "reverse", "route", "corner")
STEADY = replace(CLUB, speed_part=0.05)
Errors = tuple[np.ndarray, np.ndarray]


def evening(hidden: Table, player: Player, times: int, rng: np.random.Generator, before: Table = POOL) -> list[Seen]:
    """So many rounds of the six shots, played on the hidden table."""
    return shoot([reference_shot(before, name) for name in SIX] * times, hidden, player, rng)


def odd_evening(
    hidden: Table, odd: Rail, by: float, player: Player, times: int, rng: np.random.Generator
) -> list[Seen]:
    """Every reference shot so many times on a table one rail of which has another restitution."""
    asked = [
        Seen(each, tuple(Contact(rail, 0.0) for rail in each.watch), (0.0, 0.0))
        for each in [reference_shot(POOL, shot.id) for shot in shots_for(POOL)] * times
    ]
    other = replace(hidden, cushion_restitution=hidden.cushion_restitution + by)
    four = np.stack([(other if rail is odd else hidden).params() for rail in Rail])[None]
    off = rng.standard_normal((len(asked), len(KINDS)))
    found = trace_by_rail(made(asked, player, off, np.zeros(len(asked), np.int64)), four)
    return [read(one.setup, row, rng) for one, row in zip(asked, predicted(asked, found, hidden), strict=True)]


def fresh(rng: np.random.Generator, count: int = 20) -> Strokes:
    """One-rail shots nobody fitted."""
    at: list[float] = []
    strokes: list[np.ndarray] = []
    places: list[tuple[float, float]] = []
    while len(at) < count:
        layout = Layout(POOL, "straight", (Ball("cue", rng.uniform(0.6, 3.0), rng.uniform(0.5, 3.0)),))
        mark, stroke = rng.uniform(1.5, 6.5), Stroke(rng.uniform(2.0, 5.0), side=rng.uniform(-0.3, 0.4))
        at.append(direction_to(POOL, Rail.FAR, layout.metres(layout.cue), mark, "nose"))
        strokes.append(stroke.array())
        places.append(layout.metres(layout.cue))
    return Strokes(np.array(at), np.array(strokes), np.array(places), np.zeros(count, np.int64))


def apart(shots: Strokes, one: Table, other: Table) -> float:
    """The median landing error at the second rail, diamonds."""
    a, b = (trace(shots, table.params()[None]) for table in (one, other))
    same = (a.rails[:, 1] == b.rails[:, 1]) & (a.rails[:, 1] >= 0)
    off = np.abs(a.at[same, 1] - b.at[same, 1]).max(axis=1) / POOL.diamond_x
    return float(np.median(off))


def meant(rng: np.random.Generator) -> Miss:
    """A kick over one or two rails, aimed full."""
    while True:
        balls = (
            Ball("cue", rng.uniform(0.6, 3.0), rng.uniform(0.4, 2.5)),
            Ball("1", rng.uniform(4.5, 7.3), rng.uniform(0.4, 2.5)),
        )
        rails = ((Rail.FAR,), (Rail.FAR, Rail.FOOT))[int(rng.integers(2))]
        layout, stroke = (
            Layout(POOL, "straight", balls, "1"),
            Stroke(rng.uniform(2.3, 4.2), side=rng.choice([0.0, 0.17])),
        )
        aim = solve_kick(layout, rails, stroke, with_chain=False)
        if isinstance(aim, Aim):
            contacts = tuple(Contact(rail, 0.0) for rail in rails)
            return Miss(layout, rails, stroke, aim.best.direction, 0.0, contacts, (0.0, 0.0))


def errors(rng: np.random.Generator, cause: str | None) -> Errors:
    """One shot's errors in units of their scatter, and the table's: large in what is the cause."""
    off, z = np.zeros((1, len(KINDS))), np.zeros((1, len(NUMBERS)))
    if cause is None:
        off = rng.standard_normal(off.shape)
    elif cause == "table":
        z = 1.3 * rng.standard_normal(z.shape)
    else:
        off[0, KIND_OF[cause]] = rng.choice([-1.0, 1.0]) * rng.uniform(1.5, 8.0)
    return off, z


def among(shot: Miss, others: int, rng: np.random.Generator) -> Miss | None:
    """The shot with other balls anywhere on the bed; None where they overlap, or lie in its way as meant."""
    balls = [Ball(str(k + 2), rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7)) for k in range(others)]
    try:
        made = replace(shot, layout=replace(shot.layout, balls=(*shot.layout.balls, *balls)))
    except BadInputError:
        return None
    meant_ = figures_of(made, seen_of(made), CLUB, np.zeros((1, len(KINDS))), np.zeros((1, len(NUMBERS))))[0]
    return None if np.isnan(meant_).any() else made


def missed(rng: np.random.Generator, cause: str | None, others: int = 0) -> tuple[Miss, Errors, np.ndarray]:
    """A shot made with these errors; of a known cause so large that it lands 0.3 diamond off or more."""
    while True:
        shot = among(meant(rng), others, rng)
        if shot is None:
            continue
        made = errors(rng, cause)
        figures = figures_of(shot, seen_of(shot), CLUB, *made)[0]
        if not np.isnan(figures).any() and (cause is None or 0.3 <= abs(figures[0]) <= 1.8):
            return shot, made, figures


def seen(shot: Miss, figures: np.ndarray, contacts: int, rng: np.random.Generator) -> Miss:
    """What a player tells of it: the landing, some contacts, the stop, each read by eye."""
    read = figures + 0.04 * rng.standard_normal(len(figures))
    touched = tuple(Contact(rail, float(read[1 + k])) for k, rail in enumerate(shot.rails[:contacts]))
    return replace(shot, off=float(read[0]), touched=touched, stopped=(float(read[-2]), float(read[-1])))
