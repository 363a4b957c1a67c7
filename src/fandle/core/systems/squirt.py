"""What a cue's squirt does to a count: its mark is for a ball that leaves along the cue, a real one does not."""

import math
from dataclasses import replace

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to, marks
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import IDEAL
from fandle.core.systems.base import ON, Count, figure
from fandle.core.systems.played import landing
from fandle.core.systems.verdict import proved, shot_of
from fandle.core.words.balls import CUE

BETTER = 0.1  # diamonds by which another mark has to land nearer to be worth a word


def told(layout: Layout, found: Count, ball: Ball) -> str:
    """How a count's landing differs from that of a cue without squirt, and the mark that makes up for it.

    A system's numbers were found with cues that squirt: another mark is advised only where, played, it lands better by
    BETTER, hits, and is no in-off. "" where the stroke has no side or the landing stays within ON.
    """
    stroke = found.stroke
    if stroke.squirt == 0.0:
        return ""
    ideal = replace(stroke, cue=IDEAL)
    shot = approach(layout, ideal, found.direction, most_rails=len(found.rails) + 1, ignore_balls=True)
    lands = landing(layout, found.rails, (ball.x, ball.y), shot)
    if lands is not None and abs(lands.off - found.lands.off) < ON:
        return ""
    way = "left" if stroke.squirt > 0.0 else "right"
    leaves = (
        f"With this cue ({stroke.cue.label}) the ball leaves {abs(math.degrees(stroke.squirt)):.1f}° {way} of the line"
    )
    mark = _better_mark(layout, found, ball)
    if mark is None:
        return f"{leaves}: that is already in the number."
    return f"{leaves} and lands {found.lands.where}. To send it along the counted line aim at {figure(mark)}."


def _better_mark(layout: Layout, found: Count, ball: Ball) -> float | None:
    """The mark that makes up for the squirt, as it is written, in the count's frame; None where it serves no better."""
    table, rail, cue = layout.table, found.rails[0], layout.metres(layout.cue)
    at = round(getattr(marks(table, rail, cue, found.direction - found.stroke.squirt), found.frame), 2)
    if not 0.0 <= at <= rail.diamonds:
        return None
    direction = direction_to(table, rail, cue, at, found.frame)
    shot = approach(layout, found.stroke, direction, most_rails=len(found.rails) + 1, ignore_balls=True)
    lands = landing(layout, found.rails, (ball.x, ball.y), shot)
    if lands is None or lands.off_diamonds > found.lands.off_diamonds - BETTER:
        return None
    there = replace(found, direction=direction, lands=lands)
    whole = shot_of(layout, there)
    safe = whole is not None and CUE not in dict(whole.potted)
    return at if safe and proved(layout, there, ball).hits else None
