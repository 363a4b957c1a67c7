"""The Log room: am I getting better, and which way do I miss? A page at a time, its sums made by the database."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Annotated, Any
from urllib.parse import urlencode

from fastapi import APIRouter, Query, Request
from fastapi.responses import HTMLResponse

from fandle.core.practice.record import Figures, Result
from fandle.core.words.screen import English, Screen
from fandle.core.words.spoken import landing_word
from fandle.store import log
from fandle.store.figures import Group, figures_of, groups, how_many_groups
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.known import library_of, tip_of
from fandle.web.me import me_url
from fandle.web.noted import NotedShot, NotedShots
from fandle.web.speech import english_of

router = APIRouter(responses=FAULTS)
Key = Annotated[int, Query(ge=1, le=2**53)]  # a record's id
STRIP_END = 1.5  # diamonds short and long that a strip of landings shows
STRIP_MOST = 40  # newest landings on a strip
ROWS, GROUPS = 40, 20  # attempts and set-ups on one page
EVENING_H = 10  # hours back that count as this evening
FEW = 5  # attempts below which a share says little
OLD_PARTS = 4  # of a set-up's name in links of the first versions, which began with the table


@router.get(address.LOG_ROOM, response_class=HTMLResponse)
def log_room(
    request: Request,
    set_up: str = "",
    result: str = "",
    table: Key | None = None,
    version: Key | None = None,
    before: Key | None = None,
    part: Annotated[int, Query(ge=1, le=1_000_000)] = 1,
) -> HTMLResponse:
    """Attempts, newest first, filtered, with the figures of each set-up."""
    database, shots = request.app.state.database, NotedShots(tip_of(request), library_of(request).known)
    if set_up.count("|") + 1 == OLD_PARTS:
        set_up = set_up.partition("|")[2]
    wanted = log.Filter(set_up, result, table, version)
    found = log.page(database, wanted, ROWS + 1, before)
    shown, more = found[:ROWS], len(found) > ROWS
    parts = -(-how_many_groups(database) // GROUPS)
    part = min(max(part, 1), max(parts, 1))
    asked: dict[str, Any] = {"set_up": set_up, "result": result, "table": table, "version": version}
    kept = {name: value for name, value in asked.items() if value not in ("", None)}
    context = {
        "rows": [_row(row, shots.of(row), english_of(request)) for _, row in shown],
        "older": _link({**kept, "part": part, "before": shown[-1][0]}) + "#attempts" if more else None,
        "newest": _link({**kept, "part": part}) + "#attempts" if before is not None else None,
        "groups": [_group(group, shots) for group in groups(database, GROUPS, (part - 1) * GROUPS, STRIP_MOST)],
        "part": part,
        "parts": [(n, _link({**kept, "part": n})) for n in _near(part, parts)] if parts > 1 else [],
        "whole": _words(figures_of(database, wanted)),
        "empty": parts == 0,
        "tonight": _words(figures_of(database, replace(wanted, since=_evening()))),
        "chosen": kept,
        "results": [r.value for r in Result],
        "exports": [path + _query(kept) for path in (address.LOG_CSV, address.LOG_JSON)],
        "import_url": address.LOG_IMPORT,
        "attempts_url": address.ATTEMPTS,
        "me_url": me_url(request),
    }
    response: HTMLResponse = request.app.state.templates.TemplateResponse(request, "log.html", context)
    return response


def _link(query: dict[str, Any]) -> str:
    return address.LOG_ROOM + _query(query)


def _query(query: dict[str, Any]) -> str:
    return f"?{urlencode(query)}" if query else ""


def _evening() -> str:
    """When this evening's practice began at the earliest: a practice after midnight belongs to the evening before."""
    return (datetime.now(UTC) - timedelta(hours=EVENING_H)).isoformat(timespec="seconds")


def _near(part: int, parts: int) -> list[int]:
    """Pages worth a link: the first, the last, and those beside this one."""
    return [n for n in range(1, parts + 1) if n in (1, parts) or abs(n - part) <= 2]


def _words(f: Figures) -> dict[str, Any]:
    """Figures of some attempts as a person reads them."""
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


def _group(group: Group, shots: NotedShots) -> dict[str, Any]:
    last = group.last
    only = {"set_up": last.set_up, "table": group.table, "version": group.version}
    return {
        "title": last.title,
        "table": last.table_label,
        "before": group.later,
        "href": shots.of(last).href,
        "only": _link({name: value for name, value in only.items() if value is not None}) + "#attempts",
        "key": only,
        "strip": [_place(off) for off in group.landings],
        "mean": None if group.figures.bias is None else _place(group.figures.bias),
        **_words(group.figures),
    }


def _place(off: float) -> float:
    """Where a landing stands on a strip 0…100, short at the left."""
    return round(50 + 50 * max(-1.0, min(1.0, off / STRIP_END)), 2)


def _more(row: log.Noted) -> str:
    """What else was noted of an attempt, in words."""
    said = [
        word
        for word, true in (
            ("not potted", row.potted is False and row.pocket is not None and row.result == Result.HIT.value),
            ("cue ball went in", row.in_off),
            ("left safe", row.left_safe),
            ("left open", row.left_safe is False),
            ("second try", row.try_number > 1),
        )
        if true
    ]
    said += [word for word in map(_contact, row.touched if isinstance(row.touched, list) else ()) if word]
    if row.stopped_x is not None and row.stopped_y is not None:
        said.append(f"cue ball stopped at {row.stopped_x:.2f}, {row.stopped_y:.2f}")
    return ", ".join(said)


def _contact(contact: Any) -> str:
    """A further contact with a rail; "" where the record holds none that can be read."""
    try:
        return f"{contact['rail']} {contact['at']:.2f}"
    except (TypeError, KeyError, ValueError):
        return ""


def _row(row: log.Noted, shot: NotedShot, english: English) -> dict[str, Any]:
    """An attempt as a line of the list."""
    return {
        "uid": row.uid,
        "when": row.made_at.replace("T", " ")[:16],
        "made_at": row.made_at,
        "title": row.title,
        "table": row.table_label,
        "href": shot.href,
        "mark": shot.mark,
        "stroke": Screen(english=english).dialect(shot.words),
        "result": "potted" if row.potted and row.result == Result.HIT.value else row.result,
        "off": landing_word(row.off),
        "side_hit": row.side_hit,
        "comment": row.comment,
        "more": _more(row),
    }
