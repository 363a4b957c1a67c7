"""What a cue's squirt does to a count: its mark is for a ball that leaves along the cue, a real one does not."""

import math
from dataclasses import replace

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import marks
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import IDEAL
from fandle.core.systems.base import ON, Count, figure
from fandle.core.systems.played import landing


def told(layout: Layout, found: Count, ball: Ball) -> str:
    """How a count's landing differs from that of a cue without squirt, and the mark that makes up for it.

    "" where the stroke has no side, the cue does not squirt, or the landing stays within ON.
    """
    stroke = found.stroke
    if stroke.squirt == 0.0:
        return ""
    ideal = replace(stroke, cue=IDEAL)
    shot = approach(layout, ideal, found.direction, most_rails=len(found.rails) + 1, ignore_balls=True)
    lands = landing(layout, found.rails, (ball.x, ball.y), shot)
    if lands is not None and abs(lands.off - found.lands.off) < ON:
        return ""
    table, rail = layout.table, found.rails[0]
    mark = getattr(marks(table, rail, layout.metres(layout.cue), found.direction - stroke.squirt), found.frame)
    without = "would not arrive" if lands is None else f"lands {lands.where}"
    way = "left" if stroke.squirt > 0.0 else "right"
    return (
        f"With this cue ({stroke.cue.label}) the ball leaves {abs(math.degrees(stroke.squirt)):.1f}° {way} of the "
        f"line and lands {found.lands.where}; without squirt it {without}. To send it along the counted line aim at "
        f"{figure(mark)}."
    )
