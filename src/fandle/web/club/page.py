"""The Club room: what am I playing with? Tables and cues, and what their numbers do to a shot."""

from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from fandle.app.club import Standing
from fandle.app.cues import SIDE, SPEED, START, landings
from fandle.app.library import Library
from fandle.core.errors import BadInputError, FandleError
from fandle.core.shot.cue import CUE_LIMITS, CUES, HOUSE, Cue
from fandle.core.shot.tips import tips_of
from fandle.core.table.condition import CLOTHS, RUBBERS, condition_of
from fandle.core.table.figures import FIGURES, shown
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of
from fandle.core.table.standards import LABELS, STANDARDS
from fandle.core.words.spoken import plural_lengths, tips_word
from fandle.store import club
from fandle.store.backup import last_backup
from fandle.store.database import Database
from fandle.web import address
from fandle.web.club.view import look, play_href
from fandle.web.drawing import drawing
from fandle.web.faults import FAULTS
from fandle.web.known import library_of, mine_of

router = APIRouter(responses=FAULTS)
URLS = {
    "room": address.CLUB_ROOM,
    "tables": address.CLUB_TABLES,
    "cues": address.CLUB_CUES,
    "cue_test": address.CUE_TEST,
    "preferences": address.PREFERENCES,
    "preview": address.CLUB_PREVIEW,
    "read": address.READ_TABLE,
    "save": address.SAVE_TABLE,
    "back": address.CLUB_BACK,
}


@router.get(address.CLUB_ROOM, response_class=HTMLResponse)
def club_room(request: Request, table: str | None = None) -> HTMLResponse:
    """All tables and cues; one table open, to be read or changed."""
    library = library_of(request)
    fault = ""
    standing = library.standing()
    first = standing[0] if standing else None
    name = table or (first.name if first else "pool-9ft")
    try:
        chosen = library.table(name)
        shown_as = look(chosen)
    except FandleError as error:
        fault, chosen = f"{error}.", STANDARDS["pool-9ft"]
        shown_as = look(chosen)
    own = chosen.name not in STANDARDS
    record = next((row for row in standing if own and row.label == chosen.name), None)
    context = {
        "fault": fault,
        "rows": _rows(library, standing),
        "chosen": chosen.name,
        "own": own,
        "record": record,
        "title": chosen.name if own else _label(standing, chosen.name),
        "made_from": LABELS[chosen.standard],
        "groups": _groups(chosen),
        "condition": condition_of(chosen),
        "cloths": CLOTHS,
        "rubbers": RUBBERS,
        "preview": {"drawing": drawing(chosen), **shown_as},
        "play": play_href(chosen, mine_of(request)),
        "shots": _two_shots(chosen),
        "mine": mine_of(request).cue.name,
        "cues": [*(_cue(cue) for cue in CUES.values()), *_own_cues(library, request.app.state.database)],
        "ratio": CUE_LIMITS["end_ratio"],
        "urls": URLS,
        "backup": _backup(request.app.state.database),
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "club.html", context)
    return response


def _two_shots(table: Table) -> dict[str, Any]:
    """The drawing of the two-shot test: the cue ball, where its line meets the foot rail, and two marks there, mm."""
    radius, (x, y) = table.ball_radius * 1000, START
    left, right = landings(table, HOUSE)
    return {
        "x": x * table.diamond_x * 1000,
        "y": (4.0 - y) * table.diamond_y * 1000,
        "foot": table.length * 1000 - radius,
        "radius": radius,
        "diamond": table.diamond_y * 1000,
        "at": [("left", left), ("right", right)],
        "side": tips_word(tips_of(SIDE, table)),
        "speed": plural_lengths(lengths_of(table, SPEED)),
    }


def _backup(database: Database) -> str:
    """When the last copy of all this was made, in words."""
    last = last_backup(database)
    if last is None:
        return "No backup yet."
    return f"Last backup: {last.at[:16].replace('T', ' ')} UTC, {last.name}."


def _label(standing: list[Standing], name: str) -> str:
    return next((row.label for row in standing if row.standard == name), LABELS[name])


def _rows(library: Library, standing: list[Standing]) -> list[dict[str, Any]]:
    """The club's tables, then the standard ones that do not stand in it."""
    rows = [_standing_row(library, row) for row in standing]
    here = {row["name"] for row in rows}
    return rows + [_row(LABELS[name], table) for name, table in STANDARDS.items() if name not in here]


def _standing_row(library: Library, row: Standing) -> dict[str, Any]:
    """A table that stands in the club; one whose record is malformed is shown as such."""
    try:
        return _row(row.label, library.table(row.name))
    except BadInputError:
        return {
            "label": row.label,
            "name": row.label,
            "make": "this record cannot be read",
            "own": True,
            "condition": "",
        }


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
    for figure in FIGURES:
        how = figure.how
        if figure.name not in values:
            continue
        low, high = figure.limits
        row = {
            "name": figure.name,
            "label": how.label,
            "unit": how.unit,
            "value": f"{values[figure.name]:.{how.places}f}",
            "low": f"{low:g}",
            "high": f"{high:g}",
            "step": f"{10**-how.places:g}",
            "says": how.says,
        }
        groups.setdefault(how.group, []).append(row)
    return list(groups.items())


def _own_cues(library: Library, database: Database) -> list[dict[str, Any]]:
    """The club's own cues; one whose record is malformed is shown as such."""
    readable = library.cues()
    return [
        {
            **(_cue(readable[row.name]) if row.name in readable else _unreadable(row)),
            "id": row.id,
            "edition": row.edition,
        }
        for row in club.cues(database)
    ]


def _unreadable(row: club.CueRow) -> dict[str, Any]:
    label = f"{row.name} (this record cannot be read)"
    return {"name": row.name, "label": label, "own": True, "ratio": "", "tip": "–", "squirt": "–"}


def _cue(cue: Cue) -> dict[str, Any]:
    return {
        "name": cue.name,
        "label": cue.label,
        "own": cue.name not in CUES,
        "ratio": "" if cue.end_ratio == float("inf") else f"{cue.end_ratio:g}",
        "tip": f"{cue.tip * 1000:g}",
        "squirt": f"{cue.squirt_deg:.1f}°",
    }
