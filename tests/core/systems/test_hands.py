"""Hands and cue: what is laid where agrees with the count, on every side of the table.

The ways of measuring are common practice, no published source; the geometry is checked against the count's mark.
"""

import math

import pytest

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.hands import FINGER, GHOST, MARK, SHAFT, SIGHT, SPAN, HandStep
from fandle.core.systems.registry import count, hands_of
from fandle.core.systems.symmetry import Turn
from fandle.core.table.landmarks import landmark, landmarks
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL, SNOOKER = standard_table("pool-9ft"), standard_table("snooker-12ft")
FAR, FOOT = Rail.FAR, Rail.FOOT
MEASURING = ("M3", "M6", "M7", "M8", "M9", "M10")
LAYOUTS = {
    "M3": ((FAR,), (1.3, 1.2), (5.4, 1.6)),
    "M6": ((FAR,), (1.3, 1.2), (5.4, 0.4)),
    "M7": ((FAR,), (0.8, 0.6), (5.4, 0.5)),
    "M8": ((FAR,), (1.3, 1.2), (5.9, 2.9)),
    "M9": ((FAR,), (1.3, 0.3), (5.4, 1.6)),
    "M10": ((FAR, FOOT), (2.0, 0.8), (6.4, 0.7)),
}
TURNS = [Turn(False, False), Turn(True, False), Turn(False, True), Turn(True, True)]


def measured(method: str, turn: Turn = TURNS[0]) -> tuple[Layout, Count, tuple[HandStep, ...]]:
    rails, cue, target = LAYOUTS[method]
    layout = Layout(POOL, "nine-ball", (Ball("cue", *turn.point(*cue)), Ball("7", *turn.point(*target))), "7")
    found = count(method, layout, tuple(turn.rail(rail) for rail in rails))
    assert isinstance(found, Count)
    return layout, found, hands_of(found, layout)


def things(steps: tuple[HandStep, ...], kind: str) -> list[tuple[Point, ...]]:
    return [thing.points for step in steps for thing in step.things if thing.kind == kind]


def test_only_the_measuring_systems_measure() -> None:
    assert {m for m in METHODS if hasattr(METHODS[m], "hands")} == set(MEASURING)
    rails, cue, target = (FAR,), (1.3, 1.2), (5.4, 1.25)
    layout = Layout(POOL, "nine-ball", (Ball("cue", *cue), Ball("7", *target)), "7")
    doubling = count("M2", layout, rails)
    assert isinstance(doubling, Count)
    assert hands_of(doubling, layout) == ()


@pytest.mark.parametrize("turn", TURNS, ids=str)
@pytest.mark.parametrize("method", MEASURING)
def test_the_last_step_is_the_counts_own_mark(method: str, turn: Turn) -> None:
    """What is remembered is where the count aims, in its own frame, on the rail as it is called here."""
    layout, found, steps = measured(method, turn)
    assert len(steps) >= 4
    [mark] = things(steps, MARK)
    rail = found.rails[0]
    assert rail.along(*mark[0]) == pytest.approx(getattr(found.aim, found.frame), abs=1e-9)
    assert f"Remember that point on the {rail} rail" in steps[-1].do
    [*_, line] = things(steps, SIGHT)
    assert line[0] == (layout.cue.x, layout.cue.y)
    assert any(step.keep for step in steps[:-1])


@pytest.mark.parametrize("method", MEASURING)
def test_steps_turn_with_the_table(method: str) -> None:
    _, _, steps = measured(method)
    for turn in TURNS[1:]:
        _, _, others = measured(method, turn)
        for one, other in zip(steps, others, strict=True):
            for a, b in zip(one.things, other.things, strict=True):
                assert a.kind == b.kind
                for p, q in zip(a.points, b.points, strict=True):
                    assert q == pytest.approx(turn.point(*p), abs=1e-9)


def test_the_span_is_carried_over_the_rail_unchanged() -> None:
    """M8: as far beyond the edge as before it, square to it; the sight from there to the cue ball crosses at the mark."""
    _, found, steps = measured("M8")
    before, beyond = things(steps, SPAN)
    [ghost] = things(steps, GHOST)
    assert before[0] == ghost[0]
    assert before[0][0] == before[1][0] == beyond[1][0]
    assert beyond[1][1] - 4.0 == pytest.approx(4.0 - before[0][1], abs=1e-12)
    (ix, iy), (cx, cy) = things(steps, SIGHT)[0]
    assert ix + (cx - ix) * (iy - 4.0) / (iy - cy) == pytest.approx(found.aim.nose, abs=1e-9)
    gap = math.hypot((ghost[0][0] - 5.9) * POOL.diamond_x, (ghost[0][1] - 2.9) * POOL.diamond_y)
    assert gap == pytest.approx(2 * POOL.ball_radius, abs=1e-9)
    assert f"{(4.0 - before[0][1]) * POOL.diamond_y * 1000:.0f} mm" in steps[1].do


@pytest.mark.parametrize("y", [0.09, 0.1, 0.15, 0.2, 0.23])
@pytest.mark.parametrize("x", [2.0, 3.4, 4.5])
def test_a_ball_near_the_rail_is_spanned_from_itself(x: float, y: float) -> None:
    """M8: no ghost ball fits between it and the rail; a span is never told below a ball's radius."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", x, 3.0), Ball("7", 3.4, y)), "7")
    found = count("M8", layout, (Rail.NEAR,))
    assert isinstance(found, Count)
    steps = hands_of(found, layout)
    assert things(steps, GHOST) == []
    before, beyond = things(steps, SPAN)
    assert before[0] == pytest.approx((3.4, y), abs=1e-12)
    assert beyond[1] == pytest.approx((3.4, -y), abs=1e-12)
    assert f"to {y * POOL.diamond_y * 1000:.0f} mm" in found.say
    assert "from the centre of the 7 square to" in found.say


def test_the_shaft_is_moved_parallel_and_no_more() -> None:
    """M3 and M10: both places of the shaft have one direction; M10's passes from the middle to the corner."""
    for method in ("M3", "M10"):
        _, _, steps = measured(method)
        (a, b), (c, d) = things(steps, SHAFT)
        assert (b[0] - a[0]) * (d[1] - c[1]) == pytest.approx((b[1] - a[1]) * (d[0] - c[0]), abs=1e-9)
    layout, _, steps = measured("M10")
    [finger] = things(steps, FINGER)
    target = layout.ball("7")
    assert finger[0] == pytest.approx(((layout.cue.x + target.x) / 2, (layout.cue.y + target.y) / 2))
    moved = things(steps, SHAFT)[1]
    assert moved[0] == (layout.cue.x, layout.cue.y)


def test_the_shaft_of_a_pair_lies_through_the_cue_ball() -> None:
    layout, _, steps = measured("M3")
    (x, y), (mx, my) = things(steps, SHAFT)[1]
    share = (layout.cue.y - y) / (my - y)
    assert x + share * (mx - x) == pytest.approx(layout.cue.x, abs=1e-9)
    level = Layout(POOL, "nine-ball", (Ball("cue", 1.3, 1.2), Ball("7", 5.3, 1.2)), "7")
    found = count("M3", level, (FAR,))
    assert isinstance(found, Count)
    spans = things(hands_of(found, level), SPAN)
    assert [round(math.dist(*s), 6) for s in spans] == [4.0, 2.0]


def test_the_object_balls_end_shows_the_same_line() -> None:
    """M9: target, mark and the cue ball's image lie on one line."""
    _, found, steps = measured("M9")
    (tx, ty), (ix, iy) = things(steps, SHAFT)[0]
    assert tx + (ix - tx) * (4.0 - ty) / (iy - ty) == pytest.approx(found.aim.nose, abs=1e-9)


def test_m7_moves_the_mark_half_of_each_shift() -> None:
    _, found, steps = measured("M7")
    spans = [abs(b[0] - a[0]) for a, b in things(steps, SPAN)]
    assert spans == pytest.approx([0.8, 0.4, 2.6, 1.3], abs=1e-9)
    assert found.aim.nose == pytest.approx(3.1)


def test_m6_holds_equal_angles_and_the_cue_ball_lies_under_the_line_in() -> None:
    layout, found, steps = measured("M6")
    (hx, hy), (mx, my), (tx, ty) = things(steps, SHAFT)[0]
    assert (tx, ty) == (layout.require_target().x, layout.require_target().y)
    assert (hy, mx - hx) == (pytest.approx(ty), pytest.approx(tx - mx))  # as far on the other side of the mark
    assert mx == pytest.approx(found.aim.centre)
    assert hx + (mx - hx) * (layout.cue.y - hy) / (my - hy) == pytest.approx(layout.cue.x, abs=1e-9)


@pytest.mark.parametrize(
    ("table", "rail", "at", "words"),
    [
        (POOL, FAR, 3.0, "the third diamond from the head end"),
        (POOL, FAR, 4.75, "a quarter short of the fifth diamond from the head end"),
        (POOL, FAR, 2.02, "the second diamond from the head end"),
        (POOL, FAR, 3.8, "the head-side jaw of side-far"),
        (POOL, FOOT, 1.5, "half past the first diamond from the near rail"),
        (SNOOKER, FAR, 1.65, "the baulk line"),
        (SNOOKER, FAR, 5.0, "the fifth mark from the head end"),
    ],
)
def test_marks_are_remembered_by_what_is_nearest(table: object, rail: Rail, at: float, words: str) -> None:
    assert landmark(table, rail, at) == words  # type: ignore[arg-type]


def test_landmarks_lie_on_their_rail() -> None:
    for table in (POOL, SNOOKER, standard_table("carom-10ft")):
        for rail in Rail:
            places = landmarks(table, rail)
            assert all(0.0 < at < rail.diamonds for at, _ in places)
            assert any("jaw" in name for _, name in places) == (table.pockets is not None)
