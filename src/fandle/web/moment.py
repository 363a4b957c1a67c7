"""The moment of contact as it is drawn large: places in mm on the drawing, headings as points to draw arrows to."""

import math

from typing_extensions import TypedDict

from fandle.core.shot.moment import Moment
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import side_name
from fandle.web.drawing import mm

ARROW = 2.6  # ball radii from a centre to the tip of its arrow
MARGIN = 3.4  # ball radii around everything that is shown
NEAR_RAIL = 8.0  # ball radii: a rail contact farther off than that is another story
FULL = 0.02


class MomentModel(TypedDict):
    """view: what is shown (x, y, width, height), bed: where the bed is in it; all in mm on the drawing.

    cue, ball: centres; at_rail: the cue ball's centre at the rail just before, null where that is far off. comes: from
    where the cue ball came; goes, driven: where the two go; null where they stop. spin: +1 to the right, −1, 0.
    """

    view: tuple[float, float, float, float]
    bed: tuple[float, float]
    radius: float
    cue: tuple[float, float]
    ball: tuple[float, float]
    ball_id: str
    at_rail: tuple[float, float] | None
    comes: tuple[float, float]
    goes: tuple[float, float] | None
    driven: tuple[float, float] | None
    spin: int
    says: list[str]


def moment_model(table: Table, moment: Moment, stroke: Stroke) -> MomentModel:
    """A moment on a table, and what is to be seen in it, in words."""
    r = table.ball_radius

    def beyond(place: Point, heading: float | None, way: float = 1.0) -> tuple[float, float] | None:
        if heading is None:
            return None
        return mm(table, place[0] + way * ARROW * r * math.cos(heading), place[1] + way * ARROW * r * math.sin(heading))

    rail = moment.rail
    near = rail is not None and math.dist(rail[1], moment.cue) < NEAR_RAIL * r
    at_rail = rail[1] if rail is not None and near else None
    shown = [moment.cue, moment.ball, *([at_rail] if at_rail else [])]
    lows, highs = ([pick(p[k] for p in shown) for k in (0, 1)] for pick in (min, max))
    left, top = mm(table, lows[0] - MARGIN * r, highs[1] + MARGIN * r)
    right, low = mm(table, highs[0] + MARGIN * r, lows[1] - MARGIN * r)
    comes = beyond(moment.cue, moment.comes, -1.0) if at_rail is None else mm(table, *at_rail)
    return {
        "view": (left, top, right - left, low - top), "bed": (table.length * 1000, table.width * 1000),
        "radius": r * 1000,
        "cue": mm(table, *moment.cue), "ball": mm(table, *moment.ball), "ball_id": moment.ball_id,
        "at_rail": None if at_rail is None else mm(table, *at_rail), "comes": comes or mm(table, *moment.cue),
        "goes": beyond(moment.cue, moment.goes), "driven": beyond(moment.ball, moment.driven),
        "spin": 0 if abs(stroke.side) < 0.01 else 1 if stroke.side > 0 else -1,
        "says": _says(moment, stroke),
    }  # fmt: skip


def _says(moment: Moment, stroke: Stroke) -> list[str]:
    side = "full" if abs(moment.hit) < FULL else f"on its {side_name(moment.hit)}"
    told = [f"{moment.fullness:.0%} of {spoken(moment.ball_id)}, {side}", f"cut {moment.cut_deg:.0f}°"]
    if abs(stroke.side) >= 0.01:
        told.append(f"spin to the {side_name(stroke.side)}")
    if moment.driven is None:
        told.append("the ball stays where it is")
    return told
