"""The whole shot as the Table room draws it: every ball that moves, where it stops, in words."""

import math
from collections.abc import Sequence

from fandle.core.layout.model import Layout
from fandle.core.shot.path import Event, Piece
from fandle.core.shot.play import Shot
from fandle.core.table.model import Table
from fandle.core.words.balls import CUE, spoken
from fandle.web.drawing import diamonds_mm, film, path
from fandle.web.table.models import Blow, Moment, WholeModel

CLEAR_MM = 150.0  # from a contact to the middle of the words beside it
MOST_MOMENTS = 60  # of a break nobody steps through more


def whole(layout: Layout, shot: Shot, fullness: float, banked: str | None = None) -> WholeModel:
    """Drawing data of a shot. fullness: of the first hit, 1 is full; banked: a ball whose way is loud, too."""
    table = layout.table
    first = next((ev for ev in shot.events if ev.kind == "ball"), None)
    met = shot.lasts if first is None else first.t
    cue = shot.paths.get(CUE, ())
    before = tuple(q for q in cue if q.t < met)
    after = tuple(q for q in cue if q.t >= met)
    return {
        "shot": path(table, before) + path(table, shot.paths.get(banked or "", ())),
        "after": [path(table, way) for way in (after, *_others(shot, banked)) if way],
        "rests": [
            {"id": ball, "at": diamonds_mm(table, place)}
            for ball, place in shot.rest.items()
            if place is not None and ball in shot.paths
        ],
        "films": {ball: film(table, way) for ball, way in shot.paths.items()},
        "moments": moments(table, shot),
        "lasts": shot.lasts,
        "blow": None if first is None else _blow(layout, first, before, fullness),
        "told": told(shot, fullness),
    }


def _blow(layout: Layout, first: Event, way: Sequence[Piece], fullness: float) -> Blow:
    """How the first ball is met, and on which side of the line there is room to write it.

    way: a unit vector on the drawing, square to the last leg, to the side where no ball lies near.
    """
    table = layout.table
    if way:
        heading = way[-1].heading
    else:  # frozen to it: there is no way, so the words stand square to the line of centres
        (ax, ay), (bx, by) = (layout.metres(layout.ball(name)) for name in (first.ball, first.other or CUE))
        heading = math.atan2(by - ay, bx - ax)
    ux, uy = -math.sin(heading), -math.cos(heading)  # y runs down on the drawing
    x, y = diamonds_mm(table, (first.x, first.y))
    lie = [diamonds_mm(table, (ball.x, ball.y)) for ball in layout.balls]
    lie += [(x, -CLEAR_MM / 2), (x, table.width * 1000 + CLEAR_MM / 2)]

    def room(sign: int) -> float:
        return min(math.dist((x + sign * ux * CLEAR_MM, y + sign * uy * CLEAR_MM), place) for place in lie)

    if room(-1) > room(1):
        ux, uy = -ux, -uy
    return {"text": f"{fullness:.0%} · {first.speed:.1f} m/s", "way": (round(ux, 3), round(uy, 3))}


def _others(shot: Shot, banked: str | None) -> list[tuple[Piece, ...]]:
    return [way for ball, way in shot.paths.items() if ball not in (CUE, banked)]


def told(shot: Shot, fullness: float) -> str:
    """What comes of a shot, in a sentence or two."""
    first = next((ev for ev in shot.events if ev.kind == "ball"), None)
    met = shot.first_ball
    if first is None or met is None:
        return "Hits no ball."
    parts = [f"Hits {spoken(met)} {thickness(fullness)} at {first.speed:.1f} m/s."]
    down = [(ball, pocket) for ball, pocket in shot.potted if ball != CUE]
    parts += [f"{capital(spoken(ball))} drops into {pocket}." for ball, pocket in down[:2]]
    if len(down) > 2:
        parts.append(f"{len(down)} balls go down in all.")
    scratch = next((pocket for ball, pocket in shot.potted if ball == CUE), None)
    if scratch is not None:
        parts.append(f"The cue ball follows into {scratch}." if down else f"The cue ball drops into {scratch}.")
    elif not down:
        parts.append("Nothing potted.")
    return " ".join(parts)


def thickness(fullness: float) -> str:
    """How full a hit is, as a player says it."""
    return "full" if fullness > 0.95 else f"{fullness:.0%} full"


def capital(text: str) -> str:
    """The text begun with a capital."""
    return text[:1].upper() + text[1:]


def moments(table: Table, shot: Shot) -> list[Moment]:
    """What happens when, in words, for the shot as it is shown running."""
    cue = shot.paths.get(CUE, ())
    if not cue:
        return []
    sliding = cue[0].sliding
    struck = "struck, still sliding" if sliding else "struck, rolling at once"
    found: list[Moment] = []
    for piece in cue:
        if sliding and not piece.sliding:
            found.append({"t": piece.t, "at": diamonds_mm(table, piece.start), "text": "rolling from here"})
        elif piece.sliding and not sliding:
            found.append({"t": piece.t, "at": diamonds_mm(table, piece.start), "text": "sliding again"})
        sliding = piece.sliding
    found += [
        {"t": ev.t, "at": diamonds_mm(table, (ev.x, ev.y)), "text": text}
        for ev in shot.events
        if (text := _event(ev)) is not None
    ]
    first: Moment = {"t": 0.0, "at": diamonds_mm(table, cue[0].start), "text": struck}
    return [first, *sorted(found, key=lambda moment: moment["t"])][:MOST_MOMENTS]


def _event(event: Event) -> str | None:
    who = "" if event.ball == CUE else f"{spoken(event.ball)}: "
    if event.kind == "rail":
        if event.in_deg is None or event.out_deg is None:
            return None
        angles = f", in {event.in_deg:.0f}°, out {event.out_deg:.0f}°" if event.ball == CUE else ""
        return f"{who}{event.rail} rail{angles}"
    if event.kind == "ball" and event.other is not None:
        return f"{who}hits {spoken(event.other)} at {event.speed:.1f} m/s"
    if event.kind == "stop":
        return f"{who}stops"
    return f"{who}hits the {event.pocket} jaw" if event.kind == "jaw" else f"{who}drops into {event.pocket}"
