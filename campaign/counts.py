"""Every system and technique on layouts of its own kind: does it hit as often as its page tells, is a refusal true?

Layouts are random, over all five tables, with a house cue; a system that wants its ball on a rail gets it there.
"""

import random
import re
import statistics
from dataclasses import dataclass, field, replace

from fandle.core.errors import BadInputError
from fandle.core.handbook.close_work import technique_page
from fandle.core.handbook.page import TARGETS, page_of
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.play import play
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.catalogue import METHODS, orders_of, view_of
from fandle.core.systems.played import Aiming
from fandle.core.systems.registry import count, plain_count
from fandle.core.systems.verdict import proved
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS, usual_game
from fandle.core.techniques.base import Technique
from fandle.core.techniques.registry import TECHNIQUES, solved

ON_A_RAIL = frozenset(("M4", "M11", "M14", "M15", "M16", "M17", "M18"))  # the ball is to lie on or close to one
TRIES = 200  # layouts looked at for each that is wanted
AGREES = 0.011  # diamonds: what is told has two decimals
JITTER = 0.35  # diamonds by which a technique's own example is moved
OFFERED = re.compile(r"the neighbouring choice ([\d.]+) is open and lands (?:on|([\d.]+) (short|long))")
SPOILED = re.compile(r"shooting [\d.]+, the ball would (?:drop into|meet) the [a-z-]+ (?:pocket|jaw)")


@dataclass
class Measured:
    """What came of one system: layouts tried, counts made; of those within its page's range the hits, how far off."""

    method: str
    tried: int = 0
    applied: int = 0
    within: int = 0
    hits: int = 0
    off: list[float] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)

    @property
    def share(self) -> float:
        """Of the counts within the range, those that hit."""
        return self.hits / max(self.within, 1)

    @property
    def median(self) -> float:
        """Diamonds off, of the counts within the range."""
        return statistics.median(self.off) if self.off else 0.0


def scene(rng: random.Random, table: Table, *, on_rail: bool) -> Layout | None:
    """Cue ball and target anywhere, or the target on a rail, the cue ball mostly close to one; None where illegal."""
    game, edge_x, edge_y = usual_game(table), table.ball_radius / table.diamond_x, table.ball_radius / table.diamond_y
    name = TARGETS.get(game, "7")
    cue, target = [(rng.uniform(0.3, 7.7), rng.uniform(0.2, 3.8)) for _ in range(2)]
    if on_rail:
        x, y = target
        target = rng.choice([(x, edge_y), (x, 4 - edge_y), (edge_x, y), (8 - edge_x, y)])
        near = rng.uniform(0.1, 0.5)
        places = [cue, (cue[0], near), (cue[0], 4 - near), (near, cue[1]), (8 - near, cue[1])]
        cue = rng.choices(places, (4, 2, 2, 2, 2))[0]
    balls = [Ball("cue", *cue), Ball(name, *target)]
    if game == "three-cushion":
        balls.append(Ball("white", rng.uniform(0.5, 7.5), rng.uniform(0.5, 3.5)))
    try:
        return Layout(table, game, tuple(balls), name).settled()
    except BadInputError:
        return None


def measured(method: str, seed: int, wanted: int) -> Measured:
    """A system on as many layouts of its own kind as are wanted within its page's range."""
    rng, trusted, found = random.Random(f"{method}/{seed}"), page_of(method).trusted, Measured(method)
    tables, orders = list(STANDARDS.values()), orders_of(method)
    while found.within < wanted and found.tried < TRIES * wanted:
        laid, rails = scene(rng, rng.choice(tables), on_rail=method in ON_A_RAIL), rng.choice(orders)
        if laid is None:
            continue
        found.tried += 1
        made = plain_count(method, laid, rails, HOUSE)
        if isinstance(made, NoCount):
            found.faults += refused(method, laid, rails, made.reason)
            continue
        found.applied += 1
        if trusted.covers(made):
            lands = proved(laid, made, laid.require_target())
            found.within += 1
            found.hits += lands.hits
            found.off.append(lands.off_diamonds)
    return found


def refused(method: str, laid: Layout, rails: tuple[Rail, ...], reason: str) -> list[str]:
    """What is wrong with a refusal by a jaw or a pocket: a neighbour that is not offered, or not where it is told."""
    if not SPOILED.search(reason):
        return []
    told = count(method, laid, rails, cue=HOUSE)
    if isinstance(told, Count):
        return [f"{method}: refused and counted: {reason}"]
    offered = OFFERED.search(told.reason)
    view = view_of(method, laid, rails, laid.require_target(), HOUSE)
    draft = "" if view is None else METHODS[method].count(view)
    if offered is None or view is None or isinstance(draft, str):
        return []  # none within a diamond comes there: `played.Aiming.neighbour` looked
    stroke, target = replace(draft.stroke, side=view.turn.hand * draft.stroke.side, cue=HOUSE), laid.require_target()
    lands = Aiming(laid, rails, draft.frame, stroke, (target.x, target.y)).play(float(offered[1]))[2]
    said = 0.0 if offered[2] is None else float(offered[2]) * (1 if offered[3] == "long" else -1)
    near = lands is not None and abs(lands.off - said) <= (0.05 if offered[2] is None else AGREES)
    return [] if near else [f"{method} over {rails}: {told.reason}, but {lands}"]


def technique_measured(method: str, seed: int, wanted: int) -> Measured:
    """A technique on layouts like its page's example, on all tables of that kind: what it says is played."""
    rng, found, example = random.Random(f"{method}/{seed}"), Measured(method), technique_page(method).example
    carom = example.table.pockets is None
    tables = [table for table in STANDARDS.values() if (table.pockets is None) == carom]
    while found.tried < wanted:
        table = rng.choice(tables)
        balls = [_moved(ball, example.table, table, rng) for ball in example.balls]
        try:
            laid = Layout(table, usual_game(table), tuple(balls), balls[1].id).settled()
            made = solved(method, laid, cue=HOUSE)
        except BadInputError:
            continue
        found.tried += 1
        if isinstance(made, Technique):
            found.applied += 1
            found.within += 1
            shot = play(laid, made.way.stroke, made.direction)
            good = shot.first_ball == made.target
            good &= made.pocket is None or dict(shot.potted).get(made.target) == made.pocket
            found.hits += good
            if not good:
                found.faults.append(f"{method}: {laid.balls} on {table.name}: says {made.say}")
    return found


def _moved(ball: Ball, made_for: Table, table: Table, rng: random.Random) -> Ball:
    """A ball of an example on a table, moved a little; one that lies on a long rail stays frozen to it."""
    name = ball.id if ball.id == "cue" else TARGETS.get(usual_game(table), "7")
    x, y = (at + rng.uniform(-JITTER, JITTER) for at in (ball.x, ball.y))
    frozen = ball.y <= 1.01 * made_for.ball_radius / made_for.diamond_y
    return Ball(name, x, table.ball_radius / table.diamond_y if frozen else y)


def every(seed: int, wanted: int) -> list[Measured]:
    """All of them, in the order of their numbers."""
    return [measured(name, seed, wanted) for name in METHODS] + [
        technique_measured(name, seed, wanted) for name in TECHNIQUES
    ]
