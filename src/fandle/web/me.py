"""Who plays here: what they are called in files that are handed on, asked for once."""

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict
from typing_extensions import TypedDict

from fandle.formats.names import Name
from fandle.store import me
from fandle.web import address
from fandle.web.faults import KEPT

router = APIRouter()


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
    return {"nickname": me.answer(request.app.state.database, form.nickname)}


def me_url(request: Request) -> str:
    """Where a nickname is given, while it has to be asked for; "" once that was done."""
    return address.ME if me.to_be_asked(request.app.state.database) else ""
