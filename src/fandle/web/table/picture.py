"""What the Table room draws for a solved line: paths, marks, the mirror view. No words but those at a contact."""

from fandle.app.answer import Played
from fandle.app.situation import Situation
from fandle.core.layout.model import Layout
from fandle.core.lines.helps import BackSight
from fandle.core.lines.marks import diamond_along
from fandle.core.lines.solution import Solution
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import CUE
from fandle.web.drawing import diamonds_mm, mm, polyline
from fandle.web.table.models import AcrossLine, PictureModel
from fandle.web.table.unfolded import unfolded
from fandle.web.table.whole import whole


def picture(asked: Situation, played: Played) -> PictureModel:
    """Drawing data of one line. Of a bank the object ball's way is as loud as the cue ball's."""
    layout, table, best = asked.layout, asked.table, played.best
    banked = best.target if best.contact is not None else None
    per_mm = 1 / (1000 * diamond_along(table, best.mark_rail)) if best.rails else 0.0
    last = best.shot.events[-1]
    pieces = played.shot.paths[banked] if banked else best.shot.pieces
    balls = {ball.id: layout.metres(ball) for ball in layout.balls}
    at = [cushion.at for cushion in best.cushions]
    start, goal = played.natural[0], played.natural[-1]
    return {
        **whole(layout, played.shot, best.fullness, banked),
        "line": across_line(layout, best.rails[-1], played.meant) if best.rails else None,
        "natural": polyline(table, list(played.natural)),
        "ghost": mm(table, last.x * table.diamond_x, last.y * table.diamond_y),
        "aim_line": polyline(table, list(played.aim_line)),
        "ahead": diamonds_mm(table, played.helps.ahead),
        "back": diamonds_mm(table, _on_edge(played.helps.back)),
        "mark": {
            "nose": best.corrected.nose,
            "natural": best.natural.nose,
            "less": best.corrected.nose - best.window_less_mm * per_mm,
            "more": best.corrected.nose + best.window_more_mm * per_mm,
            "pot": _pot_window(best, per_mm),
        },
        "mirror": unfolded(table, best.rails, balls, start, goal, pieces, at) if best.rails else None,
        "involved": sorted({CUE, best.target, *played.shot.paths}),
    }


def _on_edge(back: BackSight) -> Point:
    """A back sight as a point on the cushion edge, diamonds."""
    return back.rail.point(back.at, float(back.rail.diamonds_across) if back.rail.at_end else 0.0)


def _pot_window(best: Solution, per_mm: float) -> Point | None:
    """From where to where the ball is potted, diamonds."""
    if best.pot is None or not per_mm:
        return None
    return best.corrected.nose - best.pot.less_mm * per_mm, best.corrected.nose + best.pot.more_mm * per_mm


def across_line(layout: Layout, rail: Rail, goal: Point) -> AcrossLine:
    """The line along which short and long are read: through what is played for, parallel to the last rail."""
    places = [diamonds_mm(layout.table, rail.point(a, rail.across(*goal))) for a in (0.0, float(rail.diamonds))]
    return {"from": places[0], "to": places[1], "whole": rail.diamonds, "target": rail.along(*goal)}
