"""Name the aim: a layout without its line, and the mark is asked for. Harder as one improves.

The right answer is the aim as it is played on the player's table; right means it would have hit. How hard a question
is, its window says: how far the mark may be off. A weighted staircase (Kaernbach, Perception & Psychophysics 49 (1991)
227-229, from memory) keeps it where four of five answers are right.
"""

import math
import random
from dataclasses import dataclass

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.marks import diamond_along, direction_to
from fandle.core.lines.solution import Aim, Solution
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.played import landing
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import usual_game, usual_target

WIDEST, NARROWEST = 0.5, 0.03  # diamonds either way that a mark may be off, of the easiest and the hardest question
RIGHT_SHARE = 0.8
STEP = 0.06  # of the difficulty, 0 to 1, after a right answer
FULL = 0.99
CANDIDATES = 20  # layouts looked at for one question
TRIES = 200  # to find them
EASY_S, HARD_S = 30.0, 10.0  # seconds to answer
ORDERS: dict[int, tuple[tuple[Rail, ...], ...]] = {
    1: ((Rail.FAR,), (Rail.NEAR,), (Rail.FOOT,), (Rail.HEAD,)),
    2: ((Rail.FAR, Rail.FOOT), (Rail.FOOT, Rail.FAR), (Rail.NEAR, Rail.FOOT), (Rail.FAR, Rail.HEAD)),
    3: ((Rail.FAR, Rail.FOOT, Rail.NEAR), (Rail.NEAR, Rail.FOOT, Rail.FAR)),
}
NEAR_RAIL = (0.2, 0.8)  # diamonds off the rail, where the target of an easy question lies
TWO_RAILS, THREE_RAILS = 0.4, 0.75  # difficulties from which lines over so many rails are asked


@dataclass(frozen=True)
class Question:
    """A layout, the rails to go over, a plain stroke, and the answer: its mark at the nose, what it may be off (less,
    more, diamonds), the time for it (s). Two questions of one seed, table and difficulty are the same."""

    layout: Layout
    rails: tuple[Rail, ...]
    stroke: Stroke
    at: float
    less: float
    more: float
    seconds: float

    @property
    def half(self) -> float:
        """Half its window, diamonds: how hard it is."""
        return 0.5 * (self.less + self.more)


def window_at(difficulty: float) -> float:
    """The window asked for, diamonds either way: from the widest to the narrowest, in equal ratios."""
    return float(WIDEST * (NARROWEST / WIDEST) ** min(max(difficulty, 0.0), 1.0))


def rails_at(difficulty: float) -> tuple[int, ...]:
    """Over how many rails lines are asked."""
    return (1,) if difficulty < TWO_RAILS else (1, 2) if difficulty < THREE_RAILS else (1, 2, 3)


def question(table: Table, seed: int, difficulty: float, rails: int | None = None) -> Question:
    """A question as hard as asked: of some layouts the one whose window comes nearest.

    rails: over how many, None for as many as belong to the difficulty. Raises BadInputError where the table has none.
    """
    rng, wanted = random.Random(f"{seed}:{difficulty:.4f}:{rails}"), window_at(difficulty)
    orders = [order for n in ((rails,) if rails else rails_at(difficulty)) for order in ORDERS[n]]
    found: list[Question] = []
    for _ in range(TRIES):
        made = _tried(table, rng, rng.choice(orders), difficulty)
        if made is not None:
            found.append(made)
            if len(found) == CANDIDATES:
                break
    if not found:
        raise BadInputError("no question can be asked on this table: choose another one", "table", code="no_line")
    return min(found, key=lambda each: abs(math.log(each.half / wanted)))


def _tried(table: Table, rng: random.Random, rails: tuple[Rail, ...], difficulty: float) -> Question | None:
    """A question at random; None where there is no such line, or more than one of them."""
    places = [(round(rng.uniform(0.4, 7.6), 2), round(rng.uniform(0.3, 3.7), 2)) for _ in range(2)]
    if len(rails) == 1 and rng.random() > difficulty / TWO_RAILS:
        places[1] = _near(rails[0], rng)
    try:
        layout = Layout(
            table, usual_game(table), (Ball("cue", *places[0]), Ball(usual_target(table), *places[1])),
            usual_target(table),
        )  # fmt: skip
    except BadInputError:
        return None
    stroke = Stroke(default_speed(table))
    answer = solve_kick(layout, rails, stroke, with_chain=False)
    if not isinstance(answer, Aim) or len(answer.solutions) > 1 or answer.best.fullness < FULL:
        return None
    best = answer.best
    at, less, more = best.corrected.nose, *_window(table, best)
    if not 0.3 <= at <= rails[0].diamonds - 0.3 or not 0.3 * NARROWEST < 0.5 * (less + more) < 3 * WIDEST:
        return None
    return Question(layout, rails, stroke, at, less, more, EASY_S + (HARD_S - EASY_S) * difficulty)


def _near(rail: Rail, rng: random.Random) -> Point:
    """A place for the target near the rail to go over: its line hardly spreads after the rail, which forgives most."""
    off = round(rng.uniform(*NEAR_RAIL), 2)
    along = round(rng.uniform(0.8, rail.diamonds - 0.8), 2)
    return rail.point(along, rail.diamonds_across - off if rail.at_end else off)


def _window(table: Table, best: Solution) -> tuple[float, float]:
    """(less, more) of the mark at the nose, diamonds."""
    unit = 1000 * diamond_along(table, best.rails[0])
    return best.window_less_mm / unit, best.window_more_mm / unit


@dataclass(frozen=True)
class Feedback:
    """What an answer comes to: off (diamonds, + further along), right: it would have hit; fullness of that hit, 0 to 1.

    lands: diamonds off at the target, long +, None where it does not come there.
    """

    off: float
    right: bool
    fullness: float
    lands: float | None


def judge(asked: Question, at: float) -> Feedback:
    """Play the mark that was named. Raises BadInputError for one off the rail."""
    layout, rails = asked.layout, asked.rails
    if not -0.5 <= at <= rails[0].diamonds + 0.5:
        raise BadInputError(
            f"{at:g} is not on the {rails[0]} rail: 0 to {rails[0].diamonds}", "at", code="out_of_range"
        )
    direction = direction_to(layout.table, rails[0], layout.metres(layout.cue), at, "nose")
    way = approach(layout, asked.stroke, direction, most_rails=len(rails) + 2)  # a rail behind the ball may help
    right = way.first_ball == layout.target and way.rails[: len(rails)] == rails
    target = layout.require_target()
    alone = approach(layout, asked.stroke, direction, most_rails=len(rails) + 1, ignore_balls=True)
    lands = landing(layout, rails, (target.x, target.y), alone)
    full = max(1.0 - lands.off_balls, 0.0) if right and lands is not None else 0.0
    return Feedback(at - asked.at, right, full, None if lands is None else lands.off)


def next_difficulty(difficulty: float, *, right: bool) -> float:
    """A little harder after a right answer, four times as much easier after a wrong one: it settles at four of five."""
    step = STEP if right else -STEP * RIGHT_SHARE / (1.0 - RIGHT_SHARE)
    return min(max(difficulty + step, 0.0), 1.0)


def grade(*, right: bool, seconds: float, allowed: float) -> int:
    """How well it was known, as the spaced repetition has it: 1 again, 2 hard, 3 good, 4 easy."""
    if not right:
        return 1
    return 2 if seconds > allowed else 4 if seconds < 0.3 * allowed else 3
