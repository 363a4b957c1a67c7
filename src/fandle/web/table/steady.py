"""How steady is the player? new, club, strong, three plain questions, figures typed, or the log."""

from typing import Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.core.errors import BadInputError
from fandle.core.player.scatter import Player, player_asked, player_named
from fandle.core.practice.record import Result
from fandle.formats.base import Number
from fandle.formats.player import PlayerFile
from fandle.service.player import Made, from_log
from fandle.store import log
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import SCATTER, player_of, shelf_of
from fandle.web.noted import noted_situation
from fandle.web.work import works_of

router = APIRouter()


class Questions(BaseModel):
    """Three plain questions: of ten straight-ins (a metre and a metre) how many drop; how far a lag of two lengths
    usually stops from where it was meant to (lengths); how far off a mark between diamonds the ball usually meets the
    rail (diamonds)."""

    model_config = ConfigDict(extra="forbid")

    straight_ins: Number = Field(ge=0, le=10)
    lag_off: Number = Field(ge=0, le=4)
    mark_off: Number = Field(ge=0, le=4)


class Steady(BaseModel):
    """One of the ways to say it."""

    model_config = ConfigDict(extra="forbid")

    by: Literal["new", "club", "strong", "log"] | None = None
    questions: Questions | None = None
    figures: PlayerFile | None = None


class SteadyModel(TypedDict):
    """The player's scatter, and where it comes from, in words."""

    player: dict[str, object]
    say: str


@router.get(address.PLAYER, responses=FAULTS)
def get_player(request: Request) -> SteadyModel:
    """The scatter that chances are worked out with."""
    return _told(player_of(request))


@router.put(address.PLAYER, responses=KEPT)
async def put_player(steady: Steady, request: Request) -> SteadyModel:
    """Keep how steady the player is."""
    database, more = request.app.state.database, ""
    if sum(each is not None for each in (steady.by, steady.questions, steady.figures)) != 1:
        raise BadInputError("say one of by, questions and figures", "player")
    if steady.by == "log":
        found = await works_of(request).run(request, from_log(list(_made(request))), quick=False)
        player = found.player
        way = "long" if found.bias > 0 else "short"
        more = f" You land {abs(found.bias):.2f} ± {2 * found.bias_sd:.2f} {way} on average."
    elif steady.by is not None:
        player = player_named(steady.by)
    elif steady.questions is not None:
        asked = steady.questions
        player = player_asked(asked.straight_ins, asked.lag_off, asked.mark_off)
    else:
        player = steady.figures.player() if steady.figures is not None else player_of(request)
    log.set_preference(database, SCATTER, PlayerFile.of(player).json_data())
    told = _told(player)
    return {"player": told["player"], "say": told["say"] + more}


def _made(request: Request) -> list[Made]:
    """The attempts of the log that can be read."""
    known, found = shelf_of(request).known, []
    for row in log.every(request.app.state.database, log.Filter()):
        try:
            found.append(Made(row.set_up, noted_situation(row, known), Result(row.result), row.off))
        except (BadInputError, ValueError):
            continue
    return found


def _told(player: Player) -> SteadyModel:
    words = {"default": "an estimate", "typed": "as you said", "log": "from your log"}
    say = (
        f"{player.direction_deg:.2f}° of cue, {player.speed_part:.0%} of speed, {player.tip_mm:.1f} mm of tip, "
        f"{player.mark.diamond:.2f} to {player.mark.between:.2f} diamonds of mark: {words[player.origin]}."
    )
    return {"player": PlayerFile.of(player).json_data(), "say": say}
