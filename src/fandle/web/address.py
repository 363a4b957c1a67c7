"""Addresses: the one place that knows every URL and how a page's state is written in one.

`/?table=pool-9ft&game=nine-ball&balls=cue:1.1,0.55;7:5.3,0.5&target=7&speed=3.22&side=0.17&rails=far`
Positions in diamonds, the stroke in the units of the contract.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from urllib.parse import quote

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import FRAMES
from fandle.core.shot.cue import IDEAL
from fandle.core.shot.stroke import Stroke, within_limit
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import Rail, parse_rails, rails_name
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import DEFAULT, usual_game
from fandle.web.known import STANDARD, Known

TABLE_ROOM = "/"
ANSWER = "/api/answer"
LINES = "/api/lines"
INSTEAD = "/api/instead"
ADD_BALL = "/api/add-ball"
READ_LAYOUT = "/api/read-layout"
SAVE_LAYOUT = "/layout.fandle.json"
HEALTH = "/api/health"
EDIT = "/api/edit"
LAYOUTS = "/api/layouts"
ATTEMPTS = "/api/attempts"
PREFERENCES = "/api/preferences"
LOG_ROOM = "/log"
CLUB_ROOM = "/club"
COMPARE_ROOM = "/compare"
HANDBOOK = "/handbook"
EXAMPLE = "/api/handbook"
MAP = "/api/map"
COMPARE = "/api/compare"
CLUB_TABLES = "/api/club/tables"
CLUB_CUES = "/api/club/cues"
CLUB_BACK = "/api/club/bring-back"
CLUB_PREVIEW = "/api/club/preview"
READ_TABLE = "/api/club/read-table"
SAVE_TABLE = "/table.json"
MOVE = "/api/move"
LOG_CSV = "/log.csv"
LOG_JSON = "/log.json"
LOG_IMPORT = "/api/log"
PASS = "/pass"
DEVICES = "/devices"
API_DEVICES = "/api/devices"
STATIC = "/static"

KINDS = ("kick", "bank")
COUNTS = ("1", "2", "3", "4", "all")  # rails of the lines in the list
PLACES = 4  # decimals of a diamond (0.03 mm), of a m/s and of a radius kept in an address


@dataclass(frozen=True)
class State:
    """What a Table room page shows: layout, stroke, and the reader's choices (rails None = best)."""

    layout: Layout
    stroke: Stroke
    rails: tuple[Rail, ...] | None = None
    method: str = "M3"
    frame: str = "nose"
    hit: float = 0.0
    kind: str = "kick"
    count: str = "1"
    pocket: str | None = None
    among: tuple[tuple[Rail, ...], ...] = ()  # the best of these will do until the whole list is there

    @property
    def counts(self) -> tuple[int, ...]:
        """How many rails the list of lines goes over."""
        if self.count == "all":
            return (1, 2, 3) if self.kind == "kick" else (1, 2)
        return (int(self.count),)


def number(value: float) -> str:
    """A number as short as it goes."""
    return f"{value:.{PLACES}f}".rstrip("0").rstrip(".") or "0"


def rounded(state: State) -> State:
    """The state as its own address will give it back, to the last digit."""
    try:
        layout = _kept_layout(state.layout)
    except BadInputError:  # written at the very edge of what is accepted: then where the balls really lie
        layout = _kept_layout(state.layout.settled())
    s = state.stroke
    side, up = within_limit(_keep(s.side), _keep(s.up))
    stroke = Stroke(max(_keep(s.speed), 1e-4), side, up, cue=s.cue)
    return replace(state, layout=layout, stroke=stroke, hit=_keep(state.hit))


def _kept_layout(layout: Layout) -> Layout:
    return Layout(
        layout.table, layout.game, tuple(Ball(b.id, _keep(b.x), _keep(b.y)) for b in layout.balls), layout.target
    )


def _keep(value: float) -> float:
    return float(number(value))


def write(state: State) -> str:
    """The query of the address that holds a state."""
    layout, stroke = state.layout, state.stroke
    balls = ";".join(f"{b.id}:{number(b.x)},{number(b.y)}" for b in layout.balls)
    parts = {
        "table": layout.table.name,
        "game": layout.game,
        "balls": balls,
        "target": layout.target or "",
        "speed": number(stroke.speed),
        "side": number(stroke.side),
        "up": number(stroke.up),
        "cue": "" if stroke.cue == IDEAL else stroke.cue.name,
        "rails": "" if state.rails is None else rails_name(state.rails),
        "hit": number(state.hit) if state.hit else "",
        "kind": "" if state.kind == KINDS[0] else state.kind,
        "count": "" if state.count == COUNTS[0] else state.count,
        "pocket": state.pocket or "",
        "method": state.method,
        "frame": state.frame,
    }
    return "&".join(f"{name}={quote(value, safe=':,;.-')}" for name, value in parts.items() if value)


def read(query: Mapping[str, str], known: Known = STANDARD) -> State:
    """The state an address holds; BadInputError, one sentence, where it is not understood."""
    table = known.table(query.get("table", DEFAULT))
    balls = tuple(_ball(part) for part in query.get("balls", "").split(";") if part)
    layout = Layout(table, query.get("game", usual_game(table)), balls, query.get("target") or None)
    speed = _float(query["speed"], "speed") if query.get("speed") else default_speed(table)
    side, up = _float(query.get("side", "0"), "side"), _float(query.get("up", "0"), "up")
    stroke = Stroke(speed, side, up, cue=known.cue(query.get("cue")))
    rails = query.get("rails") or query.get("rail")  # links of the first versions say rail
    return State(
        layout,
        stroke,
        parse_rails(rails) if rails else None,
        query.get("method", "M3"),
        check_frame(query.get("frame", "nose")),
        _float(query.get("hit", "0"), "hit"),
        _one_of(query.get("kind", KINDS[0]), "kind", KINDS),
        _one_of(query.get("count", COUNTS[0]), "count", COUNTS),
        _one_of(query["pocket"], "pocket", POCKET_NAMES) if query.get("pocket") else None,
    )


def _one_of(text: str, field: str, known: tuple[str, ...]) -> str:
    if text not in known:
        raise BadInputError(f"unknown {field} {text!r}: use one of {', '.join(known)}", field)
    return text


def check_frame(frame: str) -> str:
    """A frame a mark can be printed in."""
    if frame not in FRAMES:
        raise BadInputError(f"unknown frame {frame!r}: use nose, sight or centre", "frame")
    return frame


def _ball(text: str) -> Ball:
    name, _, place = text.partition(":")
    x, comma, y = place.partition(",")
    if not comma:
        raise BadInputError(f"ball {text!r} is not understood: write it like 7:5.3,0.5", "balls")
    return Ball(name, _float(x, "balls"), _float(y, "balls"))


def _float(text: str, field: str) -> float:
    try:
        return float(text)
    except ValueError:
        raise BadInputError(f"{field}: {text!r} is not a number", field) from None
