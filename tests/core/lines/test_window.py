"""Windows of hanging balls against a sweep of whole shots: met direct, off either rail, off a jaw, all together."""

import itertools
import math
import random
from functools import cache

import pytest

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim, Solution
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

TABLES = ("pool-9ft", "pool-8ft", "pool-7ft", "snooker-12ft")
ORDERS: tuple[tuple[Rail, ...], ...] = ((), (Rail.FAR,), (Rail.NEAR,), (Rail.HEAD,), (Rail.FOOT, Rail.FAR))
LOOKS = 60


def hanging(seed: int) -> tuple[Layout, tuple[Rail, ...], Stroke, Solution] | None:
    """A random kick or straight shot at a ball that hangs in a mouth, where there is one."""
    rng = random.Random(seed)
    table = standard_table(TABLES[seed % 4])
    mouth = rng.choice(mouths(table))
    (x, y), (ax, ay), short = mouth.fall, mouth.axis, rng.uniform(0.001, 0.9 * mouth.shelf)
    name, game = ("yellow", "snooker") if seed % 4 == 3 else ("5", "nine-ball")
    ball = Ball(name, (x - short * ax) / table.diamond_x, (y - short * ay) / table.diamond_y)
    layout = Layout(table, game, (Ball("cue", rng.uniform(1, 7), rng.uniform(0.7, 3.3)), ball), name)
    rails, stroke = ORDERS[seed % 5], Stroke(rng.uniform(2.0, 4.5), rng.choice((0.0, 0.2, -0.2)))
    found = solve_kick(layout, rails, stroke, with_chain=False)
    return (layout, rails, stroke, found.best) if isinstance(found, Aim) else None


def met(layout: Layout, rails: tuple[Rail, ...], stroke: Stroke, direction: float) -> str | None:
    """What the target is met off, whole shot played: "direct", a rail, "jaw"; None where it is not met so."""
    before: list[str] = []
    for event in play(layout, stroke, direction).events:
        if event.ball == "cue" and event.kind in ("rail", "jaw"):
            before.append("jaw" if event.kind == "jaw" else str(event.rail))
        elif event.kind == "ball":
            wanted, more = list(map(str, rails)), before[len(rails) :]
            in_order = before[: len(rails)] == wanted and more.count("jaw") + 1 >= len(more)
            return (more[0] if more else "direct") if in_order else None
    return None


@cache
def cases() -> list[tuple[Layout, tuple[Rail, ...], Stroke, Solution]]:
    found = [case for seed in range(60) if (case := hanging(seed)) is not None][:14]
    assert len({case[1] for case in found}) >= 4
    return found


@pytest.mark.parametrize("number", range(14))
def test_the_window_of_a_hanging_ball_is_what_a_sweep_of_whole_shots_finds(number: int) -> None:
    layout, rails, stroke, best = cases()[number]
    low, high = best.parts[0].low, best.parts[-1].high
    wide = high - low
    assert wide == pytest.approx(math.radians(best.window_deg), rel=1e-6)
    for k in range(LOOKS):
        assert met(layout, rails, stroke, low + (k + 0.5) / LOOKS * wide) is not None, k
    beyond = max(2e-6, 1e-4 * wide)
    assert met(layout, rails, stroke, low - beyond) is None
    assert met(layout, rails, stroke, high + beyond) is None


@pytest.mark.parametrize("number", range(14))
def test_its_parts_say_what_the_ball_is_met_off(number: int) -> None:
    layout, rails, stroke, best = cases()[number]
    assert "direct" in [part.off for part in best.parts]
    assert sum(part.mm for part in best.parts) == pytest.approx(best.window_mm, rel=0.02)
    for one, next_one in itertools.pairwise(best.parts):
        assert one.high == pytest.approx(next_one.low, abs=1e-6)
        assert one.off != next_one.off
    for part in best.parts:
        for share in (0.1, 0.5, 0.9):
            assert met(layout, rails, stroke, part.low + share * (part.high - part.low)) == part.off
    aimed = met(layout, rails, stroke, best.direction)
    assert aimed == "direct"


def test_a_ball_in_the_open_has_no_parts() -> None:
    layout = Layout(standard_table("pool-9ft"), "nine-ball", (Ball("cue", 2, 1), Ball("5", 6, 2)), "5")
    found = solve_kick(layout, (Rail.FAR,), Stroke(3.0))
    assert isinstance(found, Aim)
    assert found.best.parts == ()
