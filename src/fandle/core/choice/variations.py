"""What a little more of one thing would do to a line: its own mark, where the cue ball goes then, what comes next.

Harder, softer, higher, lower, with side, fuller, thinner; a bank punched and rolled. Every one is solved again for its
own mark; harder with so much side that the mark stays is one more.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from fandle.core.choice.after import After, after_of
from fandle.core.choice.aiming import Aimed, mark_of
from fandle.core.choice.bank_mark import bank_marked
from fandle.core.choice.chance import Chance, Share, chances
from fandle.core.choice.field import Field
from fandle.core.choice.named import stroke_name
from fandle.core.choice.position import EASIEST
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.stretch import Key, Stretch
from fandle.core.choice.strokes import HARD, SOFT, Tried
from fandle.core.choice.wish import VERDICT, Wish
from fandle.core.constants import FASTEST_MPS, MISCUE_LIMIT
from fandle.core.lines.held import Instead, solve_instead
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.player.draws import Draws
from fandle.core.shot.play import Shot, play
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.steps import Steps
from fandle.core.table.model import Table
from fandle.core.table.speeds import speed_of

MORE = 1.25  # times the speed
TIPS = 0.5  # of side, of height
THICKER = 0.25  # ball diameters


class Change(NamedTuple):
    """Something to try: what it is called, the stroke, the thickness."""

    name: str
    stroke: Stroke
    hit: float


@dataclass(frozen=True)
class Variation:
    """A line with one thing changed. name: what; called: the stroke's own name, or "". share: the chance of the goal.

    moved: where the cue ball stops then, less where it stops as it is, m.
    """

    name: str
    called: str
    stroke: Stroke
    best: Solution
    share: Share
    after: After
    moved: tuple[float, float]


def changes(table: Table, stroke: Stroke, best: Solution) -> Iterator[Change]:
    """What is tried, the line as it is first."""
    hit, half = best.hit, offset_of(TIPS, table, stroke.cue.tip)
    yield Change("as it is", stroke, hit)
    yield Change("harder", replace(stroke, speed=min(stroke.speed * MORE, FASTEST_MPS)), hit)
    yield Change("softer", replace(stroke, speed=stroke.speed / MORE), hit)
    if best.contact is not None:
        yield Change("punched", replace(stroke, speed=speed_of(table, HARD), side=0.0, up=0.0), hit)
        yield Change("rolled", replace(stroke, speed=speed_of(table, SOFT), side=0.0, up=half), hit)
    for name, part, by in (("higher", "up", half), ("lower", "up", -half), ("", "side", half), ("", "side", -half)):
        changed = {"side": stroke.side, "up": stroke.up, part: getattr(stroke, part) + by}
        if changed["side"] ** 2 + changed["up"] ** 2 < MISCUE_LIMIT**2:
            yield Change(name or _side_name(best, by), replace(stroke, **changed), hit)
    if best.contact is None and best.pot is None:
        way = 1.0 if hit >= 0.0 else -1.0
        if abs(hit) > THICKER / 2:
            yield Change("fuller", stroke, hit - way * min(THICKER, abs(hit)))
        if abs(hit) + THICKER < 1.0:
            yield Change("thinner", stroke, hit + way * THICKER)


def _side_name(best: Solution, by: float) -> str:
    """ "more running", "more reverse"; straight "more right", "more left"."""
    if best.rails and best.contact is None:
        return f"more {running(by, best.rails[0], best.direction)}"
    return "more right" if by > 0.0 else "more left"


def same_mark(field: Field, stroke: Stroke, best: Solution) -> Change | None:
    """Harder, with so much side that the mark stays; None where no side within the limits does it."""
    if not best.rails or best.contact is not None or best.pot is not None:
        return None
    harder = replace(stroke, speed=min(stroke.speed * MORE, FASTEST_MPS))
    held: Instead | Refusal = solve_instead(
        field.layout, best.rails, best.direction, harder, "side", best.target, best.hit
    )
    return Change("harder, same mark", held.stroke, best.hit) if isinstance(held, Instead) else None


def tried_out(
    field: Field, solved: list[tuple[Change, Aim | Refusal]], wish: Wish, drawn: Draws
) -> Steps[list[Variation]]:
    """The changes that have a line, played with the player's errors, in steps; the line as it is first."""
    known = [(change, found.best) for change, found in solved if isinstance(found, Aim)]
    aims = [bank_marked(field, aim_of(field, best, change.stroke)) for change, best in known]
    played: list[Chance] = yield from chances(field, aims, wish.player, drawn, wish.then.next or EASIEST)
    found: list[Variation] = []
    for (change, best), aim, chance in zip(known, aims, played, strict=True):
        shot = play(field.layout, change.stroke, aim.direction)
        after = after_of(field, Ranked(aim, chance), shot)
        first = found[0].after if found else after
        found.append(_variation(field, change, best, aim, chance, after, first, shot, wish))
        yield
    return found


def _variation(
    field: Field, change: Change, best: Solution, aim: Aimed, chance: Chance, after: After, first: After, shot: Shot,
    wish: Wish,
) -> Variation:  # fmt: skip
    table = field.layout.table
    moved = (after.rest.x - first.rest.x) * table.diamond_x, (after.rest.y - first.rest.y) * table.diamond_y
    called = stroke_name(aim.stretch.key, change.stroke, best.hit, shot)
    return Variation(change.name, called, change.stroke, best, chance.share(VERDICT[wish.goal]), after, moved)


def aim_of(field: Field, best: Solution, stroke: Stroke) -> Aimed:
    """A solved line as one that can be played with a player's errors."""
    kind = "bank" if best.contact is not None else "kick" if best.rails else "straight"
    pocket = best.pocket if best.pot is None else best.pot.pocket
    target = best.target if best.pot is None else best.pot.ball
    low, high = (float(np.nan_to_num(end, nan=best.direction)) for end in best.edges)
    key = Key(kind, target, best.rails, pocket)
    stretch = Stretch(key, Tried(stroke, None), low, high, (low, high), np.empty(0), np.empty(0), best.target)
    return Aimed(stretch, best.direction, mark_of(field, stretch, best.direction), 0.0)
