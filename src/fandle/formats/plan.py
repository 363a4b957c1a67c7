"""Which line? as JSON: the answer of `fandle plan`, as `POST /api/plan` streams it."""

import math
from typing import Any, Literal

from pydantic import Field

from fandle.core.choice.chance import Chance
from fandle.core.choice.opponent import Leave
from fandle.core.choice.reasons import Reason
from fandle.core.choice.refused import Refused
from fandle.core.choice.report import Plan, SoFar
from fandle.core.choice.rests import Rest
from fandle.core.choice.told import Line
from fandle.core.lines.marks import degrees
from fandle.core.table.pocket import POCKET_NAMES
from fandle.formats.answers import StrokeAnswer
from fandle.formats.base import Number
from fandle.formats.parts import Answer, MarkAnswer, MarksAnswer, WindowAnswer
from fandle.formats.player import PlayerFile

SHARES = ("hit", "legal", "pot", "in_off")


class ShareAnswer(Answer):
    """A relative frequency of the draws, with its 95 % range (Wilson)."""

    p: Number
    lo: Number
    hi: Number


class ChanceAnswer(Answer):
    """The first ball met is on; and legal; and potted as it counts; the cue ball potted.

    safe: legal, the turn passes, and no pot of 0.25 is left; null but for the goal safe.
    """

    hit: ShareAnswer
    legal: ShareAnswer
    pot: ShareAnswer
    in_off: ShareAnswer
    safe: ShareAnswer | None

    @classmethod
    def of(cls, chance: Chance) -> "ChanceAnswer":
        """From a chance."""
        shares: dict[str, ShareAnswer | None] = {"safe": None}
        for name in SHARES if chance.safe is None else (*SHARES, "safe"):
            share = chance.share(name)
            low, high = share.range
            shares[name] = ShareAnswer(p=share.p, lo=low, hi=high)
        return cls.model_validate(shares)


class ReasonAnswer(Answer):
    """A reason: its code, and how it is said."""

    code: str
    say: str

    @classmethod
    def of(cls, reason: Reason) -> "ReasonAnswer":
        """From a reason."""
        return cls(code=reason.code, say=reason.say)


class EllipseAnswer(Answer):
    """Half-axes (mm) of the ellipse that holds half the draws, and how its long one is turned from +x."""

    a: Number
    b: Number
    turn_deg: Number


class RestAnswer(Answer):
    """Where a ball stops: the mean, diamonds (null where it never stays), and the share in which it is gone."""

    x: Number | None
    y: Number | None
    ellipse: EllipseAnswer
    gone: Number

    @classmethod
    def of(cls, rest: Rest) -> "RestAnswer":
        """From a rest."""
        known = not math.isnan(rest.x)
        return cls(
            x=rest.x if known else None, y=rest.y if known else None, gone=rest.gone,
            ellipse=EllipseAnswer(a=rest.a, b=rest.b, turn_deg=rest.turn_deg),
        )  # fmt: skip


class RestsAnswer(Answer):
    """Of the cue ball, and of the target."""

    cue: RestAnswer
    target: RestAnswer | None


class OpponentAnswer(Answer):
    """The pot that the opponent has most often, and how likely their best one is on average."""

    target: str
    pocket: str
    p: Number


class LeaveAnswer(Answer):
    """What a line leaves where the turn passes. hooked: the share in which the opponent sees no ball on straight."""

    hooked: Number
    opponent: OpponentAnswer | None

    @classmethod
    def of(cls, leave: Leave) -> "LeaveAnswer":
        """From a leave."""
        best = None
        if leave.target is not None:
            best = OpponentAnswer(target=leave.target, pocket=POCKET_NAMES[leave.pocket], p=leave.p)
        return cls(hooked=leave.hooked, opponent=best)


class GainAnswer(Answer):
    """What the line's stroke adds to its chance at the stroke given."""

    p: Number
    say: str


class LineAnswer(Answer):
    """One line. `aim`, `mark` and `rail` are the object ball's of a bank. gain: null unless the draws show it."""

    kind: Literal["straight", "kick", "bank", "rail-first", "combination", "curve", "push", "point"]
    target: str
    rails: list[str]
    pocket: str | None
    through: list[str]
    rail: str
    aim: MarksAnswer
    mark: MarkAnswer
    direction: Number
    stroke: StrokeAnswer
    hit: Number
    window_deg: Number
    window_mm: WindowAnswer | None
    legal: bool
    chance: ChanceAnswer
    draws: int
    pros: list[ReasonAnswer] = Field(alias="for")
    cons: list[ReasonAnswer] = Field(alias="against")
    rest: RestsAnswer
    gain: GainAnswer | None
    leave: LeaveAnswer | None

    @classmethod
    def of(cls, line: Line, draws: int) -> "LineAnswer":
        """From a line."""
        room, gone = line.room_mm, line.target_rest
        data: dict[str, Any] = {
            "kind": line.kind,
            "target": line.target,
            "rails": [str(rail) for rail in line.rails],
            "pocket": line.pocket,
            "through": list(line.through),
            "rail": str(line.mark_rail),
            "aim": MarksAnswer.of(line.aim),
            "mark": MarkAnswer(say=line.mark.say, grade=line.mark.grade),
            "direction": degrees(line.direction),
            "stroke": StrokeAnswer.of(line.stroke),
            "hit": line.hit,
            "window_deg": line.window_deg,
            "window_mm": None if room is None else WindowAnswer(less=room[0], more=room[1]),
            "legal": line.legal,
            "chance": ChanceAnswer.of(line.chance),
            "draws": draws,
            "for": [ReasonAnswer.of(reason) for reason in line.pros],
            "against": [ReasonAnswer.of(reason) for reason in line.cons],
            "rest": RestsAnswer(cue=RestAnswer.of(line.rest), target=None if gone is None else RestAnswer.of(gone)),
            "leave": None if line.leave is None else LeaveAnswer.of(line.leave),
            "gain": None if line.gain is None else GainAnswer(p=line.gain.p, say=line.gain.say),
        }
        return cls(**data)


class RefusedLineAnswer(Answer):
    """What is no line, and why."""

    kind: str
    target: str
    rails: list[str]
    reason_code: str
    reason: str

    @classmethod
    def of(cls, no: Refused) -> "RefusedLineAnswer":
        """From a refusal."""
        rails = [str(rail) for rail in no.rails]
        return cls(kind=no.kind, target=no.target, rails=rails, reason_code=no.reason_code, reason=no.reason)


class PlanAnswer(Answer):
    """Which line? Best first. notes: codes of what is odd; say: what it comes to where there is no line, else empty."""

    goal: str
    game: str
    on: list[str]
    notes: list[str]
    player: PlayerFile
    lines: list[LineAnswer]
    refused: list[RefusedLineAnswer]
    say: str

    @classmethod
    def of(cls, plan: Plan) -> "PlanAnswer":
        """From a plan."""
        return cls(
            goal=plan.goal, game=plan.game, on=list(plan.on), notes=list(plan.notes),
            player=PlayerFile.of(plan.player), lines=[LineAnswer.of(line, plan.draws) for line in plan.lines],
            refused=[RefusedLineAnswer.of(no) for no in plan.refused], say=plan.say,
        )  # fmt: skip

    def json_data(self) -> dict[str, Any]:
        """Its JSON."""
        return self.model_dump(mode="json", by_alias=True)


class SoFarAnswer(Answer):
    """A line of the stream: how far the plan is, 0 to 1, and the lines known already."""

    progress: Number
    lines: list[LineAnswer]

    @classmethod
    def of(cls, known: SoFar) -> "SoFarAnswer":
        """From what is known."""
        return cls(progress=known.progress, lines=[LineAnswer.of(line, known.draws) for line in known.lines])

    def json_data(self) -> dict[str, Any]:
        """Its JSON."""
        return self.model_dump(mode="json", by_alias=True)
