"""The Log room: am I getting better, and which way do I miss? And its exports."""

import csv
import io
from collections import OrderedDict
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, JSONResponse, Response

from fandle.core.record import Result, Tried, figures
from fandle.core.spoken import landing_word, plural_lengths, side_name, tips_word
from fandle.core.stroke import CUES, IDEAL
from fandle.core.units import lengths_of, tips_of
from fandle.formats.files import layout_of
from fandle.formats.log import log_json_of
from fandle.store import log
from fandle.web import address
from fandle.web.known import Known, shelf_of, tip_of
from fandle.web.noted import noted_href

router = APIRouter()
COLUMNS = (
    "uid", "made_at", "set_up", "title", "table", "rails", "aim_nose", "aim_sight", "speed", "side", "up", "cue",
    "result", "off_diamonds", "side_hit", "comment",
)  # fmt: skip
STRIP_END = 1.5  # diamonds short and long that a strip of landings shows
MOST_ROWS = 200  # attempts listed at once; the exports have all
FEW = 5  # attempts below which a share says little


@router.get(address.LOG_ROOM, response_class=HTMLResponse)
def log_room(request: Request, set_up: str = "", result: str = "") -> HTMLResponse:
    """All attempts, newest first, filtered, with the figures of each set-up."""
    database, tip, known = request.app.state.database, tip_of(request), shelf_of(request).known
    every = log.attempts(database)
    shown = log.attempts(database, set_up, result)
    groups: OrderedDict[str, list[log.Noted]] = OrderedDict()
    for row in every:
        groups.setdefault(row.set_up, []).append(row)
    context = {
        "rows": [_row(row, tip, known) for row in shown[:MOST_ROWS]],
        "hidden": max(len(shown) - MOST_ROWS, 0),
        "groups": [_group(key, rows, known) for key, rows in groups.items()],
        "whole": _words(every),
        "chosen": {"set_up": set_up, "result": result},
        "results": [r.value for r in Result],
        "exports": (address.LOG_CSV, address.LOG_JSON),
        "attempts_url": address.ATTEMPTS,
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "log.html", context)
    return response


def _tried(rows: list[log.Noted]) -> list[Tried]:
    return [Tried(Result(row.result), row.off) for row in rows]


def _words(rows: list[log.Noted]) -> dict[str, Any]:
    """Figures of some attempts as a person reads them."""
    f = figures(_tried(rows))
    words: dict[str, Any] = {
        "made": f"{f.hits} of {f.attempts}",
        "attempts": f.attempts,
        "few": f.attempts < FEW,
    }
    if f.low is not None and f.high is not None:
        words["range"] = f"{100 * f.low:.0f}–{100 * f.high:.0f} %"
    if f.bias is not None:
        words["bias"] = landing_word(f.bias)
    if f.scatter is not None:
        words["scatter"] = f"± {f.scatter:.2f}"
    words["marked"] = f.marked
    return words


def _group(key: str, rows: list[log.Noted], known: Known) -> dict[str, Any]:
    offs = [row.off for row in rows if row.off is not None]
    f = figures(_tried(rows))
    return {
        "set_up": key,
        "title": rows[0].title,
        "href": noted_href(rows[0], known),
        "strip": [_place(off) for off in offs],
        "mean": None if f.bias is None else _place(f.bias),
        **_words(rows),
    }


def _place(off: float) -> float:
    """Where a landing stands on a strip 0…100, short at the left."""
    return round(50 + 50 * max(-1.0, min(1.0, off / STRIP_END)), 2)


def _cue_label(name: str) -> str:
    return CUES[name].label if name in CUES else name


def _row(row: log.Noted, tip: float, known: Known) -> dict[str, Any]:
    table, stroke = layout_of(row.layout).table, row.stroke
    tips = tips_of(stroke["side"], table, tip)
    side = "no side" if abs(tips) < 0.02 else f"{tips_word(tips)} {side_name(tips)}"
    cue = "" if stroke["cue"] == IDEAL.name else f", {_cue_label(stroke['cue'])}"
    words = f"{plural_lengths(lengths_of(table, stroke['speed']))}, {side}{cue}"
    return {
        "uid": row.uid,
        "when": row.made_at.replace("T", " ")[:16],
        "title": row.title,
        "href": noted_href(row, known),
        "mark": f"{row.aim['nose']:.2f}",
        "stroke": words,
        "result": row.result,
        "off": landing_word(row.off),
        "side_hit": row.side_hit,
        "comment": row.comment,
    }


def _flat(row: log.Noted) -> dict[str, Any]:
    aim, stroke = row.aim, row.stroke
    values = (
        row.uid, row.made_at, row.set_up, row.title, row.table_label, row.rails, aim["nose"], aim["sight"],
        stroke["speed"], stroke["side"], stroke["up"], stroke["cue"],
        row.result, row.off, row.side_hit, row.comment,
    )  # fmt: skip
    return dict(zip(COLUMNS, values, strict=True))


@router.get(address.LOG_CSV)
def log_csv(request: Request) -> Response:
    """Every attempt as CSV: one header line, UTF-8, decimal points, empty where nothing is known."""
    text = io.StringIO()
    writer = csv.DictWriter(text, COLUMNS)
    writer.writeheader()
    writer.writerows(_flat(row) for row in log.attempts(request.app.state.database))
    headers = {"Content-Disposition": 'attachment; filename="fandle-log.csv"'}
    return Response(text.getvalue(), media_type="text/csv; charset=utf-8", headers=headers)


@router.get(address.LOG_JSON)
def log_json(request: Request) -> JSONResponse:
    """Every attempt as JSON, with its layout, stroke and aim whole."""
    rows = log.attempts(request.app.state.database)
    headers = {"Content-Disposition": 'attachment; filename="fandle-log.json"'}
    return JSONResponse(log_json_of(rows), headers=headers)
