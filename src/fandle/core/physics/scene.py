"""What a direction is judged against: one bundle of arrays, so that one scene serves one thread."""

from typing import NamedTuple

import numpy as np

from fandle.core.physics.engine import MOST_EVENTS, MOST_PIECES
from fandle.core.physics.jit import Floats, Ints
from fandle.core.physics.moving import BALL_WIDTH, ON
from fandle.core.physics.rack import MOST_EVENTS as MOST_CROWD_EVENTS
from fandle.core.physics.rack import MOST_PIECES as MOST_CROWD_PIECES
from fandle.core.physics.state import EVENT_WIDTH, PIECE_WIDTH, Tape

KICK = -1  # in place of a pocket: the cue ball is to meet the target


class Scene(NamedTuple):
    """A question for the kernels, flat: Python hands it over at every call. Metres; `stroke` as Stroke.array gives it.

    balls: (n, 2) object balls, `target` the place of the target among them; order: rails by
    number; pocket: where the target is to be sent, by number, or KICK; goal: the middle of that
    pocket's mouth; before: with a pocket, the cue ball's own rails before it meets the target; the
    rest is room for the engines to write in.
    """

    origin: Floats
    stroke: Floats
    p: Floats
    balls: Floats
    target: int
    order: Ints
    pocket: int
    goal: Floats
    before: Ints
    events: Floats
    pieces: Floats
    crowd: Floats
    crowd_events: Floats
    crowd_pieces: Floats


def blank_tape(events: int, pieces: int) -> Tape:
    """Room for so many events and pieces."""
    return Tape(np.empty((events, EVENT_WIDTH)), np.empty((pieces, PIECE_WIDTH)))


def scene_of(
    origin: Floats,
    stroke: Floats,
    p: Floats,
    balls: Floats,
    target: int,
    order: Ints,
    pocket: int = KICK,
    goal: tuple[float, float] = (0.0, 0.0),
    before: Ints | None = None,
) -> Scene:
    """A scene with room of its own to write in."""
    crowd = np.zeros((len(balls) + 1, BALL_WIDTH))
    crowd[:, ON] = 1.0
    crowded = pocket != KICK
    return Scene(
        origin, stroke, p, balls, target, order, pocket, np.array(goal), order[:0] if before is None else before,
        *blank_tape(MOST_EVENTS, MOST_PIECES), crowd,
        *(blank_tape(MOST_CROWD_EVENTS, MOST_CROWD_PIECES) if crowded else blank_tape(1, 1)),
    )  # fmt: skip
