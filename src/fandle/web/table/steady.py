"""How steady is the player? new, club, strong, three plain questions, figures typed, or the log."""

from collections import Counter
from contextlib import suppress
from typing import Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool
from typing_extensions import TypedDict

from fandle.app.player import Made, from_log
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.player.fit import Fit
from fandle.core.player.scatter import Player, player_asked, player_named
from fandle.core.practice.record import Result
from fandle.core.steps import Steps
from fandle.formats.base import Number
from fandle.formats.player import PlayerFile
from fandle.store import log
from fandle.store.noting import noted_situation
from fandle.store.preferences import set_preference
from fandle.web import address
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import SCATTER, library_of, player_of
from fandle.web.tasks import solve

router = APIRouter()
NEWEST, MOST_SET_UPS = 5_000, 100  # attempts looked at, and set-ups played: some ten milliseconds each
WORDS = {result.value for result in Result}


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
    if sum(each is not None for each in (steady.by, steady.questions, steady.figures)) != 1:
        raise BadInputError("say one of by, questions and figures", "player")
    if steady.by == "log":
        found = await solve(request, _from_log(request), quick=False)
        way = "long" if found.bias > 0 else "short"
        more = f" You land {abs(found.bias):.2f} ± {2 * found.bias_sd:.2f} {way} on average."
        return await run_in_threadpool(_kept, request, found.player, more)
    return await run_in_threadpool(lambda: _kept(request, _said(steady, request)))


def _said(steady: Steady, request: Request) -> Player:
    """The player as it was said."""
    if steady.by is not None:
        return player_named(steady.by)
    if steady.questions is not None:
        asked = steady.questions
        return player_asked(asked.straight_ins, asked.lag_off, asked.mark_off)
    return player_of(request) if steady.figures is None else steady.figures.player()


def _kept(request: Request, player: Player, more: str = "") -> SteadyModel:
    set_preference(request.app.state.database, SCATTER, PlayerFile.of(player).json_data())
    told = _told(player)
    return {"player": told["player"], "say": told["say"] + more}


def _from_log(request: Request) -> Steps[Fit]:
    """The scatter behind the newest attempts of the log, at the set-ups that were shot most, in steps."""
    database, known = request.app.state.database, library_of(request).known
    results = log.newest_results(database, NEWEST)
    yield
    often = [name for name, _ in Counter(name for name, _, _ in results).most_common(MOST_SET_UPS)]
    asked: dict[str, Situation] = {}
    for row in log.one_of_each(database, often):
        with suppress(BadInputError, ValueError, ArithmeticError):
            asked[row.set_up] = noted_situation(row, known)
        yield
    made = [
        Made(name, asked[name], Result(word), off) for name, word, off in results if name in asked and word in WORDS
    ]
    return (yield from from_log(made))


def _told(player: Player) -> SteadyModel:
    words = {"default": "an estimate", "typed": "as you said", "log": "from your log"}
    say = (
        f"{player.direction_deg:.2f}° of cue, {player.speed_part:.0%} of speed, {player.tip_mm:.1f} mm of tip, "
        f"{player.mark.diamond:.2f} to {player.mark.between:.2f} diamonds of mark: {words[player.origin]}."
    )
    return {"player": PlayerFile.of(player).json_data(), "say": say}
