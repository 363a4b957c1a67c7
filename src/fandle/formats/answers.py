"""Answers of aim and count: each model is its JSON, its published schema and the routes' response model.

A part that does not belong to an answer (a bank's contact in a kick's) is left out, not null.
"""

from collections.abc import Sequence
from typing import Any, Literal

from pydantic import Field

from fandle.core.lines.held import Instead
from fandle.core.lines.marks import degrees
from fandle.core.lines.solution import Aim, ReasonCode, Refusal, Solution
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, Landing, NoCount
from fandle.core.table.rails import Rail
from fandle.core.tablecheck.own_marks import Tuned
from fandle.formats.base import Number
from fandle.formats.parts import (
    Answer,
    CushionAnswer,
    LinkAnswer,
    MarkAnswer,
    MarksAnswer,
    ObjectContactAnswer,
    OwnAnswer,
    PartAnswer,
    PotAnswer,
    WindowAnswer,
)


class SolutionAnswer(Answer):
    """One verified aim. Of a bank all but `direction` is the object ball's, and two parts are added."""

    mirror: MarksAnswer
    natural: MarksAnswer
    corrected: MarksAnswer
    direction: Number
    miss_mm: Number
    fullness: Number
    window_mm: WindowAnswer
    cushions: list[CushionAnswer]
    push: bool
    hit: Number
    mark: MarkAnswer
    parts: list[PartAnswer] | None = None
    pot: PotAnswer | None = None
    pocket: str | None = None
    object_contact: ObjectContactAnswer | None = None

    @classmethod
    def of(cls, s: Solution) -> "SolutionAnswer":
        """From a solution."""
        return cls(**_solution(s))


class AimAnswer(SolutionAnswer):
    """The widest aim, its chain, and the others. target: of a combination the ball that drops."""

    solved: Literal[True]
    target: str
    rails: list[str]
    chain: list[LinkAnswer]
    others: list[SolutionAnswer]

    @classmethod
    def of_aim(cls, aim: Aim) -> "AimAnswer":
        """From an aim."""
        best = aim.best
        return cls(
            solved=True, target=best.target if best.pot is None else best.pot.ball, rails=_names(best.rails),
            **_solution(best),
            chain=[LinkAnswer(link=link.link, shift=link.shift) for link in aim.chain],
            others=[SolutionAnswer.of(s) for s in aim.solutions[1:]],
        )  # fmt: skip


class StrokeAnswer(Answer):
    """A stroke: m/s, fractions of the radius, degrees, and the cue by name."""

    speed: Number
    side: Number
    up: Number
    elevation: Number
    cue: str

    @classmethod
    def of(cls, s: Stroke) -> "StrokeAnswer":
        """From a stroke."""
        return cls(speed=s.speed, side=s.side, up=s.up, elevation=s.elevation, cue=s.cue.name)


class InsteadAnswer(Answer):
    """The mark held, the stroke changed: `value` of what was changed, and further values that do."""

    solved: Literal[True]
    target: str
    rails: list[str]
    change: Literal["side", "up", "speed"]
    value: Number
    stroke: StrokeAnswer
    direction: Number
    miss_mm: Number
    others: list[Number]


class RefusedAnswer(Answer):
    """No aim, and why."""

    solved: Literal[False]
    target: str
    rails: list[str]
    reason_code: ReasonCode
    reason: str


class NumberAnswer(Answer):
    """A number written at a rail."""

    rail: str
    at: Number
    label: str
    role: str


class LandsAnswer(Answer):
    """Where a count's own aim lands. hits: is the target the first ball met, over the counted rails and at most one
    more; after: the rails met beyond the counted ones; full: ball diameters right of full, null where it goes by;
    pots: the pocket the target drops in.
    """

    off_diamonds: Number
    off_balls: Number
    side: Literal["short", "long", "on"]
    met: Literal["left", "right", "full"]
    hits: bool
    after: list[str] = Field(default_factory=list)
    full: Number | None = None
    pots: str | None = None


class OnTableAnswer(Answer):
    """A count's aim by this table's own marks: in the system's own numbers where it has any, and how it lands.

    carried: diamonds longer that a test shot added, left out for none; `lands` is by the table's numbers all the same.
    """

    aim: MarksAnswer
    own: Number | None
    lands: LandsAnswer
    carried: Number | None = None

    @classmethod
    def of(cls, tuned: Tuned) -> "OnTableAnswer":
        """From what the table's own marks make of it."""
        own = None if tuned.own is None else tuned.own.number
        carried = {"carried": tuned.carried} if tuned.carried else {}
        return cls(aim=MarksAnswer.of(tuned.aim), own=own, lands=_lands(tuned.lands), **carried)


class CountAnswer(Answer):
    """A count that applies. on_table: for the systems over three rails that a table has own marks of."""

    method: str
    title: str
    applies: Literal[True]
    rails: list[str]
    numbers: list[NumberAnswer]
    steps: list[str]
    say: str
    adjust: str
    frame: str
    aim: MarksAnswer
    direction: Number
    stroke: StrokeAnswer
    lands: LandsAnswer
    in_the_way: str
    mark: MarkAnswer
    own: OwnAnswer | None = None
    on_table: OnTableAnswer | None = None
    squirt: str = ""
    others: list["CountAnswer"] | None = None
    pocket: str | None = None
    object_contact: ObjectContactAnswer | None = None


class NoCountAnswer(Answer):
    """A count that does not apply, and why."""

    method: str
    title: str
    applies: Literal[False]
    rails: list[str]
    reason: str


def aim_answer(answer: Aim | Refusal) -> AimAnswer | RefusedAnswer:
    """The answer of `aim`."""
    if isinstance(answer, Aim):
        return AimAnswer.of_aim(answer)
    return RefusedAnswer(
        solved=False, target=answer.target, rails=_names(answer.rails), reason_code=answer.reason_code,
        reason=answer.reason,
    )  # fmt: skip


def instead_answer(answer: Instead | Refusal) -> InsteadAnswer | AimAnswer | RefusedAnswer:
    """The answer of `aim --hold`."""
    if isinstance(answer, Refusal):
        return aim_answer(answer)
    return InsteadAnswer(
        solved=True, target=answer.target, rails=_names(answer.rails), change=answer.change, value=answer.value,
        stroke=StrokeAnswer.of(answer.stroke), direction=degrees(answer.direction), miss_mm=answer.miss_mm,
        others=list(answer.others),
    )  # fmt: skip


def count_answer(
    count: Count | NoCount, others: Sequence[Count] | None = None, tuned: Tuned | None = None
) -> CountAnswer | NoCountAnswer:
    """The answer of `count`. others: the same system over its other rails, where no rails were asked for.

    tuned: what the table's own marks make of it.
    """
    if isinstance(count, NoCount):
        return NoCountAnswer(
            method=count.method, title=count.title, applies=False, rails=_names(count.rails), reason=count.reason
        )
    more: dict[str, Any] = {} if others is None else {"others": [count_answer(other) for other in others]}
    if count.own is not None:
        more["own"] = OwnAnswer(rail=count.rails[0].value, number=count.own.number, say=count.own_say)
    if tuned is not None:
        more["on_table"] = OnTableAnswer.of(tuned)
    return CountAnswer(
        method=count.method, title=count.title, applies=True, rails=_names(count.rails),
        numbers=[NumberAnswer(rail=n.rail.value, at=n.at, label=n.label, role=n.role) for n in count.numbers],
        steps=list(count.steps), say=count.say, adjust=count.adjust, frame=count.frame, aim=MarksAnswer.of(count.aim),
        direction=degrees(count.direction), stroke=StrokeAnswer.of(count.stroke),
        lands=_lands(count.lands),
        in_the_way=count.blocked, mark=MarkAnswer(say=count.mark.say, grade=count.mark.grade), squirt=count.squirt,
        **_contact(count), **more,
    )  # fmt: skip


def _lands(lands: Landing) -> LandsAnswer:
    return LandsAnswer(
        off_diamonds=lands.off_diamonds, off_balls=lands.off_balls, side=lands.side, met=lands.met, hits=lands.hits,
        after=_names(lands.after), full=lands.full, pots=lands.pots,
    )  # fmt: skip


def _names(rails: Sequence[Rail]) -> list[str]:
    return [rail.value for rail in rails]


def _contact(s: Solution | Count) -> dict[str, Any]:
    return {} if s.contact is None else {"pocket": s.pocket, "object_contact": ObjectContactAnswer.of(s.contact)}


def _solution(s: Solution) -> dict[str, Any]:
    pot = {} if s.pot is None else {"pot": PotAnswer.of(s.pot)}
    parts = {"parts": [PartAnswer.of(part) for part in s.parts]} if s.parts else {}
    return {
        **_contact(s),
        **pot,
        **parts,
        "mirror": MarksAnswer.of(s.mirror),
        "natural": MarksAnswer.of(s.natural),
        "corrected": MarksAnswer.of(s.corrected),
        "direction": degrees(s.direction),
        "miss_mm": s.miss_mm,
        "fullness": s.fullness,
        "push": s.push,
        "window_mm": WindowAnswer(less=s.window_less_mm, more=s.window_more_mm),
        "hit": s.hit,
        "mark": MarkAnswer(say=s.mark.say, grade=s.mark.grade),
        "cushions": [CushionAnswer(rail=c.rail.value, at=c.at, in_deg=c.in_deg, out_deg=c.out_deg) for c in s.cushions],
    }
