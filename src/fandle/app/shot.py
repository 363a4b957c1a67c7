"""Playing: one stroke, and everything that comes of it."""

from fandle.core.layout.model import Layout
from fandle.core.shot.play import Shot
from fandle.core.shot.play import play as play_shot
from fandle.core.shot.stroke import Stroke


def play(layout: Layout, stroke: Stroke, direction: float, impulse_steps: int | None = None) -> Shot:
    """The whole shot along `direction` (rad, the line of the cue). impulse_steps: of the cushion, to refine it."""
    return play_shot(layout, stroke, direction, impulse_steps)
