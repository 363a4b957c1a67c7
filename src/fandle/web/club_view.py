"""What the Club room shows of a table: a plain shot on a small drawing, a plot, a sentence."""

from typing import Any

from fandle.core.layout.ball import Ball
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_of
from fandle.core.table.standards import usual_game
from fandle.core.tablecheck.response import AIM, LEAST, MOST, START, Rebound, plain_landing, rebounds, rigid, standard
from fandle.web.drawing import drawing, path
from fandle.web.noted import layout_href

PLOT = (300.0, 150.0)  # its inside, drawing units
SPAN_DEG = (30.0, 70.0)  # angles shown
FIRM = 3.0  # lengths of the sentence's hard shot
MEDIUM = 2.5


def preview(table: Table) -> dict[str, Any]:
    """A table's plain shot beside the standard one's, its rebound plot, and what they come to in words."""
    norm = standard(table)
    here = rebounds(table)
    return {
        "drawing": drawing(table),
        "shot": _plain_path(table),
        "standard": _plain_path(norm),
        "plot": {
            "here": _curve(here),
            "rigid": _curve(rebounds(rigid(table))),
            "standard": _curve(rebounds(norm)),
            "x": [(_x(v), f"{v:g}") for v in range(int(LEAST), int(MOST) + 1)],
            "y": [(_y(float(a)), f"{a}°") for a in (30, 40, 50, 60, 70)],
            "size": PLOT,
        },
        "told": _told(table, norm, here),
    }


def _plain_path(table: Table) -> str:
    layout = Layout(table, usual_game(table), (Ball("cue", *START),))
    direction = direction_to(table, Rail.FAR, layout.metres(layout.cue), AIM, "nose")
    shot = approach(layout, Stroke(speed_of(standard(table), MEDIUM)), direction, most_rails=2)
    return path(table, shot.pieces)


def _x(lengths: float) -> float:
    return round(PLOT[0] * (lengths - LEAST) / (MOST - LEAST), 1)


def _y(angle: float) -> float:
    share = (angle - SPAN_DEG[0]) / (SPAN_DEG[1] - SPAN_DEG[0])
    return round(PLOT[1] * (1 - min(max(share, 0.0), 1.0)), 1)


def _curve(rows: list[Rebound]) -> str:
    return "M" + "L".join(f"{_x(row.lengths):g} {_y(row.out_deg):g}" for row in rows) if rows else ""


def _told(table: Table, norm: Table, here: list[Rebound]) -> list[str]:
    """The same in sentences, for who would rather read."""
    lag = speed_of(table, 2.0)
    lines = [f"A lag takes {lag:.2f} m/s; the standard table runs {lengths_of(norm, lag):.2f} lengths at that."]
    for lengths in (2.0, MEDIUM, 4.0):
        mine, theirs = plain_landing(table, lengths), plain_landing(norm, lengths)
        if mine is not None and theirs is not None:
            off = mine - theirs
            word = "longer" if off > 0 else "shorter"
            beside = f": {abs(off):.2f} {word} than standard." if abs(off) >= 0.005 else ", as on the standard one."
            lines.append(f"From (1, 1) over far 3 at {lengths:g} lengths it comes back at {mine:.2f}{beside}")
    firm = next((row for row in here if row.lengths == FIRM), None)
    if firm is not None and firm.depth > 0.0:
        lines.append(f"At {FIRM:g} lengths and 45° the rubber gives {1000 * firm.depth:.0f} mm.")
    return lines


def play_href(table: Table) -> str:
    """Where the table is played on: a kick laid out on it."""
    game = usual_game(table)
    target = id_order(game)[0]
    return layout_href(Layout(table, game, (Ball("cue", 1.5, 1.0), Ball(target, 5.5, 1.2)), target))
