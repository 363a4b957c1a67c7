"""How a played direction can end."""

from typing import NamedTuple

# met or potted as asked; met off one more rail; a ball, a jaw, too slow, another rail first,
# anything else; cue ball and object ball meet again
HIT, BACKSTOP, BLOCKED, JAW, SHORT, OFF_RAIL, PAST, KISS = range(8)


class Outcome(NamedTuple):
    """One of the above, with the ball that is in the way (0 where none is) and the leg on which it ends so."""

    what: int
    ball: int
    leg: int
