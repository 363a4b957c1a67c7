"""Questions beside the mark: which side is running, short or long after a change, where the second rail is met."""

import random
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from typing import Literal

from fandle.core.errors import BadInputError
from fandle.core.lines.marks import direction_to
from fandle.core.practice.quiz import Question, question
from fandle.core.practice.which_rail import shut_one
from fandle.core.shot.approach import approach
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.systems import halving
from fandle.core.systems.base import Count, figure
from fandle.core.systems.catalogue import known, orders_of
from fandle.core.systems.played import landing
from fandle.core.systems.registry import count
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_of
from fandle.core.words.balls import spoken

Topic = Literal["rail", "side", "change", "contacts", "sum"]
TELLING = 0.12  # diamonds: a change that does less is not asked for
ALONG = 0.8  # diamonds along the rail: of a ball that comes in steeper, short and long may change places
SUM_NEAR = 0.12  # diamonds at the rail: a sum so nearly right is right
NEAR = 0.3  # diamonds: a second contact named so nearly is right
HARDER, SOFTER = 1.25, -0.75  # table lengths
TIPS = 0.5
TRIES = 40
CHANGES = {  # and how each is said
    "harder": "harder", "softer": "softer", "running": "half a tip of running side",
    "reverse": "half a tip of reverse",
}  # fmt: skip


@dataclass(frozen=True)
class Choice:
    """A question with its words. options: to choose from, () where a mark on `rail`, or a number, is asked for; answer:
    the option, the mark in diamonds, the number; near: how far off those may be; why: told afterwards."""

    topic: Topic
    base: Question
    text: str
    options: tuple[str, ...]
    answer: str | float
    why: str
    rail: Rail | None = None
    near: float = NEAR

    def right(self, given: str | float) -> bool:
        """Is an answer right? Raises BadInputError for one of the wrong kind."""
        if isinstance(self.answer, str):
            if given not in self.options:
                raise BadInputError(f"{given!r} is no answer: choose {' or '.join(self.options)}", "answer")
            return given == self.answer
        if isinstance(given, str):
            raise BadInputError(f"{given!r} is no mark: give it as a number", "answer")
        return abs(given - self.answer) <= self.near


def choice(table: Table, topic: str, seed: int, difficulty: float, method: str = halving.METHOD) -> Choice:
    """A question of a topic; method: the system a sum is asked of. Raises BadInputError where the table has none."""
    makers: dict[str, Callable[[Question, random.Random], Choice | None]] = {
        "rail": _rail, "side": _side, "change": _change, "contacts": _contacts, "sum": partial(_sum, method),
    }  # fmt: skip
    if topic not in makers:
        raise BadInputError(f"unknown topic {topic!r}: use one of {', '.join(makers)}", "topic", code="unknown")
    for k in range(TRIES):
        rails = _rails_asked(topic, method)
        made = makers[topic](question(table, 1000 * seed + k, difficulty, rails), random.Random(f"{seed}:{k}"))
        if made is not None:
            return made
    raise BadInputError("no such question can be asked on this table: choose another one", "table", code="no_line")


def _rails_asked(topic: str, method: str) -> int:
    """Over how many rails a topic's questions go: a sum as its system counts."""
    if topic == "sum":
        return min(len(order) for order in orders_of(known(method)))
    return 2 if topic == "contacts" else 1


def _sum(method: str, base: Question, _: random.Random) -> Choice | None:
    """The number that a system shoots, by its own sum; None where it does not count, or has no numbers of its own."""
    found = count(method, base.layout, base.rails)
    if not isinstance(found, Count) or found.own is None:
        return None
    text = (
        f"By {found.title.lower()}, over the {base.rails[0]} rail to {spoken(base.layout.target or '')}: which number?"
    )
    why = f"{'; '.join(found.steps)}. Shoot {figure(found.own.number)}: it lands {found.lands.where}."
    return Choice("sum", base, text, (), found.own.number, why, near=SUM_NEAR / abs(found.own.unit))


def _direction(base: Question) -> float:
    layout = base.layout
    return direction_to(layout.table, base.rails[0], layout.metres(layout.cue), base.at, "nose")


def _rail(base: Question, rng: random.Random) -> Choice | None:
    """One of two ways is shut by a ball: which rail?"""
    found = shut_one(base)
    if found is None:
        return None
    options = [found.open.value, found.shut.value]
    rng.shuffle(options)
    text = f"{spoken(base.layout.target or '')} has to be hit off one rail, plain, medium: which one is open?"
    why = f"Over the {found.shut} rail {spoken(found.ball)} is in the way."
    return Choice("rail", found.base, text[0].upper() + text[1:], tuple(options), found.open.value, why)


def _side(base: Question, _: random.Random) -> Choice | None:
    direction = _direction(base)
    right = "right" if running(1.0, base.rails[0], direction) == "running" else "left"
    why = f"Off the {base.rails[0]} rail this way, {right} is running: it lengthens the rebound; the other shortens it."
    text = f"Over the {base.rails[0]} rail to {spoken(base.layout.target or '')}: which side is running?"
    return Choice("side", base, text, ("left", "right"), right, why)


def _change(base: Question, rng: random.Random) -> Choice | None:
    """The same mark with another stroke: short or long?"""
    changed, direction, layout = rng.choice(list(CHANGES)), _direction(base), base.layout
    stroke = _changed(base, changed, direction)
    target = layout.require_target()
    lands = []
    for each in (base.stroke, stroke):
        shot = approach(layout, each, direction, most_rails=len(base.rails) + 1, ignore_balls=True)
        lands.append(landing(layout, base.rails, (target.x, target.y), shot))
    was, now = lands
    run = abs(base.at - base.rails[0].along(layout.cue.x, layout.cue.y))
    if run < ALONG or was is None or now is None or abs(now.off - was.off) < TELLING:
        return None
    answer = "long" if now.off > was.off else "short"
    text = f"The mark is right at medium, plain. Now the same mark, {CHANGES[changed]}: short or long?"
    why = f"It lands {figure(abs(now.off - was.off))} {'longer' if answer == 'long' else 'shorter'}."
    return Choice("change", base, text, ("short", "long"), answer, why)


def _changed(base: Question, changed: str, direction: float) -> Stroke:
    table, stroke = base.layout.table, base.stroke
    if changed in ("harder", "softer"):
        lengths = lengths_of(table, stroke.speed) + (HARDER if changed == "harder" else SOFTER)
        return replace(stroke, speed=speed_of(table, lengths))
    right = running(1.0, base.rails[0], direction) == "running"
    sign = 1.0 if right == (changed == "running") else -1.0
    return replace(stroke, side=sign * offset_of(TIPS, table))


def _contacts(base: Question, _: random.Random) -> Choice | None:
    """Where the second rail is met, the first mark given."""
    shot = approach(base.layout, base.stroke, _direction(base), most_rails=3, ignore_balls=True)
    met = [event for event in shot.events if event.rail is not None]
    if len(met) < 2 or met[1].rail is not base.rails[1]:
        return None
    rail = base.rails[1]
    at = rail.along(met[1].x, met[1].y)
    text = f"Shot at {figure(base.at)} on the {base.rails[0]} rail, medium, plain: where is the {rail} rail met?"
    why = f"It meets the {rail} rail at {figure(at)}."
    return Choice("contacts", base, text, (), at, why, rail)
