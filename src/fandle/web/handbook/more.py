"""The Handbook's other pages: corrections, games, disputes, cautions; each with its figures on one table."""

from collections.abc import Callable
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from starlette.concurrency import run_in_threadpool

from fandle.core.handbook.corrections import Corrected, corrections
from fandle.core.handbook.essays import CLOTHS, cautions, disputes, games, quarrels
from fandle.core.steps import at_once
from fandle.core.table.model import Table
from fandle.core.words.spoken import landing_word
from fandle.web import address
from fandle.web.drawing import path
from fandle.web.faults import FAULTS
from fandle.web.known import library_of, linked_table
from fandle.web.speech import screen_of
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)
Context = dict[str, Any]
SMALL = 0.05  # diamonds: less is "about the same"


def _corrections(table: Table) -> Context:
    return {"rows": [_row(table, each) for each in corrections(table)]}


def _row(table: Table, found: Corrected) -> dict[str, str]:
    shift, claimed = found.shift, found.correction.claimed
    said = "it does not come there" if shift is None else "about the same"
    if shift is not None and abs(shift) >= SMALL:
        said = landing_word(shift)
    agrees = claimed == "either" or shift is None or abs(shift) < SMALL or (shift > 0) is (claimed == "long")
    return {
        "title": found.correction.title, "claimed": claimed, "why": found.correction.why,
        "remedy": found.correction.remedy, "shift": said, "agrees": "yes" if agrees else "no",
        "before": path(table, found.before), "after": path(table, found.after),
    }  # fmt: skip


def _disputes(table: Table) -> Context:
    return {"essays": disputes(table), "quarrels": quarrels(table), "cloths": CLOTHS}


async def _page(request: Request, name: str, title: str, made: Callable[[Table], Context]) -> HTMLResponse:
    """A page with its figures on the table of its link."""
    table, label, fault = await run_in_threadpool(linked_table, request)
    found = await solve(request, at_once(lambda: made(table)), quick=False)
    told: Context = {"fault": fault, "title": title, "kind": name, "name": label, **found}
    return await run_in_threadpool(_show, request, table, told)


def _show(request: Request, table: Table, told: Context) -> HTMLResponse:
    context = {
        "tables": library_of(request).choices(str(told["name"])),
        "screen": screen_of(request, table, turns=False), "length": table.length * 1000, "width": table.width * 1000,
        **told,
    }  # fmt: skip
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "more.html", context)
    return response


@router.get(address.HANDBOOK + "/corrections", response_class=HTMLResponse)
async def corrections_page(request: Request) -> HTMLResponse:
    """Every correction, the same aim twice with one thing changed."""
    return await _page(request, "corrections", "What moves the mark?", _corrections)


@router.get(address.HANDBOOK + "/disputes", response_class=HTMLResponse)
async def disputes_page(request: Request) -> HTMLResponse:
    """Where players disagree, with figures."""
    return await _page(request, "disputes", "Where players disagree", _disputes)


@router.get(address.HANDBOOK + "/games", response_class=HTMLResponse)
async def games_page(request: Request) -> HTMLResponse:
    """The games in short, and what can hurt."""
    return await _page(request, "games", "The games in short", lambda _: {"essays": games(), "cautions": cautions()})
