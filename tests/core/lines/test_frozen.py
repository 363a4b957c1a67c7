"""A cue ball frozen to another ball or to a rail, and windows at a rail's end: daily business, answered and finite."""

import math
import random
from dataclasses import replace

import pytest
from campaign.audit import finite
from tests.conftest import make

from fandle.app.situation import Situation
from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.candidates import bank_line_steps, candidate_steps
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import direction_to, markable
from fandle.core.lines.refusal import FAILED, guarded
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, usual_game
from fandle.formats.answers import aim_answer
from fandle.formats.words import aim as aim_words
from fandle.web.table.view import answer

MEDIUM = Stroke(3.1)


def frozen(table: Table, angle: float, others: tuple[tuple[str, float, float], ...] = ()) -> Layout:
    """The cue ball at (3, 2), the target frozen to it at an angle (rad)."""
    reach = 2 * table.ball_radius
    there = 3 + reach * math.cos(angle) / table.diamond_x, 2 + reach * math.sin(angle) / table.diamond_y
    name = {"snooker": "red1", "three-cushion": "red"}.get(usual_game(table), "1")
    balls = (Ball("cue", 3, 2), Ball(name, *there), *(Ball(*other) for other in others))
    return Layout(table, usual_game(table), balls, name)


@pytest.mark.parametrize("name", STANDARDS)
@pytest.mark.parametrize("angle", [0.0, 0.844, math.pi / 2, 2.5, -1.9])
def test_a_frozen_ball_played_straight_is_a_push(name: str, angle: float) -> None:
    found = solve_kick(frozen(STANDARDS[name], angle), (), MEDIUM)
    assert isinstance(found, Aim)
    best = found.best
    assert best.push
    assert best.miss_mm < 1
    assert best.fullness == pytest.approx(1)
    assert math.radians(best.window_deg) == pytest.approx(math.pi, abs=0.05)  # any direction within a right angle
    finite(aim_answer(found).json_data())
    assert "push" in aim_words(found)


def test_as_the_fault_was_found() -> None:
    balls = (Ball("cue", 3, 2), Ball("1", 3.1196, 2.1345))
    layout = Layout(STANDARDS["pool-9ft"], "nine-ball", balls, "1")
    found = solve_kick(layout, (), MEDIUM)
    assert isinstance(found, Aim)
    shown = finish(answer(Situation(layout, MEDIUM)))
    assert "Push" in [line["name"] for line in shown["lines"]]
    pushed = finish(answer(Situation(layout, MEDIUM, rails=())))["chosen"]
    assert pushed["thickness"] == "The 1 is frozen to the cue ball: this is a push, both go on together."


def test_towards_it_it_is_pushed_away_from_it_is_a_kick(pool: Table) -> None:
    layout = frozen(pool, math.pi / 2)
    towards, away = (solve_kick(layout, (rail,), MEDIUM) for rail in (Rail.FAR, Rail.NEAR))
    assert isinstance(towards, Refusal)
    assert towards.reason_code == "blocked"
    assert "frozen to the cue ball" in towards.reason
    assert isinstance(away, Aim)
    assert not away.best.push
    assert away.best.miss_mm < 1


def test_past_a_frozen_ball_another_is_met_and_along_it_grazes_nothing(pool: Table) -> None:
    layout = replace(frozen(pool, math.pi / 2, (("2", 6.0, 2.0), ("3", 3.0, 3.5))), target="2")
    straight = solve_kick(layout, (), MEDIUM)
    assert isinstance(straight, Aim)  # square to the line of centres the frozen ball stays where it is
    assert play(layout, MEDIUM, straight.best.direction).first_ball == "2"
    through = solve_kick(replace(layout, target="3"), (), MEDIUM)
    assert isinstance(through, Refusal)
    assert "the 1 is frozen to the cue ball" in through.reason


def test_random_frozen_placements_are_answered_on_every_table() -> None:
    rng, solved = random.Random(7), 0
    for n in range(60):
        table = list(STANDARDS.values())[n % 5]
        layout = frozen(table, rng.uniform(0, 2 * math.pi))
        stroke = Stroke(rng.uniform(0.5, 8), rng.uniform(-0.3, 0.3), rng.uniform(-0.3, 0.3))
        lines = finish(candidate_steps(layout, stroke))
        if table.pockets is not None:
            lines += finish(bank_line_steps(layout, stroke, (1,)))
        for line in lines:
            finite(aim_answer(line.answer).json_data())
            if isinstance(line.answer, Refusal):
                assert line.answer.reason != FAILED
            solved += line.solved
        assert lines[4].solved  # the push
    assert solved > 120


def test_a_window_ends_at_the_rail_s_ends(pool: Table) -> None:
    layout = make(pool, (3.3674, 0.09), (3.1676, 0.1678))
    found = solve_kick(layout, (Rail.NEAR,), Stroke(1.0, side=-0.3))
    assert isinstance(found, Aim)
    best = found.best
    scale = pool.diamond_x * 1000
    assert best.window_less_mm >= 0
    assert best.window_more_mm >= 0
    assert best.corrected.nose - best.window_less_mm / scale >= -1e-9
    assert best.corrected.nose + best.window_more_mm / scale <= 8 + 1e-9


def test_every_window_lies_on_its_rail_and_holds_its_aim() -> None:
    rng, seen = random.Random(11), 0
    for n in range(80):
        table = list(STANDARDS.values())[n % 5]
        r = table.ball_radius
        y = rng.choice((r / table.diamond_y, rng.uniform(0.4, 3.6)))
        names = {"snooker": "red1", "three-cushion": "red"}
        target = names.get(usual_game(table), "1")
        try:
            balls = (Ball("cue", rng.uniform(1, 7), y), Ball(target, rng.uniform(1, 7), rng.uniform(0.4, 3.6)))
            layout = Layout(table, usual_game(table), balls, target)
        except BadInputError:
            continue
        for rail in Rail:
            found = solve_kick(layout, (rail,), Stroke(rng.uniform(1, 6), rng.uniform(-0.4, 0.4)))
            for best in found.solutions if isinstance(found, Aim) else ():
                seen += 1
                scale = 1000 * (table.diamond_x if rail.is_long else table.diamond_y)
                low = best.corrected.nose - best.window_less_mm / scale
                high = best.corrected.nose + best.window_more_mm / scale
                assert markable(rail, best.corrected.nose)
                assert min(0, best.corrected.nose) - 1e-6 <= low <= best.corrected.nose <= high
                assert high <= max(rail.diamonds, best.corrected.nose) + 1e-6
    assert seen > 150


@pytest.mark.parametrize("at", [44.0, -2.1, 10.1, -300.0])
def test_a_mark_far_off_the_rail_is_refused(pool: Table, at: float) -> None:
    with pytest.raises(BadInputError, match="give at most 2 diamonds beyond its ends"):
        direction_to(pool, Rail.FAR, (0.4, 0.4), at, "nose")


@pytest.mark.parametrize("at", [-2.0, 0.0, 8.0, 10.0])
def test_a_mark_near_the_rail_is_taken(pool: Table, at: float) -> None:
    assert math.isfinite(direction_to(pool, Rail.FAR, (0.4, 0.4), at, "nose"))


def test_whatever_aim_prints_can_be_aimed_at(pool: Table) -> None:
    rng, tried = random.Random(3), 0
    for _ in range(60):
        layout = make(
            pool, (rng.uniform(0.5, 3.5), rng.uniform(0.2, 3.8)), (rng.uniform(4, 7.5), rng.uniform(0.2, 3.8))
        )
        for rail in Rail:
            found = solve_kick(layout, (rail,), Stroke(rng.uniform(2, 5)))
            for best in found.solutions if isinstance(found, Aim) else ():
                for frame in ("nose", "sight", "centre"):
                    again = direction_to(pool, rail, layout.metres(layout.cue), getattr(best.corrected, frame), frame)
                    assert math.remainder(again - best.direction, 2 * math.pi) == pytest.approx(0, abs=1e-9)
                    tried += 1
    assert tried > 300


def test_one_line_that_fails_is_told_logged_and_leaves_the_rest(
    blocked: Layout, caplog: pytest.LogCaptureFixture
) -> None:
    def breaks() -> Aim | Refusal:
        raise ZeroDivisionError("float division by zero")

    def too_long() -> Aim | Refusal:
        raise EngineError("the shot makes more than 300 contacts: play it slower")

    broken = guarded(blocked, (Rail.FAR,), "1", breaks)
    assert isinstance(broken, Refusal)
    assert (broken.reason_code, broken.reason) == ("no_such_line", FAILED)
    assert "the line far to 1 fails" in caplog.text
    long = guarded(blocked, (Rail.FAR,), "1", too_long)
    assert isinstance(long, Refusal)
    assert "play it slower" in long.reason
    with pytest.raises(BadInputError, match="asked wrongly"):
        guarded(blocked, (Rail.FAR,), "1", lambda: (_ for _ in ()).throw(BadInputError("asked wrongly")))


def test_a_frozen_bank_is_answered(pool: Table) -> None:
    found = solve_bank(frozen(pool, 0.4), (Rail.FAR,), MEDIUM)
    finite(aim_answer(found).json_data())


def test_a_straight_line_whose_cue_points_past_the_rail_is_read_at_another(pool: Table) -> None:
    """Nearly along the far rail: squirt turns the cue away from it."""
    layout = make(pool, (1.0, 3.8), (5.0, 3.88))
    stroke = Stroke(3.0, side=-0.4, cue=HOUSE)

    found = solve_kick(layout, (), stroke)
    assert isinstance(found, Aim)
    finite(aim_answer(found).json_data())
    assert markable(found.best.mark_rail, found.best.corrected.nose)
