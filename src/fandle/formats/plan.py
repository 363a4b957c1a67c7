"""Which line? as JSON: the answer of `fandle plan`, as `POST /api/plan` streams it."""

import math
from typing import Any, Literal

from pydantic import Field

from fandle.core.choice.after import After
from fandle.core.choice.chance import Chance, Share
from fandle.core.choice.opponent import Leave
from fandle.core.choice.position import Following
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
from fandle.formats.point import PointAnswer

SHARES = ("hit", "legal", "pot", "in_off", "safe")


class ShareAnswer(Answer):
    """A relative frequency of the draws, with its 95 % range (Wilson)."""

    p: Number
    lo: Number
    hi: Number

    @classmethod
    def of(cls, share: Share) -> "ShareAnswer":
        """From a share."""
        low, high = share.range
        return cls(p=share.p, lo=low, hi=high)


class ChanceAnswer(Answer):
    """The first ball met is on; and legal; and potted as it counts; the cue ball potted.

    safe: legal, the turn passes, and no pot of 0.25 is left.
    """

    hit: ShareAnswer
    legal: ShareAnswer
    pot: ShareAnswer
    in_off: ShareAnswer
    safe: ShareAnswer

    @classmethod
    def of(cls, chance: Chance) -> "ChanceAnswer":
        """From a chance."""
        return cls.model_validate({name: ShareAnswer.of(chance.share(name)) for name in SHARES})


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
    """Where a ball stops: the mean, diamonds (null where it never stays), and the share in which it is gone.

    near: the share in which it stops within 200 mm of the mean.
    """

    x: Number | None
    y: Number | None
    ellipse: EllipseAnswer
    gone: Number
    near: Number

    @classmethod
    def of(cls, rest: Rest) -> "RestAnswer":
        """From a rest."""
        known = not math.isnan(rest.x)
        return cls(
            x=rest.x if known else None, y=rest.y if known else None, gone=rest.gone, near=rest.near,
            ellipse=EllipseAnswer(a=rest.a, b=rest.b, turn_deg=rest.turn_deg),
        )  # fmt: skip


class RestsAnswer(Answer):
    """Of the cue ball, of the target, and of the other balls that are moved, by id."""

    cue: RestAnswer
    target: RestAnswer
    others: dict[str, RestAnswer]

    @classmethod
    def of(cls, after: After) -> "RestsAnswer":
        """From what comes after the hit."""
        others = {name: RestAnswer.of(rest) for name, rest in after.others.items()}
        return cls(cue=RestAnswer.of(after.rest), target=RestAnswer.of(after.target_rest), others=others)


class OpponentAnswer(Answer):
    """The straight pot that the opponent has most often, and how likely their best one is on average."""

    target: str
    pocket: str
    p: Number


class NextAnswer(Answer):
    """The pot that comes next most often where this one drops, how likely it is then on average.

    along_deg: between the cue ball's last way and that shot's line, both as meant.
    """

    ball: str
    pocket: str
    p: Number
    along_deg: Number

    @classmethod
    def of(cls, ahead: Following) -> "NextAnswer":
        """From what follows."""
        return cls(ball=ahead.ball, pocket=ahead.pocket, p=ahead.p, along_deg=ahead.along_deg)


class LeaveAnswer(Answer):
    """What a line leaves: to the opponent where the turn passes, to oneself where it pots.

    hooked: the share in which the opponent sees no ball on straight; hider: what mostly lies before the nearest one;
    away_mm: how far that one is; on_rail: the share in which the cue ball lies on a rail. Where the turn never
    passes hooked is 0, the others null.
    """

    hooked: Number
    hider: str | None
    away_mm: Number | None
    on_rail: Number | None
    opponent: OpponentAnswer | None
    next: NextAnswer | None

    @classmethod
    def of(cls, leave: Leave | None, ahead: Following | None) -> "LeaveAnswer":
        """From what is left to whom."""
        best = None
        if leave is not None and leave.target is not None:
            best = OpponentAnswer(target=leave.target, pocket=POCKET_NAMES[leave.pocket], p=leave.p)
        return cls(
            hooked=0.0 if leave is None else leave.hooked,
            hider=None if leave is None else leave.hider,
            away_mm=None if leave is None else 1000 * leave.away,
            on_rail=None if leave is None else leave.on_rail,
            opponent=best,
            next=None if ahead is None else NextAnswer.of(ahead),
        )


class GainAnswer(Answer):
    """What the line's stroke adds to its chance at the stroke given."""

    p: Number
    say: str


class LineAnswer(Answer):
    """One line. `aim`, `mark` and `rail` are the object ball's of a bank. gain: null unless the draws show it.

    wanted: what it is ranked by: the chance of the goal with the cue ball where it is to stop and the next ball on.
    mark_error: is the error of a mark among the player's? scatter: times the player's own, more out of reach. also:
    over which other rails the ball is met in the same room.
    """

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
    wanted: ShareAnswer
    draws: int
    pros: list[ReasonAnswer] = Field(alias="for")
    cons: list[ReasonAnswer] = Field(alias="against")
    rest: RestsAnswer
    gain: GainAnswer | None
    leave: LeaveAnswer
    mark_error: bool
    scatter: Number
    also: list[list[str]]
    point: PointAnswer | None = None
    technique: str | None = None

    @classmethod
    def of(cls, line: Line, draws: int) -> "LineAnswer":
        """From a line."""
        room = line.room_mm
        data: dict[str, Any] = {
            "kind": line.kind, "target": line.target, "rails": [str(rail) for rail in line.rails],
            "pocket": line.pocket, "through": list(line.through), "rail": str(line.mark_rail),
            "aim": MarksAnswer.of(line.aim), "mark": MarkAnswer(say=line.mark.say, grade=line.mark.grade),
            "direction": degrees(line.direction), "stroke": StrokeAnswer.of(line.stroke), "hit": line.hit,
            "window_deg": line.window_deg,
            "window_mm": None if room is None else WindowAnswer(less=room[0], more=room[1]), "legal": line.legal,
            "chance": ChanceAnswer.of(line.chance), "wanted": ShareAnswer.of(line.wanted), "draws": draws,
            "for": [ReasonAnswer.of(reason) for reason in line.pros],
            "against": [ReasonAnswer.of(reason) for reason in line.cons], "rest": RestsAnswer.of(line.after),
            "leave": LeaveAnswer.of(line.after.leave, line.after.ahead), "mark_error": line.mark_error,
            "scatter": line.scatter, "also": [[str(rail) for rail in rails] for rails in line.also],
            "gain": None if line.gain is None else GainAnswer(p=line.gain.p, say=line.gain.say),
        }  # fmt: skip
        if line.technique:
            data["technique"] = line.technique
        if line.point is not None:
            data["point"] = PointAnswer.of(line.point)
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
    """Which line? Best first. notes: codes of what is odd; say: what it comes to where there is no line, else empty.

    more: how many other lines there was no room for.
    """

    goal: str
    game: str
    on: list[str]
    notes: list[str]
    player: PlayerFile
    lines: list[LineAnswer]
    refused: list[RefusedLineAnswer]
    say: str
    more: int

    @classmethod
    def of(cls, plan: Plan) -> "PlanAnswer":
        """From a plan."""
        return cls(
            goal=plan.goal, game=plan.game, on=list(plan.on), notes=list(plan.notes),
            player=PlayerFile.of(plan.player), lines=[LineAnswer.of(line, plan.draws) for line in plan.lines],
            refused=[RefusedLineAnswer.of(no) for no in plan.refused], say=plan.say, more=plan.more,
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
