"""The Club room: what am I playing with? Tables and cues, and what their numbers do to a shot."""

from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from fandle.core.condition import CLOTHS, RUBBERS, condition_of
from fandle.core.edit import id_order
from fandle.core.errors import BadInputError
from fandle.core.layout import Ball, Layout
from fandle.core.standards import LABELS, STANDARDS, usual_game
from fandle.core.stroke import CUE_LIMITS, CUES, Cue
from fandle.core.table import Table
from fandle.core.table_fields import FIELDS, shown
from fandle.store import club
from fandle.web import address
from fandle.web.club_view import preview
from fandle.web.known import Shelf, shelf_of
from fandle.web.noted import layout_href

router = APIRouter()


@router.get(address.CLUB_ROOM, response_class=HTMLResponse)
def club_room(request: Request, table: str | None = None) -> HTMLResponse:
    """All tables and cues; one table open, to be read or changed."""
    shelf = shelf_of(request)
    fault = ""
    standing = club.tables(shelf.database)
    first = standing[0] if standing else None
    name = table or (first.data if first and isinstance(first.data, str) else first.label if first else "pool-9ft")
    try:
        chosen = shelf.table(name)
    except BadInputError as error:
        fault, chosen = f"{error}.", STANDARDS["pool-9ft"]
    own = chosen.name not in STANDARDS
    context = {
        "fault": fault,
        "rows": _rows(shelf, standing),
        "chosen": chosen.name,
        "own": own,
        "title": chosen.name if own else _label(standing, chosen.name),
        "made_from": LABELS[chosen.standard],
        "groups": _groups(chosen),
        "condition": condition_of(chosen),
        "cloths": {name: cloth.says for name, cloth in CLOTHS.items()},
        "rubbers": {name: rubber.says for name, rubber in RUBBERS.items()},
        "preview": preview(chosen),
        "play": _play(chosen),
        "cues": [_cue(cue) for cue in (*CUES.values(), *shelf.cues().values())],
        "ratio": CUE_LIMITS["end_ratio"],
        "urls": {
            "room": address.CLUB_ROOM,
            "tables": address.CLUB_TABLES,
            "cues": address.CLUB_CUES,
            "preview": address.CLUB_PREVIEW,
            "read": address.READ_TABLE,
            "save": address.SAVE_TABLE,
        },
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "club.html", context)
    return response


def _label(standing: list[club.Standing], name: str) -> str:
    return next((row.label for row in standing if row.data == name), LABELS[name])


def _rows(shelf: Shelf, standing: list[club.Standing]) -> list[dict[str, Any]]:
    """The club's tables, then the standard ones that do not stand in it."""
    rows = [_row(row.label, shelf.table(row.data if isinstance(row.data, str) else row.label)) for row in standing]
    here = {row["name"] for row in rows}
    return rows + [_row(LABELS[name], table) for name, table in STANDARDS.items() if name not in here]


def _row(label: str, table: Table) -> dict[str, Any]:
    cloth, rubber = condition_of(table)
    own = table.name not in STANDARDS
    make = LABELS[table.standard] if own else f"{table.length:.2f} × {table.width:.2f} m"
    return {
        "label": label,
        "name": table.name,
        "make": make,
        "own": own,
        "condition": f"cloth {cloth}, rubber {rubber}",
    }


def _groups(table: Table) -> list[tuple[str, list[dict[str, Any]]]]:
    """The table's numbers by group, as the form shows them."""
    values = shown(table)
    groups: dict[str, list[dict[str, Any]]] = {}
    for field in FIELDS:
        if field.name not in values:
            continue
        low, high = field.limits
        row = {
            "name": field.name,
            "label": field.label,
            "unit": field.unit,
            "value": f"{values[field.name]:.{field.places}f}",
            "low": f"{low:g}",
            "high": f"{high:g}",
            "step": f"{10**-field.places:g}",
            "says": field.says,
        }
        groups.setdefault(field.group, []).append(row)
    return list(groups.items())


def _play(table: Table) -> str:
    """Where the table is played on: a kick laid out on it."""
    game = usual_game(table)
    target = id_order(game)[0]
    return layout_href(Layout(table, game, (Ball("cue", 1.5, 1.0), Ball(target, 5.5, 1.2)), target))


def _cue(cue: Cue) -> dict[str, Any]:
    return {
        "name": cue.name,
        "label": cue.label,
        "own": cue.name not in CUES,
        "ratio": "" if cue.end_ratio == float("inf") else f"{cue.end_ratio:g}",
        "tip": f"{cue.tip * 1000:g}",
        "squirt": f"{cue.squirt_deg:.1f}°",
    }
