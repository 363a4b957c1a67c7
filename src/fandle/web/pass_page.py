"""The pass page, where a device comes in; and "Another device", where this machine shows the pass."""

from typing import Annotated, Any
from urllib.parse import parse_qs

import segno
from fastapi import APIRouter, Path, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from jinja2 import Environment
from pydantic import BaseModel, ConfigDict
from starlette.types import Scope

from fandle.core.errors import BadInputError
from fandle.formats.names import Name
from fandle.store import devices as kept
from fandle.web import address
from fandle.web.bodies import RefusedError
from fandle.web.devices import COOKIE, Devices, TooManyTriesError, spaced
from fandle.web.faults import FAULTS, KEPT
from fandle.web.gate import door_link, pass_response
from fandle.web.settings import Settings

router = APIRouter()
Key = Annotated[int, Path(ge=1, le=2**53)]  # a record's id
A_YEAR_S = 365 * 24 * 3600


class DeviceName(BaseModel):
    """What a device is to be called."""

    model_config = ConfigDict(extra="forbid")

    name: Name


def page_text(templates: Environment, code: str = "", fault: str = "") -> str:
    """The pass page as text."""
    return templates.get_template("pass.html").render(code=code, fault=fault, url=address.PASS)


def door(templates: Environment) -> Any:
    """What the gate shows a device without a pass."""

    def show(_: Scope) -> str:
        return page_text(templates)

    return show


@router.get(address.PASS, response_class=HTMLResponse, include_in_schema=False)
def get_pass(request: Request, code: str = "") -> Response:
    """Where a device comes in. Opening the link uses nothing up: that takes the button."""
    return pass_response(page_text(request.app.state.templates.env, code[:40]))


@router.post(address.PASS, responses=FAULTS, include_in_schema=False)
async def post_pass(request: Request) -> Response:
    """Exchange the pass for a cookie."""
    given = parse_qs((await request.body()).decode("utf-8"), keep_blank_values=True, max_num_fields=10)
    code, name = given.get("code", [""])[0], given.get("name", [""])[0]
    devices: Devices = request.app.state.devices
    try:
        entered = await devices.enter(code, name)
    except (BadInputError, TooManyTriesError) as error:
        status = 429 if isinstance(error, TooManyTriesError) else 403
        fault = f"{str(error)[0].upper()}{str(error)[1:]}."
        return pass_response(page_text(request.app.state.templates.env, "", fault), status)
    response = RedirectResponse(address.TABLE_ROOM, 303)
    settings: Settings = request.app.state.settings
    response.set_cookie(
        COOKIE, entered.token, max_age=A_YEAR_S, httponly=True, samesite="lax", secure=settings.secure, path="/"
    )
    return response


@router.get(address.DEVICES, response_class=HTMLResponse)
def another_device(request: Request) -> HTMLResponse:
    """How another device comes in, and which ones are in. Shown on this machine only."""
    _here_only(request)
    state = request.app.state
    outside: str | None = state.settings.outside
    link = None if outside is None else door_link(outside, state.devices.code)
    context = {
        "link": link,
        "outside": outside,
        "pass_url": None if outside is None else f"{outside}{address.PASS}",
        "code": spaced(state.devices.code),
        "qr": None if link is None else segno.make(link, error="m").svg_data_uri(scale=6, border=2),
        "devices": kept.devices(state.database),
        "devices_url": address.API_DEVICES,
    }
    response: HTMLResponse = state.templates.TemplateResponse(request, "devices.html", context)
    return response


@router.patch(address.API_DEVICES + "/{device}", responses=KEPT)
def patch_device(device: Key, named: DeviceName, request: Request) -> dict[str, str]:
    """Call a device something else."""
    _here_only(request)
    return {"name": kept.rename_device(request.app.state.database, device, named.name).name}


@router.delete(address.API_DEVICES + "/{device}", responses=KEPT)
def delete_device(device: Key, request: Request) -> dict[str, str]:
    """Send a device away: it needs a new pass to come in again."""
    _here_only(request)
    return {"name": request.app.state.devices.send_away(device)}


def _here_only(request: Request) -> None:
    if not request.state.insider:
        raise RefusedError(403, "devices are let in and sent away on the machine that Fandle runs on", "device")
