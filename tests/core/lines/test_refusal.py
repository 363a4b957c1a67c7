"""Why there is no line, told by playing the direction that comes nearest."""

import logging

import pytest
from tests.conftest import make

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.question import ask
from fandle.core.lines.refusal import FAILED, guarded, leg_name
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail


def refused(layout: Layout, rails: tuple[Rail, ...], stroke: Stroke) -> tuple[str, str]:
    found = solve_kick(layout, rails, stroke)
    assert isinstance(found, Refusal)
    return found.reason_code, found.reason


def refused_or_none(layout: Layout, rails: tuple[Rail, ...], stroke: Stroke) -> tuple[str, str] | None:
    found = solve_kick(layout, rails, stroke)
    return (found.reason_code, found.reason) if isinstance(found, Refusal) else None


def test_each_reason(pool: Table) -> None:
    far = (Rail.FAR,)
    wall = [(1.0 + 0.22 * k, 1.2) for k in range(7)]
    code, reason = refused(make(pool, (1.1, 0.55), (5.3, 0.5), *wall), far, Stroke(3.0))
    assert (code, reason) == ("blocked", "the 4 is in the way before the rail")
    code, reason = refused(make(pool, (1.1, 0.55), (5.3, 0.5)), far, Stroke(0.6))
    assert (code, "diamonds short of the 1" in reason) == ("short_of_speed", True)
    jaws = [refused_or_none(make(pool, (2.0, 0.5), (x / 10, 0.5)), far, Stroke(3.0)) for x in range(56, 70)]
    told = {found for found in jaws if found is not None}
    assert ("jaw", "the ball would meet the side-far jaw, not meet the far rail") in told
    code, reason = refused(make(pool, (4.0, 1.0), (4.0, 3.0)), far, Stroke(3.0))
    assert (code, reason) == ("blocked", "the 1 itself is hit before the far rail")


def test_legs_are_named_by_their_rails(pool: Table) -> None:
    layout = make(pool, (1.1, 0.55), (5.3, 0.5))
    three = ask(layout, (Rail.FAR, Rail.FOOT, Rail.NEAR), None, 0.0)
    assert [leg_name(three, leg) for leg in range(4)] == [
        "in the way before the rail", "between the far and the foot rail", "between the foot and the near rail", "in the way after the last rail",
    ]  # fmt: skip
    assert leg_name(ask(layout, (), None, 0.0), 0) == "in the way"


def test_what_fails_is_told_and_logged_and_bad_input_goes_on(pool: Table, caplog: pytest.LogCaptureFixture) -> None:
    layout = make(pool, (1.1, 0.55), (5.3, 0.5))

    def broken() -> Aim | Refusal:
        raise ZeroDivisionError("deep inside")

    def given_up() -> Aim | Refusal:
        raise EngineError("the shot makes too many contacts")

    def wrong() -> Aim | Refusal:
        raise BadInputError("no such ball", "target")

    with caplog.at_level(logging.ERROR):
        found = guarded(layout, (Rail.FAR,), "1", broken)
    assert found == Refusal((Rail.FAR,), "1", "no_such_line", FAILED)
    assert "deep inside" in caplog.text
    told = guarded(layout, (Rail.FAR,), "1", given_up)
    assert isinstance(told, Refusal)
    assert told.reason == "the shot makes too many contacts"
    with pytest.raises(BadInputError, match="no such ball"):
        guarded(layout, (Rail.FAR,), "1", wrong)
