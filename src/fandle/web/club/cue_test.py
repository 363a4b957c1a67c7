"""JSON of the two-shot test: where both balls met the foot rail, and what squirt that means."""

from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.formats.base import Number
from fandle.service.cues import SIDE, find_squirt
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.known import shelf_of

router = APIRouter()


class TwoShots(BaseModel):
    """Where the balls struck with left and with right side met the foot rail, diamonds from the near end of it."""

    model_config = ConfigDict(extra="forbid")

    table: Annotated[str, Field(min_length=1, max_length=60)]
    left: Annotated[Number, Field(ge=0, le=4)]
    right: Annotated[Number, Field(ge=0, le=4)]
    side: Annotated[Number, Field(gt=0, le=0.5)] = SIDE


class SquirtModel(TypedDict):
    """A cue's squirt. end_ratio: ball mass over the shaft's end mass, null where there is no squirt to be seen."""

    end_ratio: float | None
    squirt_deg: float
    sd_deg: float
    say: str


@router.post(address.CUE_TEST, responses=FAULTS)
def post_cue_test(shots: TwoShots, request: Request) -> SquirtModel:
    """The squirt of the cue that sent the balls there. Nothing is kept."""
    found = find_squirt(shelf_of(request).table(shots.table), shots.left, shots.right, shots.side)
    squirt = found.squirt
    return {
        "end_ratio": squirt.end_ratio if squirt.deg else None,
        "squirt_deg": squirt.deg,
        "sd_deg": squirt.sd_deg,
        "say": found.say,
    }
