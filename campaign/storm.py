"""Random requests to every route, valid and spoilt: no 500, nothing but sentences where it says no."""

import json
import random
import threading
import uuid
from collections import Counter
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import quote, urlencode

from campaign import scenes
from campaign.audit import finite
from campaign.server import Client, Served

from fandle.core.systems.catalogue import METHODS
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import Rail, rails_name
from fandle.core.table.standards import STANDARDS
from fandle.formats.files import layout_json
from fandle.formats.tables import table_json
from fandle.web import address

CLIENTS = 4
SPOILT = 0.15  # share of the questions that are spoilt somewhere
NASTY: tuple[Any, ...] = (
    None, True, -1, 0, 1e308, -1e308, 10**400, "", "x" * 5000, "\ud800", "\x00", "NaN", [], {}, [[]] * 50, 1e-320,
)  # fmt: skip
STREAMS = (address.PLAN, address.MAP, address.PREFER, address.STRATEGY)
PATIENT_S = 300.0  # the pictures of which system to prefer take long where much else is asked
OWN_SHARE = 0.03  # share of the questions that bring a table


@dataclass
class Tally:
    """What came back, and what never should have."""

    replies: Counter[int] = field(default_factory=Counter)
    routes: Counter[str] = field(default_factory=Counter)
    faults: list[str] = field(default_factory=list)
    lock: threading.Lock = field(default_factory=threading.Lock)

    def note(self, route: str, status: int, fault: str) -> None:
        """One reply."""
        with self.lock:
            self.replies[status] += 1
            self.routes[route] += 1
            if fault:
                self.faults.append(fault)


def question(rng: random.Random, scene: scenes.Scene) -> dict[str, Any]:
    """What the Table room asks."""
    s = scene.stroke
    return {
        "layout": layout_json(scene.layout, by_name=True),
        "speed": s.speed,
        "side": s.side,
        "up": s.up,
        "cue": s.cue.name,
        "rails": rails_name(scene.rails) if rng.random() < 0.7 else None,
        "hit": scene.hit,
        "kind": rng.choice(("kick", "kick", "bank")),
        "goal": rng.choice(("hit", "pot")),
        "pocket": rng.choice((None, *POCKET_NAMES)),
        "method": rng.choice(list(METHODS)),
        "frame": rng.choice(("nose", "sight", "centre")),
    }


def spoil(rng: random.Random, data: Any) -> Any:
    """The same with something nasty in one place."""
    places: list[tuple[Any, Any]] = []

    def collect(part: Any) -> None:
        items = part.items() if isinstance(part, dict) else enumerate(part) if isinstance(part, list) else ()
        for key, value in list(items):
            places.append((part, key))
            collect(value)

    data = json.loads(json.dumps(data))
    collect(data)
    part, key = rng.choice(places)
    part[key] = rng.choice(NASTY)
    return data


def ask_once(client: Client, rng: random.Random, tally: Tally) -> None:
    """One request to some route."""
    scene = scenes.scene(rng, rng.choice(list(STANDARDS.values())), 12)
    asked = question(rng, scene)
    if rng.random() < OWN_SHARE and isinstance(own := scenes.table(rng), Table):
        scene = scenes.scene(rng, own)
        layout = {**layout_json(scene.layout), "table": {**table_json(own), "name": f"made {rng.randrange(4)}"}}
        _reply(client, tally, "read-layout", "POST", address.READ_LAYOUT, json.dumps(layout), "text/plain")
        return
    route, method, path, data = _route(rng, scene, asked)
    if data is not None and rng.random() < SPOILT:
        data, route = spoil(rng, data), f"{route}, spoilt"
    body = None if data is None else json.dumps(data)
    _reply(client, tally, route, method, path, body, "" if data is None else "application/json")


def _route(rng: random.Random, scene: scenes.Scene, asked: dict[str, Any]) -> tuple[str, str, str, Any]:
    layout, rails = asked["layout"], rails_name(scene.rails or (Rail.FAR,))
    name, method = f"campaign {rng.randrange(30)} / {rng.choice('äß/?#%')}", rng.choice(list(METHODS))
    example = {"layout": layout, "rails": rails, "cloth": rng.choice(("own numbers", "new", "damp")), "rubber": "soft"}
    balls = ";".join(f"{ball['id']}:{ball['x']:.4f},{ball['y']:.4f}" for ball in layout["balls"])
    query = urlencode({"table": layout["table"], "game": layout["game"], "balls": balls, "target": layout["target"]})
    bodies = {
        "hold": {"question": {**asked, "kind": "kick", "rails": rails}, "mark": 2.0, "change": "side"},
        "edit": {"layout": layout, "how": rng.choice(("left-right", "end-to-end", "swap", "clear"))},
        "note": {
            "uid": str(uuid.UUID(int=rng.getrandbits(128))),
            "question": {**asked, "rails": rails},
            "result": rng.choice(("hit", "short", "left of it")),
        },
        "look": {"base": layout["table"], "values": {"cloth_rolling": rng.uniform(0, 0.06)}},
        "make": {"base": layout["table"], "name": name, "values": {"cushion_friction": rng.uniform(0, 0.5)}},
        "move": {"layout": layout, "table": rng.choice(list(STANDARDS))},
        "map": {"example": example, "method": method, "before": rng.random() < 0.1},
        "check": {"table": layout["table"], "shots": [_landed(rng) for _ in range(rng.randrange(1, 5))]},
        "miss": {
            "question": {**asked, "kind": "kick", "goal": "hit", "pocket": None, "rails": rails},
            "result": rng.choice(("short", "long")),
            "off": rng.uniform(-2, 2),
        },
        "after": {**asked, "rails": rails, "next": None},
    }
    link, nasty = f"/?{query}&rails={rails}", str(rng.choice(NASTY)).encode("utf-8", "replace")
    routes: list[tuple[int, str, str, str, Any]] = [
        (30, "answer", "POST", address.ANSWER, asked),
        (4, "plan", "POST", address.PLAN, {"layout": layout, "draws": 20, "strokes": "this"}),
        (6, "instead", "POST", address.INSTEAD, bodies["hold"]),
        (4, "edit", "POST", address.EDIT, bodies["edit"]),
        (3, "add ball", "POST", address.ADD_BALL, layout),
        (3, "move", "POST", address.MOVE, bodies["move"]),
        (1, "compare", "POST", address.COMPARE, asked),
        (2, "map", "POST", address.MAP, bodies["map"]),
        (1, "prefer", "POST", address.PREFER, {"example": example}),
        (2, "check", "POST", address.CHECK, bodies["check"]),
        (2, "shooter", "POST", address.SHOOTER, {"table": layout["table"], "shot": "plain", "turn": rng.randrange(9)}),
        (4, "diagnose", "POST", address.DIAGNOSE, bodies["miss"]),
        (2, "position", "POST", address.POSITION, bodies["after"]),
        (1, "strategy", "POST", address.STRATEGY, bodies["after"]),
        (2, "tonight", "POST", address.TONIGHT, {"table": layout["table"], "minutes": 20}),
        (2, "ask", "POST", address.ASK, {"table": layout["table"]}),
        (2, "try", "POST", address.TRIES, {"uid": name, "table": layout["table"], "drill": "freeze", "made": True}),
        (2, "example", "POST", f"{address.EXAMPLE}/{method}", example),
        (8, "note", "POST", address.ATTEMPTS, bodies["note"]),
        (2, "amend", "PATCH", f"{address.ATTEMPTS}/campaign-{rng.randrange(9)}", {"at": 3.3, "comment": "x"}),
        (2, "save layout", "POST", address.LAYOUTS, {"name": name, "layout": layout}),
        (1, "remove layout", "DELETE", f"{address.LAYOUTS}/{rng.randrange(60)}", None),
        (1, "layouts", "GET", f"{address.LAYOUTS}?find={quote(name)}", None),
        (2, "preview", "POST", address.CLUB_PREVIEW, bodies["look"]),
        (1, "make table", "POST", address.CLUB_TABLES, bodies["make"]),
        (1, "preferences", "PUT", address.PREFERENCES, {"tip_mm": rng.uniform(7, 16)}),
        (4, "table room", "GET", link, None),
        (1, "a bad link", "GET", f"/?balls={quote(nasty)}", None),
        (1, "log", "GET", f"/log?result={rng.choice(('', 'hit', 'x'))}", None),
        (1, "club", "GET", f"/club?table={quote(name)}", None),
        (1, "handbook", "GET", f"/handbook/{method}?{query}", None),
        (2, "static", "GET", "/static/js/main.js", None),
    ]
    *_, route = rng.choices(routes, [weight for weight, *_ in routes])
    return route[1:]


def _landed(rng: random.Random) -> dict[str, Any]:
    """A reference shot as somebody claims that it landed."""
    return {"shot": rng.choice(("plain", "lag", "three")), "landed": [{"rail": "near", "at": rng.uniform(0, 8)}]}


def _reply(client: Client, tally: Tally, route: str, method: str, path: str, body: str | None, kind: str) -> None:
    status, reply = client.ask(method, path, None if body is None else body.encode(), kind)
    fault = ""
    if status >= 500 and status != 503:
        fault = f"{status} from {method} {path[:200]} {body and body[:1500]}"
    elif status >= 400:
        try:
            told = json.loads(reply)
            if set(told) != {"error", "code", "field", "balls"} or not told["error"] or not told["code"]:
                fault = f"{status} without a sentence from {method} {path[:200]}: {reply[:200]!r}"
        except ValueError:
            if not reply.startswith(b"<!doctype html>"):
                fault = f"{status}, no JSON, from {method} {path[:200]}: {reply[:200]!r}"
    elif kind or path.startswith("/api"):
        try:
            for line in reply.splitlines() if path in STREAMS else (reply,):
                finite(json.loads(line))
        except (ValueError, AssertionError) as wrong:
            fault = f"{wrong} from {method} {path[:200]} {body and body[:1500]}"
    tally.note(route, status, fault)


def storm(served: Served, seed: int, count: int) -> Tally:
    """So many requests from a few clients at once."""
    tally = Tally()

    def one(number: int) -> None:
        rng, client = random.Random(f"{seed}/{number}"), Client(served.port, PATIENT_S)
        for _ in range(count // CLIENTS):
            try:
                ask_once(client, rng, tally)
            except OSError as wrong:
                client.close()
                tally.note("connection", 0, f"the connection broke: {wrong!r}")
        client.close()

    threads = [threading.Thread(target=one, args=(n,)) for n in range(CLIENTS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return tally
