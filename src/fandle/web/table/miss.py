"""After the miss: one line of advice under the note keys."""

from typing import Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.app.diagnose import diagnose
from fandle.app.lines import shot_line
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.steps import at_once
from fandle.core.table.rails import Contact, parse_rails
from fandle.core.tablecheck.miss import SOME, Miss
from fandle.core.tablecheck.next_aim import Advice
from fandle.formats.base import Number
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.speech import said, screen_of
from fandle.web.table.api import Question, situation
from fandle.web.table.row_models import RowStroke
from fandle.web.table.test_shot import CarryModel, carry_of
from fandle.web.tasks import solve, works_of

router = APIRouter()
SHARE = 0.35  # a cause less likely than that is not named


class TouchedModel(BaseModel):
    """A further contact, diamonds along its rail."""

    model_config = ConfigDict(extra="forbid")

    rail: Literal["near", "far", "head", "foot"]
    at: Number


class MissQuestion(BaseModel):
    """The shot, and what was noted of it. off: diamonds, long positive; null where it was not marked."""

    model_config = ConfigDict(extra="forbid")

    question: Question
    result: Literal["short", "long"]
    off: Number | None = Field(default=None, ge=-8, le=8)
    touched: list[TouchedModel] = Field(default=[], max_length=3)
    stopped: tuple[Number, Number] | None = None


class AdviceModel(TypedDict):
    """What it most likely was, and what to do next, in a line; the stroke that does it, null where it is the mark."""

    say: str
    change: str
    stroke: RowStroke | None


class MissModel(AdviceModel):
    """The same; carry: what the miss says of the table where it may be a test shot, else null."""

    carry: CarryModel | None


@router.post(address.DIAGNOSE, responses=FAULTS)
async def post_diagnose(miss: MissQuestion, request: Request) -> MissModel:
    """What was the miss, and what to aim at next?"""
    asked = address.rounded(await works_of(request).read(situation, miss.question, request))
    found = await solve(request, at_once(lambda: diagnose(_miss(asked, miss), asked.player)))
    return said(_told(asked, miss, found), screen_of(request, asked.table))


def _miss(asked: Situation, noted: MissQuestion) -> Miss:
    best = shot_line(asked)
    if not best.rails or best.contact is not None:
        raise BadInputError("only the miss of a kick is told: choose a line over a rail", "rails", code="not_a_kick")
    off = noted.off if noted.off is not None else SOME if noted.result == "long" else -SOME
    touched = [Contact(parse_rails(each.rail)[0], each.at) for each in noted.touched]
    stopped = None if noted.stopped is None else (noted.stopped[0], noted.stopped[1])
    return Miss(asked.layout, best.rails, asked.stroke, best.direction, off, tuple(touched), stopped)


def _told(asked: Situation, noted: MissQuestion, found: Advice) -> MissModel:
    return {**_advice(found), "carry": carry_of(asked, noted.off, found.diagnosis.slope)}


def _advice(found: Advice) -> AdviceModel:
    first, step = found.diagnosis.suspects[0], found.next[0]
    cause = f"Most likely {first.say} ({first.share:.0%}). " if first.share >= SHARE and step.change != "none" else ""
    other = next((each for each in found.next if each.change in ("speed", "side", "height")), None)
    if step.change == "none":
        return {"say": "Inside your own scatter: shoot it again.", "change": "none", "stroke": None}
    more = f"; or {other.say}" if other is not None and other is not step else ""
    s = None if other is None else other.stroke
    stroke: RowStroke | None = None if s is None else {
        "speed": s.speed, "side": s.side, "up": s.up, "elevation": s.elevation,
    }  # fmt: skip
    return {"say": f"{cause}Next: {step.say}{more}.", "change": step.change, "stroke": stroke}
