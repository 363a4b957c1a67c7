"""Who plays here: what they are called in files that are handed on, asked for once."""

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict
from typing_extensions import TypedDict

from fandle.formats.names import Name
from fandle.store.log import preference, set_preference
from fandle.store.standing import FIRST_PLAYER, my_nickname, name_me
from fandle.web import address
from fandle.web.faults import KEPT

router = APIRouter()
ASKED = "nickname_asked"  # among the settings


class MeForm(BaseModel):
    """What others call me; null to stay as I am called, and not to be asked again."""

    model_config = ConfigDict(extra="forbid")

    nickname: Name | None = None


class MeModel(TypedDict):
    """What I am called."""

    nickname: str


@router.put(address.ME, responses=KEPT)
def put_me(form: MeForm, request: Request) -> MeModel:
    """Take a nickname, or none."""
    database = request.app.state.database
    if form.nickname is not None:
        name_me(database, form.nickname)
    set_preference(database, ASKED, True)
    return {"nickname": my_nickname(database)}


def me_url(request: Request) -> str:
    """Where a nickname is given, while it has to be asked for; "" once that was done."""
    database = request.app.state.database
    asked = my_nickname(database) != FIRST_PLAYER or preference(database, ASKED, False)
    return "" if asked else address.ME
