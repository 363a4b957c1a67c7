"""The question turned round: hold the mark, get the stroke; then aim with that stroke and get the mark back."""

import math
import random

import pytest
from tests.conftest import make
from tests.core.lines.test_kick import random_layout

from fandle.core.errors import BadInputError
from fandle.core.layout.model import Layout
from fandle.core.lines.held import CHANGES, Instead, solve_instead
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import direction_to, marks
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail

FAR = (Rail.FAR,)


def hold(layout: Layout, at: float, stroke: Stroke, change: str, rails: tuple[Rail, ...] = FAR) -> Instead | Refusal:
    direction = direction_to(layout.table, rails[0], layout.metres(layout.cue), at, "nose")
    return solve_instead(layout, rails, direction, stroke, change)


@pytest.mark.parametrize("change", CHANGES)
def test_aiming_with_the_found_stroke_returns_the_held_mark(pool: Table, change: str) -> None:
    """To 1e-4 diamond, over one and over two rails, wherever a stroke is found."""
    rng = random.Random(change)
    found = 0
    for _ in range(40):
        layout = random_layout(pool, rng, 2)
        rails = rng.choice([FAR, (Rail.FOOT,), (Rail.NEAR,), (Rail.FAR, Rail.FOOT)])
        stroke = Stroke(rng.uniform(2.0, 5.0), rng.uniform(-0.2, 0.2), rng.uniform(-0.1, 0.2))
        plain = solve_kick(layout, rails, stroke, with_chain=False)
        if isinstance(plain, Refusal) or plain.best.miss_mm > 0.01:
            continue
        at = plain.best.corrected.nose + rng.uniform(-0.1, 0.1)
        answer = hold(layout, at, stroke, change, rails)
        if isinstance(answer, Refusal):
            continue
        again = solve_kick(layout, rails, answer.stroke, with_chain=False)
        assert isinstance(again, Aim)
        noses = [s.corrected.nose for s in again.solutions]
        assert min(abs(nose - at) for nose in noses) < 1e-4, (layout.balls, rails, stroke, answer)
        assert answer.miss_mm < 0.001
        found += 1
    assert found > (3 if change == "speed" else 8)


def test_only_what_is_to_change_changes(pool: Table) -> None:
    layout, stroke = make(pool, (1.0, 1.0), (5.0, 1.0)), Stroke(3.0, 0.05, 0.1)
    answer = hold(layout, 2.8, stroke, "side")
    assert isinstance(answer, Instead)
    assert (answer.stroke.speed, answer.stroke.up) == (3.0, 0.1)
    assert answer.value == answer.stroke.side
    assert answer.stroke.side > 0.05  # nearer to oneself: more running side, which is right here (trade §4)


def test_harder_allows_a_mark_further_along(pool: Table) -> None:
    """Trade §4: harder comes off short, so a mark nearer the target goes with more speed."""
    layout = make(pool, (1.0, 1.0), (5.0, 1.0))
    now = solve_kick(layout, FAR, Stroke(3.0), with_chain=False)
    assert isinstance(now, Aim)
    answer = hold(layout, now.best.corrected.nose + 0.1, Stroke(3.0), "speed")
    assert isinstance(answer, Instead)
    assert answer.value > 3.0


def test_nothing_in_the_legal_range_is_said_so(pool: Table) -> None:
    layout = make(pool, (1.0, 1.0), (5.0, 1.0))
    side = hold(layout, 0.8, Stroke(3.0, up=0.45), "side")
    assert isinstance(side, Refusal)
    assert side.reason_code == "too_much_side"
    assert "no side within the limits takes that mark to the 1" in side.reason
    speed = hold(layout, 2.0, Stroke(3.0), "speed")
    assert isinstance(speed, Refusal)
    assert speed.reason_code == "short_of_speed"
    up = hold(layout, 1.2, Stroke(3.0), "up")
    assert isinstance(up, Refusal)
    assert up.reason_code == "no_such_line"


def test_a_ball_in_the_way_of_the_held_line_is_told(pool: Table) -> None:
    layout = make(pool, (1.0, 1.0), (5.0, 1.0), (2.1, 2.7))
    answer = hold(layout, 2.95, Stroke(3.0), "side")
    assert isinstance(answer, Refusal)
    assert answer.reason_code == "blocked"
    assert "the 2" in answer.reason


def test_the_nearest_value_comes_first_and_others_are_told(pool: Table) -> None:
    layout = make(pool, (1.0, 1.0), (5.0, 1.0))
    answer = hold(layout, 2.95, Stroke(3.0), "side")
    assert isinstance(answer, Instead)
    assert all(abs(answer.value) <= abs(other) for other in answer.others)
    held = marks(pool, Rail.FAR, layout.metres(layout.cue), answer.direction).nose
    assert held == pytest.approx(2.95, abs=1e-12)


def test_what_cannot_be_asked(pool: Table) -> None:
    layout = make(pool, (1.0, 1.0), (5.0, 1.0))
    with pytest.raises(BadInputError, match="change 'weight': hold the mark and change one of side, up, speed"):
        solve_instead(layout, FAR, math.pi / 3, Stroke(3.0), "weight")
