"""What the Club room shows of a table: a plain shot on a small drawing, a plot, a sentence."""

from typing_extensions import TypedDict

from fandle.app.tables import FIRM, Response, first_kick, response
from fandle.core.table.condition import condition_of
from fandle.core.table.figures import shown
from fandle.core.table.model import Table
from fandle.core.tablecheck.response import LEAST, MOST, Rebound
from fandle.web.drawing import path
from fandle.web.known import Mine
from fandle.web.noted import layout_href

PLOT = (300.0, 150.0)  # its inside, drawing units
SPAN_DEG = (30.0, 70.0)  # angles shown


class PlotModel(TypedDict):
    """Angles off the rail by speed, as paths; the ticks of both axes; its size."""

    here: str
    rigid: str
    standard: str
    x: list[tuple[float, str]]
    y: list[tuple[float, str]]
    size: tuple[float, float]


class LookModel(TypedDict):
    """A table's plain shot beside the standard one's, its plot, and what they come to in words."""

    shot: str
    standard: str
    plot: PlotModel
    told: list[str]


class SeenModel(LookModel):
    """The same with its figures as the form has them, and its condition in words."""

    values: dict[str, float]
    cloth: str
    rubber: str


def seen(table: Table) -> SeenModel:
    """A table as the room shows it."""
    cloth, rubber = condition_of(table)
    return {**look(table), "values": shown(table), "cloth": cloth, "rubber": rubber}


def look(table: Table) -> LookModel:
    """What a table does."""
    does = response(table)
    return {
        "shot": path(table, does.plain.pieces),
        "standard": path(table, does.standard_plain.pieces),
        "plot": {
            "here": _curve(does.here),
            "rigid": _curve(does.rigid),
            "standard": _curve(does.standard),
            "x": [(_x(v), f"{v:g}") for v in range(int(LEAST), int(MOST) + 1)],
            "y": [(_y(float(a)), f"{a}°") for a in (30, 40, 50, 60, 70)],
            "size": PLOT,
        },
        "told": _told(does),
    }


def _x(lengths: float) -> float:
    return round(PLOT[0] * (lengths - LEAST) / (MOST - LEAST), 1)


def _y(angle: float) -> float:
    share = (angle - SPAN_DEG[0]) / (SPAN_DEG[1] - SPAN_DEG[0])
    return round(PLOT[1] * (1 - min(max(share, 0.0), 1.0)), 1)


def _curve(rows: list[Rebound]) -> str:
    return "M" + "L".join(f"{_x(row.lengths):g} {_y(row.out_deg):g}" for row in rows) if rows else ""


def _told(does: Response) -> list[str]:
    """The same in sentences, for who would rather read."""
    speed, lengths = does.lag
    lines = [f"A lag takes {speed:.2f} m/s; the standard table runs {lengths:.2f} lengths at that."]
    for landing in does.landings:
        off = landing.here - landing.standard
        word = "longer" if off > 0 else "shorter"
        beside = f": {abs(off):.2f} {word} than standard." if abs(off) >= 0.005 else ", as on the standard one."
        lines.append(
            f"From (1, 1) over far 3 at {landing.lengths:g} lengths it comes back at {landing.here:.2f}{beside}"
        )
    if does.firm is not None and does.firm.depth > 0.0:
        lines.append(f"At {FIRM:g} lengths and 45° the rubber gives {1000 * does.firm.depth:.0f} mm.")
    return lines


def play_href(table: Table, mine: Mine) -> str:
    """Where the table is played on: a kick laid out on it."""
    return layout_href(first_kick(table), mine)
