"""Addresses: the one place that knows every URL and how a page's state is written in one.

`/?table=pool-9ft&game=nine-ball&balls=cue:1.1,0.55;7:5.3,0.5&target=7&speed=3.22&side=0.17&rails=far`
Positions in diamonds, the stroke in the units of the contract.
"""

from collections.abc import Mapping
from dataclasses import replace
from urllib.parse import quote

from fandle.app.library import STANDARD, Known
from fandle.app.situation import FAVOURITE, Kind, Situation
from fandle.core.choice.position import next_of
from fandle.core.choice.wish import GOALS, Then, Zone, zone_of
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.layout.state import OPEN, state_of_text
from fandle.core.lines.marks import FRAMES
from fandle.core.lines.question import ANY
from fandle.core.shot.cue import IDEAL
from fandle.core.shot.stroke import Stroke, within_limit
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import parse_rails, rails_name
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import DEFAULT, usual_game

TABLE_ROOM = "/"
ANSWER = "/api/answer"
PLAN = "/api/plan"
POSITION = "/api/position"
STRATEGY = "/api/strategy"
INSTEAD = "/api/instead"
ADD_BALL = "/api/add-ball"
READ_LAYOUT = "/api/read-layout"
SAVE_LAYOUT = "/layout.fandle.json"
HEALTH = "/api/health"
EDIT = "/api/edit"
LAYOUTS = "/api/layouts"
LINK = "/api/link"
ATTEMPTS = "/api/attempts"
ATTEMPTS_HERE = "/api/attempts-here"
PREFERENCES = "/api/preferences"
PLAYER = "/api/player"
ME = "/api/me"
LOG_ROOM = "/log"
CLUB_ROOM = "/club"
COMPARE_ROOM = "/compare"
CHECK_ROOM = "/check"
CHECK = "/api/check"
PRACTICE_ROOM = "/practice"
TONIGHT = "/api/practice/tonight"
DRILL = "/api/practice/drill"
TRIES = "/api/practice/tries"
ASK = "/api/practice/ask"
REPLY = "/api/practice/reply"
PROGRESS = "/api/practice/progress"
OWN_DRILLS = "/api/practice/own"
READ_SET = "/api/practice/set"
READ_RESULTS = "/api/practice/results"
SIDE_BY_SIDE = "/api/practice/side-by-side"
DRILL_SET = "/drills.json"
RESULTS = "/practice.json"
SHOOTER = "/api/check/shooter"
DIAGNOSE = "/api/diagnose"
TEST_SHOT = "/api/test-shot"
HANDBOOK = "/handbook"
EXAMPLE = "/api/handbook"
TECHNIQUE = "/api/technique"
MAP = "/api/map"
PREFER = "/api/prefer"
COMPARE = "/api/compare"
CLUB_TABLES = "/api/club/tables"
CLUB_CUES = "/api/club/cues"
CUE_TEST = "/api/club/cue-test"
CLUB_BACK = "/api/club/bring-back"
CLUB_PREVIEW = "/api/club/preview"
READ_TABLE = "/api/club/read-table"
SAVE_TABLE = "/table.json"
MOVE = "/api/move"
MOVE_TO = "/move"
LOG_CSV = "/log.csv"
LOG_JSON = "/log.json"
LOG_IMPORT = "/api/log"
PASS = "/pass"
DEVICES = "/devices"
API_DEVICES = "/api/devices"
STATIC = "/static"
DOCS = "/docs"

KINDS: tuple[Kind, ...] = ("kick", "bank")
PLACES = 4  # decimals of a diamond (0.03 mm), of a m/s and of a radius kept in an address


def number(value: float) -> str:
    """A number as short as it goes."""
    return f"{value:.{PLACES}f}".rstrip("0").rstrip(".") or "0"


def rounded(asked: Situation) -> Situation:
    """The situation as its own address will give it back, to the last digit."""
    try:
        layout = _kept_layout(asked.layout)
    except BadInputError:  # written at the very edge of what is accepted: then where the balls really lie
        layout = _kept_layout(asked.layout.settled())
    s = asked.stroke
    side, up = within_limit(_keep(s.side), _keep(s.up))
    stroke = Stroke(max(_keep(s.speed), 1e-4), side, up, _keep(s.elevation), s.cue)
    goal = asked.goal if layout.table.pockets is not None else GOALS[0]  # without pockets there is one
    then = replace(asked.then, zones=_kept_zones(asked.then.zones), away=_kept_zones(asked.then.away))
    return replace(asked, layout=layout, stroke=stroke, hit=_keep(asked.hit), goal=goal, then=then)


def _kept_zones(zones: tuple[Zone, ...]) -> tuple[Zone, ...]:
    return tuple(Zone(_keep(zone.x), _keep(zone.y), _keep(zone.r)) for zone in zones)


def _kept_layout(layout: Layout) -> Layout:
    return replace(layout, balls=tuple(Ball(b.id, _keep(b.x), _keep(b.y)) for b in layout.balls))


def _keep(value: float) -> float:
    return float(number(value))


def write(asked: Situation) -> str:
    """The query of the address that holds a asked."""
    layout, stroke = asked.layout, asked.stroke
    balls = ";".join(f"{b.id}:{number(b.x)},{number(b.y)}" for b in layout.balls)
    parts = {
        "table": layout.table.name,
        "game": layout.game,
        "balls": balls,
        "target": layout.target or "",
        "group": layout.state.group or "",
        "on": layout.state.on or "",
        "free": "1" if layout.state.free_ball else "",
        "speed": number(stroke.speed),
        "side": number(stroke.side),
        "up": number(stroke.up),
        "raised": number(stroke.elevation) if stroke.elevation else "",
        "cue": "" if stroke.cue == IDEAL else stroke.cue.name,
        "rails": "" if asked.rails is None else rails_name(asked.rails),
        "hit": number(asked.hit) if asked.hit else "",
        "kind": "" if asked.kind == KINDS[0] else asked.kind,
        "goal": "" if asked.goal == GOALS[0] else asked.goal,
        "called": asked.called or "",
        "pocket": asked.pocket or "",
        "stop": ";".join(_zone(zone) for zone in asked.then.zones),
        "stay-off": ";".join(_zone(zone) for zone in asked.then.away),
        "next": "" if asked.then.next is None else asked.then.next.text,
        "method": asked.system,
        "frame": asked.frame,
    }
    return "&".join(f"{name}={quote(value, safe=':,;.-')}" for name, value in parts.items() if value)


def read(query: Mapping[str, str], known: Known = STANDARD) -> Situation:
    """The situation an address holds; BadInputError, one sentence, where it is not understood."""
    table = known.table(query.get("table", DEFAULT))
    balls = tuple(_ball(part) for part in query.get("balls", "").split(";") if part)
    state = OPEN
    for part in (f"group={query.get('group', '')}", f"on={query.get('on', '')}"):
        state = state_of_text(part, state)
    state = replace(state, free_ball=query.get("free") == "1")
    layout = Layout(table, query.get("game", usual_game(table)), balls, query.get("target") or None, state)
    speed = _float(query["speed"], "speed") if query.get("speed") else default_speed(table)
    side, up = _float(query.get("side", "0"), "side"), _float(query.get("up", "0"), "up")
    stroke = Stroke(speed, side, up, _float(query.get("raised", "0"), "elevation"), known.cue(query.get("cue")))
    rails = query.get("rails") or query.get("rail")  # links of the first versions say rail
    pocket = _pocket(query, "pocket")
    potting = query.get("kind") == "bank" or pocket is not None  # links of earlier versions name no goal
    return Situation(
        layout,
        stroke,
        parse_rails(rails) if rails else None,
        "bank" if _one_of(query.get("kind", KINDS[0]), "kind", KINDS) == "bank" else "kick",
        pocket,
        _float(query.get("hit", "0"), "hit"),
        check_frame(query.get("frame", "nose")),
        query.get("method", FAVOURITE),
        _one_of(query.get("goal", GOALS[potting]), "goal", GOALS),
        _pocket(query, "called"),
        then=Then(
            _zones(query.get("stop", "")), _zones(query.get("stay-off", "")),
            next_of(layout, query["next"]) if query.get("next") else None,
        ),
    )  # fmt: skip


def _zone(zone: Zone) -> str:
    return ",".join(number(value) for value in (zone.x, zone.y, zone.r))


def _zones(text: str) -> tuple[Zone, ...]:
    return tuple(zone_of(part) for part in text.split(";") if part)


def _pocket(query: Mapping[str, str], field: str) -> str | None:
    return _one_of(query[field], field, (*POCKET_NAMES, ANY)) if query.get(field) else None


def _one_of(text: str, field: str, known: tuple[str, ...]) -> str:
    if text not in known:
        raise BadInputError(f"unknown {field} {text!r}: use one of {', '.join(known)}", field, code="unknown")
    return text


def check_frame(frame: str) -> str:
    """A frame a mark can be printed in."""
    if frame not in FRAMES:
        raise BadInputError(f"unknown frame {frame!r}: use nose, sight or centre", "frame", code="unknown")
    return frame


def _ball(text: str) -> Ball:
    name, _, place = text.partition(":")
    x, comma, y = place.partition(",")
    if not comma:
        raise BadInputError(f"ball {text!r} is not understood: write it like 7:5.3,0.5", "balls", code="not_understood")
    return Ball(name, _float(x, "balls"), _float(y, "balls"))


def _float(text: str, field: str) -> float:
    try:
        return float(text)
    except ValueError:
        raise BadInputError(f"{field}: {text!r} is not a number", field, code="not_a_number") from None
