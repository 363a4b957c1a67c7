"""JSON of the two-shot test: where both balls met the foot rail, and what squirt that means."""

from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from fandle.app.cues import SIDE, find_squirt
from fandle.formats.base import Number
from fandle.formats.cues import SquirtAnswer
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.known import library_of

router = APIRouter()


class TwoShots(BaseModel):
    """Where the balls struck with left and with right side met the foot rail, diamonds from the near end of it."""

    model_config = ConfigDict(extra="forbid")

    table: Annotated[str, Field(min_length=1, max_length=60)]
    left: Annotated[Number, Field(ge=0, le=4)]
    right: Annotated[Number, Field(ge=0, le=4)]
    side: Annotated[Number, Field(gt=0, le=0.5)] = SIDE


@router.post(address.CUE_TEST, responses=FAULTS)
def post_cue_test(shots: TwoShots, request: Request) -> SquirtAnswer:
    """The squirt of the cue that sent the balls there. Nothing is kept."""
    table = library_of(request).table(shots.table)
    return SquirtAnswer.of(find_squirt(table, shots.left, shots.right, shots.side))
