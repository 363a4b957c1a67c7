"""Pots against brute force: what is called a pot pots when played, and where none is told a sweep finds none."""

import random

import numpy as np

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Refusal, Solution
from fandle.core.physics.batch import Strokes, play_batch
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import POCKET_NAMES, mouths
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

TABLES = ("pool-9ft", "pool-8ft", "pool-7ft", "snooker-12ft")
ORDERS: tuple[tuple[Rail, ...], ...] = (
    (), (Rail.FAR,), (Rail.NEAR,), (Rail.HEAD,), (Rail.FOOT,), (Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.NEAR),
)  # fmt: skip
SWEPT = 2000  # thicknesses tried of a line that is said to have no pot
NARROW_DEG = 0.02  # a pot that forgives less is nobody's to find

Case = tuple[Layout, tuple[Rail, ...], Stroke, str]


def case(seed: int) -> Case:
    """A random layout of up to five balls, every second with its target hanging; over which rails, and where to."""
    rng = random.Random(seed)
    table = standard_table(TABLES[seed % 4])
    ids = ("red1", "blue", "pink", "black") if seed % 4 == 3 else ("7", "2", "4", "9")
    mouth = rng.choice(mouths(table))

    def anywhere(name: str) -> Ball:
        return Ball(name, rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7))

    while True:
        target = anywhere(ids[0])
        if seed % 2:
            (x, y), (ax, ay), short = mouth.fall, mouth.axis, rng.uniform(0.001, mouth.shelf)
            target = Ball(ids[0], (x - short * ax) / table.diamond_x, (y - short * ay) / table.diamond_y)
        balls = (anywhere("cue"), target, *(anywhere(name) for name in ids[1 : 1 + rng.randrange(4)]))
        try:
            layout = Layout(table, "snooker" if seed % 4 == 3 else "nine-ball", balls, ids[0])
        except BadInputError:
            continue
        pocket = mouth.name if seed % 2 else rng.choice((*POCKET_NAMES, "any"))
        return layout, ORDERS[seed % 7], Stroke(rng.uniform(1.5, 5.0), rng.choice((0.0, 0.2, -0.2))), pocket


def fault_of(asked: Case) -> tuple[str, str]:
    """(what was said: "pot", "no pot" or "no line"; what is wrong with it, empty if nothing)."""
    layout, rails, stroke, pocket = asked
    found = solve_pot(layout, rails, stroke, pocket=pocket, with_chain=False)
    if isinstance(found, Refusal):
        if found.reason_code != "no_pot":
            return "no line", ""
        hits = solve_kick(layout, rails, stroke, with_chain=False)
        if isinstance(hits, Refusal):
            return "no pot", "there is no hit either"
        widest = max(_widest_pot(asked, hit) for hit in hits.solutions)
        return "no pot", "" if widest <= NARROW_DEG else f"a sweep finds one {widest:.3f}° wide"
    return "pot", next((fault for one in found.solutions if (fault := _not_potted(asked, one))), "")


def _not_potted(asked: Case, one: Solution) -> str:
    layout, _, stroke, pocket = asked
    if one.pot is None or pocket not in ("any", one.pot.pocket):
        return "into another pocket than asked"
    shot = play(layout, stroke, one.direction)
    potted = (one.pot.ball, one.pot.pocket) in shot.potted and one.pot.through[0] == one.target == shot.first_ball
    scratch = any(name == "cue" for name, _ in shot.potted)
    return "" if potted and scratch == one.pot.in_off else f"played, it says {shot.potted}"


def _widest_pot(asked: Case, hit: Solution) -> float:
    """Degrees of the widest run of directions in a window of hits that pot the ball, met as asked."""
    layout, rails, stroke, pocket = asked
    half = np.radians(hit.window_deg)
    at = np.linspace(hit.direction - half, hit.direction + half, SWEPT)
    start = np.tile(layout.metres(layout.cue), (SWEPT, 1))
    rows = Strokes(at, np.tile(stroke.array(), (SWEPT, 1)), start, np.zeros(SWEPT, dtype=np.int64))
    out = play_batch(rows, layout.table.params()[None], layout.obstacles())
    ball = layout.index(hit.target) + 1
    wanted = [POCKET_NAMES.index(name) for name in (POCKET_NAMES if pocket == "any" else (pocket,))]
    good = (out.first == ball) & (out.before_first == len(rails))
    good &= np.any((out.down == ball) & np.isin(out.pockets, wanted), axis=1)
    for place, rail in enumerate(rails):
        good &= out.cue_rails[:, place] == rail.number
    widest = run = 0
    for each in good:
        run = run + 1 if each else 0
        widest = max(widest, run)
    return float(np.degrees(widest * 2 * half / SWEPT))
