"""The reference shots of a table check: where the cue ball lies, how it is struck, which rails are watched.

A few plain shots that teach most: how fast the cloth is, how the rails answer a plain, a firm, a reverse and a running
ball, how much is left of it over three and four rails. Common practice, no published source.
"""

from dataclasses import dataclass

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.table.model import Table
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import standard_table, usual_game


@dataclass(frozen=True)
class Reference:
    """One shot. kind: as it is told; lengths: of the speed, tips: of side (+ right) and height.

    aim: rail and mark at the nose, None for straight along the table; watch: the rails whose contacts are read, in
    order; stops: does where it stops tell anything? like: the shot it is the mirror image of, to compare two rails.
    pockets: only where a table has them, or has none; None for either.
    """

    id: str
    kind: str
    say: str
    place: Point
    aim: tuple[Rail, float] | None
    lengths: float
    tips: float
    height: float
    watch: tuple[Rail, ...]
    stops: bool = False
    like: str = ""
    pockets: bool | None = None


FAR, NEAR, HEAD, FOOT = Rail.FAR, Rail.NEAR, Rail.HEAD, Rail.FOOT
SHOTS = (
    Reference("plain", "one rail, plain, medium", "plain off the far rail at 3, medium, back to the near rail",
              (1.0, 0.5), (FAR, 3.0), 2.5, 0.0, 0.0, (FAR, NEAR)),
    Reference("lag", "speed, lengthwise", "a lag: along the middle to the foot rail and half-way back",
              (1.5, 2.0), None, 1.6, 0.0, 0.0, (FOOT,), stops=True),
    Reference("firm", "one rail, plain, firm", "the plain one again, firm",
              (1.0, 0.5), (FAR, 3.0), 4.0, 0.0, 0.0, (FAR, NEAR)),
    Reference("reverse", "one rail, reverse", "half a tip of reverse (left) off the far rail at 3½, medium",
              (1.0, 0.5), (FAR, 3.5), 2.5, -0.5, 0.0, (FAR, NEAR)),
    Reference("route", "four rails, plain", "from the centre spot plain over far 2: far, head, near and the stop",
              (4.0, 2.0), (FAR, 2.0), 2.1, 0.0, 0.0, (FAR, HEAD, NEAR), stops=True),
    Reference("three", "three rails, running", "one tip of running side (right) and some follow, firm: far, foot, near",
              (0.7, 0.6), (FAR, 5.5), 3.0, 1.0, 0.5, (FAR, FOOT, NEAR), pockets=False),
    Reference("corner", "three rails, running",
              "from the corner through the far rail's diamond 5, one tip of running side (right), some follow, firm",
              (0.35, 0.35), (FAR, 4.65), 3.0, 1.0, 0.5, (FAR, FOOT, NEAR), pockets=True),
    Reference("running", "one rail, running", "one tip of running side (right) off the far rail at 2, medium",
              (1.0, 0.5), (FAR, 2.0), 2.5, 1.0, 0.0, (FAR, NEAR)),
    Reference("plain-near", "one rail, plain, off the near rail", "the plain one off the near rail at 3, back to far",
              (1.0, 3.5), (NEAR, 3.0), 2.5, 0.0, 0.0, (NEAR, FAR), like="plain"),
    Reference("lag-head", "speed, the other way", "the lag the other way: to the head rail and half-way back",
              (6.5, 2.0), (HEAD, 2.0), 1.6, 0.0, 0.0, (HEAD,), stops=True, like="lag"),
)  # fmt: skip
BY_ID = {shot.id: shot for shot in SHOTS}


def shots_for(table: Table) -> list[Reference]:
    """The shots of a check on this table, those first that teach most."""
    return [shot for shot in SHOTS if shot.pockets in (None, table.pockets is not None)]


def kinds_for(table: Table) -> list[Reference]:
    """The shots that a table is told to play so or so."""
    return [shot for shot in shots_for(table) if not shot.like]


@dataclass(frozen=True)
class Setup:
    """A shot as it is played: the layout, the stroke, the direction of the cue (rad), and the rails that are watched.

    stops: does where it stops tell anything? every: are all rails on its way watched, from the first on?
    """

    id: str
    kind: str
    layout: Layout
    stroke: Stroke
    direction: float
    watch: tuple[Rail, ...]
    stops: bool = True
    every: bool = True

    @property
    def start(self) -> Point:
        """Where the cue ball lies, m."""
        return self.layout.metres(self.layout.cue)


def setup(table: Table, shot: Reference) -> Setup:
    """A reference shot on a table, struck as on one of its make in standard condition."""
    layout = Layout(table, usual_game(table), (Ball("cue", *shot.place),))
    norm = standard_table(table.standard)
    stroke = Stroke(speed_of(norm, shot.lengths), offset_of(shot.tips, table), offset_of(shot.height, table))
    direction = 0.0
    if shot.aim is not None:
        direction = direction_to(table, shot.aim[0], layout.metres(layout.cue), shot.aim[1], "nose")
    return Setup(shot.id, shot.kind, layout, stroke, direction, shot.watch, shot.stops)


def reference_shot(table: Table, name: str) -> Setup:
    """A reference shot by its id. Raises BadInputError."""
    if name not in BY_ID:
        raise BadInputError(f"unknown shot {name!r}: use one of {', '.join(BY_ID)}", "shots.shot", code="unknown")
    return setup(table, BY_ID[name])
