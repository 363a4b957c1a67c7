"""The quiz: every question has one right answer, which hits when played; an invented player is estimated honestly."""

import random
from datetime import UTC, datetime, timedelta

import pytest
from tests.amount import amount

from fandle.core.errors import BadInputError
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim, Refusal
from fandle.core.practice.cards import TOPICS, Deck
from fandle.core.practice.choices import NEAR, choice
from fandle.core.practice.progress import average
from fandle.core.practice.quiz import grade, judge, next_difficulty, question, rails_at, window_at
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

POOL = STANDARDS["pool-9ft"]
QUESTIONS = amount(60, 2000)
SCATTERS = [0.05, 0.12, 0.2][: amount(1, 3)]  # of invented players, diamonds


@pytest.mark.proof
def test_every_question_has_one_answer_and_it_hits() -> None:
    rng = random.Random(1)
    for seed in range(QUESTIONS):
        table = STANDARDS[rng.choice(list(STANDARDS))]
        asked = question(table, seed, rng.random())
        answer = solve_kick(asked.layout, asked.rails, asked.stroke, with_chain=False)
        assert isinstance(answer, Aim)
        assert len(answer.solutions) == 1
        assert answer.best.corrected.nose == pytest.approx(asked.at)
        told = judge(asked, asked.at)
        assert told.right
        assert (
            told.fullness > 0.94
        )  # read off the path alone, which curves on or turns at a rail where the ball would stand: 0.947
        assert told.lands == pytest.approx(0.0, abs=0.05)


@pytest.mark.proof
def test_right_means_it_would_have_hit() -> None:
    """Just inside either end of the window it is; well outside it is not, but for a stray over a further rail."""
    strays = 0
    for seed in range(amount(20, 60)):
        asked = question(POOL, seed, 0.4)
        assert judge(asked, asked.at + 0.9 * asked.more).right
        assert judge(asked, asked.at - 0.9 * asked.less).right
        strays += judge(asked, asked.at + 1.6 * max(asked.more, asked.less) + 0.3).right
    assert strays <= amount(2, 6)
    with pytest.raises(BadInputError, match="is not on the"):
        judge(question(POOL, 1, 0.4), 20.0)


def test_the_same_seed_asks_the_same() -> None:
    assert question(POOL, 5, 0.3) == question(POOL, 5, 0.3)
    assert question(POOL, 5, 0.3) != question(POOL, 6, 0.3)


def test_harder_questions_have_narrower_windows_and_more_rails() -> None:
    easy, hard = ([question(POOL, seed, d).half for seed in range(15)] for d in (0.0, 0.9))
    assert sum(easy) > 2.5 * sum(hard)
    assert window_at(0.0) > window_at(0.5) > window_at(1.0)
    assert (rails_at(0.0), rails_at(0.5), rails_at(0.9)) == ((1,), (1, 2), (1, 2, 3))
    assert question(POOL, 1, 0.0).seconds > question(POOL, 1, 0.9).seconds


@pytest.mark.proof
@pytest.mark.parametrize("scatter", SCATTERS)
def test_it_settles_where_four_of_five_are_right(scatter: float) -> None:
    rng, difficulty, right = random.Random(3), 0.3, []
    for seed in range(60 + amount(60, 200)):
        asked = question(POOL, seed, difficulty)
        named = min(max(asked.at + rng.gauss(0.0, scatter), 0.0), asked.rails[0].diamonds)
        right.append(judge(asked, named).right)
        difficulty = next_difficulty(difficulty, right=right[-1])
    slack = amount(10, 5) / 100  # a standard deviation is 0.05 of sixty answers, 0.03 of two hundred
    assert 0.8 - slack <= sum(right[60:]) / len(right[60:]) <= 0.8 + slack


def test_bias_and_scatter_are_estimated_within_their_ranges() -> None:
    """Four hundred invented players, thirty answers each: the 95 % ranges hold the truth in 90 to 98 %."""
    rng, means, spreads = random.Random(4), [], []
    for _ in range(400):
        bias, scatter = rng.uniform(-0.2, 0.2), rng.uniform(0.03, 0.2)
        told = average([rng.gauss(bias, scatter) for _ in range(30)])
        low, high = told.range
        means.append(low <= bias <= high)
        low, high = told.sd_range
        spreads.append(low <= scatter <= high)
    assert 0.90 <= sum(means) / 400 <= 0.98
    assert 0.90 <= sum(spreads) / 400 <= 0.98


def test_of_two_rails_one_is_open_and_the_other_shut() -> None:
    """Played: the right answer hits, the other one is blocked by a ball."""
    for seed in range(8):
        asked = choice(POOL, "rail", seed, 0.3)
        layout, (first, second) = asked.base.layout, asked.options
        shut = second if asked.answer == first else first
        assert isinstance(solve_kick(layout, (Rail(str(asked.answer)),), asked.base.stroke, with_chain=False), Aim)
        refused = solve_kick(layout, (Rail(shut),), asked.base.stroke, with_chain=False)
        assert isinstance(refused, Refusal)
        assert refused.reason_code == "blocked"
        assert shut in asked.why


def test_which_side_is_running() -> None:
    """Far rail towards the foot: right; foot rail towards far: left (trade.md §2)."""
    seen = set()
    for seed in range(12):
        asked = choice(POOL, "side", seed, 0.3)
        rail, layout = asked.base.rails[0], asked.base.layout
        target = layout.require_target()
        if rail.value == "far":
            assert asked.answer == ("right" if target.x > layout.cue.x else "left")
            seen.add(asked.answer)
        assert asked.right(asked.answer)
        assert not asked.right("left" if asked.answer == "right" else "right")
    assert seen


@pytest.mark.proof
def test_short_or_long_after_a_change_is_what_the_trade_says() -> None:
    """Running side long, reverse short, over one rail (trade.md §4)."""
    told = [choice(POOL, "change", seed, 0.3) for seed in range(amount(14, 30))]
    running_ones = [each for each in told if "of running side" in each.text]
    reverse_ones = [each for each in told if "of reverse" in each.text]
    assert running_ones
    assert reverse_ones
    assert all(each.answer == "long" for each in running_ones)
    assert all(each.answer == "short" for each in reverse_ones)


def test_the_second_contact_may_be_read_a_little_off() -> None:
    asked = choice(POOL, "contacts", 2, 0.3)
    assert isinstance(asked.answer, float)
    assert asked.rail is asked.base.rails[1]
    assert asked.right(asked.answer + 0.9 * NEAR)
    assert not asked.right(asked.answer + 1.1 * NEAR)
    with pytest.raises(BadInputError, match="is no mark"):
        asked.right("left")
    with pytest.raises(BadInputError, match="unknown topic"):
        choice(POOL, "luck", 1, 0.3)


def test_what_is_missed_comes_back_first() -> None:
    now = datetime(2026, 11, 26, 20, 0, tzinfo=UTC)
    deck = Deck({})
    for topic in TOPICS:
        assert deck.due(now) == topic
        deck = deck.answered(topic, 1 if topic == "side" else 4, now)
    later = now + timedelta(minutes=20)
    assert deck.due(later) == "side"
    learned = deck
    for _ in range(3):
        learned = learned.answered("side", 4, later)
    missed = learned.answered("change", 1, later)
    assert missed.due(later + timedelta(minutes=30)) == "change"
    with pytest.raises(BadInputError, match="unknown topic"):
        deck.answered("luck", 3, now)


def test_slow_answers_are_hard_and_wrong_ones_come_again() -> None:
    assert [
        grade(right=False, seconds=1, allowed=20),
        grade(right=True, seconds=25, allowed=20),
        grade(right=True, seconds=12, allowed=20),
        grade(right=True, seconds=3, allowed=20),
    ] == [1, 2, 3, 4]
