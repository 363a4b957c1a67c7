"""Banks by M3's natural pairs: the object ball over one rail into a pocket.

Long counts n on the pocket's side pair with n/2 on the aim rail, zero at the pocket. The pair nearest to
the object ball is shifted parallel until it passes through the ball's centre; that gives both contact
points, on the ball and on the rail. Shifted by s the line comes back s beside the pocket, so the shift must
be small. The cue ball is looked at only then. Common practice, no published source.
"""

import math
from dataclasses import replace

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import clear
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to, marks
from fandle.core.lines.remembered import remember
from fandle.core.lines.solution import ObjectContact
from fandle.core.shot.approach import Approach
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.shot.play import object_run, play
from fandle.core.shot.stroke import Stroke
from fandle.core.systems import halving
from fandle.core.systems.base import Count, NoCount, Own, View, added, figure, halved
from fandle.core.systems.own import own_in_words
from fandle.core.systems.played import FROZEN, astray, landing
from fandle.core.systems.symmetry import Turn
from fandle.core.systems.taught import paced
from fandle.core.table.pocket import POCKET_NAMES, Mouth, mouths
from fandle.core.table.rails import Rail, rails_name
from fandle.core.table.speeds import lengths_of, speed_of
from fandle.core.words.balls import CUE, spoken

MOST_CUT = 75.0  # degrees: thinner, the cue ball hardly moves the object ball
HARDEST = 4.0  # lengths: harder no bank is aimed
FIRMER = 0.25  # lengths more than a kick of the same count: the object ball leaves a little slower than it is met


def bank_count(
    layout: Layout,
    rails: tuple[Rail, ...] | None = None,
    target: str | None = None,
    pocket: str | None = None,
    cue: Cue = IDEAL,
) -> Count | NoCount:
    """A bank counted, over `rails` (None: any one) into `pocket` (None: any); the one that lands best."""
    layout = layout.settled()
    ball = layout.require_target(target)
    if pocket is not None and pocket not in POCKET_NAMES:
        raise BadInputError(
            f"unknown pocket {pocket!r}: use one of {', '.join(POCKET_NAMES)}", "pocket", code="unknown"
        )
    if not mouths(layout.table):
        return NoCount(halving.METHOD, halving.TITLE, rails or (), "the table has no pockets: nothing can be banked")
    if rails is not None and len(rails) != 1:
        return NoCount(
            halving.METHOD, halving.TITLE, rails, f"its pairs go over one rail, not over {rails_name(rails)}"
        )
    tried = [
        _over(layout, rail, ball, mouth, cue)
        for rail in (rails or tuple(Rail))
        for mouth in mouths(layout.table)
        if pocket in (None, mouth.name) and _lies_opposite(rail, mouth)
    ]
    good = [c for c in tried if isinstance(c, Count)]
    if good:
        return min(good, key=lambda c: (not c.open, c.lands.off_balls))
    why = "; ".join(f"{rails_name(c.rails)}: {c.reason}" for c in tried if isinstance(c, NoCount))
    nowhere = f"no pair over the {rails_name(rails)} rail ends in {pocket}" if rails else f"no pair ends in {pocket}"
    return NoCount(halving.METHOD, halving.TITLE, rails or (), why or nowhere)


def _zero(rail: Rail, mouth: Mouth) -> float:
    """A pocket's place along the rail it is counted on: the corner of the noses, or a side's middle."""
    first, second = mouth.name.split("-")
    if rail.is_long:
        return rail.diamonds * {"head": 0.0, "side": 0.5, "foot": 1.0}[first]
    return float(rail.diamonds) if second == "far" else 0.0


def _lies_opposite(rail: Rail, mouth: Mouth) -> bool:
    first, second = mouth.name.split("-")
    return (second if rail.is_long else first) not in (rail.value, "side")


def _over(layout: Layout, rail: Rail, ball: Ball, mouth: Mouth, held: Cue) -> Count | NoCount:
    """The pair for one rail and pocket, played."""
    view = View(layout, (rail,), ball, Turn())
    table, name, rails = layout.table, spoken(ball.id), (rail,)
    found = _pair(view, mouth)
    if isinstance(found, str):
        return NoCount(halving.METHOD, halving.TITLE, rails, f"into {mouth.name}, {found}")
    n, shift, way = found
    zero = _zero(rail, mouth)
    at = zero + way * (n / 2 + shift)
    start, cue, reach = layout.metres(ball), layout.metres(layout.cue), 2 * table.ball_radius
    direction = direction_to(table, rail, start, at, halving.FRAME)
    ghost = start[0] - reach * math.cos(direction), start[1] - reach * math.sin(direction)
    line = math.atan2(ghost[1] - cue[1], ghost[0] - cue[0])
    cut = abs(math.degrees(math.remainder(direction - line, 2 * math.pi)))
    # cut, the object ball gets the cosine's share of the speed, so the stroke is that much firmer
    firm = speed_of(table, halving.lengths_for(n) + FIRMER) / math.cos(math.radians(min(cut, MOST_CUT)))
    stroke = Stroke(min(firm, paced(table, HARDEST).speed), cue=held)
    shot = play(clear(replace(layout, target=ball.id)), stroke, line)
    run, potted = object_run(shot, ball.id, 2), (ball.id, mouth.name) in shot.potted
    middle = mouth.middle[0] / table.diamond_x, mouth.middle[1] / table.diamond_y
    lands = landing(layout, rails, middle, run, arrived=potted or _at(run, mouth))
    if cut > MOST_CUT or lands is None:
        told = astray(run, rails, f"the {mouth.name} pocket").replace("the ball", name, 1)
        thin = f"{name} would have to be cut {cut:.0f}°: the cue ball lies on the wrong side of it"
        why = thin if cut > MOST_CUT else f"shooting {figure(at)}, {told}"
        return NoCount(halving.METHOD, halving.TITLE, rails, f"into {mouth.name}, {why}")
    first = next((event.other for event in shot.events if event.kind == "ball" and event.ball == CUE), None)
    lands = replace(lands, hits=first == ball.id, pots=mouth.name if potted else None)
    steps, say = _told(view, mouth, n, shift, cut)
    own = Own(n / 2 + shift, way)
    blocked = _blocker(layout, stroke, line, ball.id)
    return Count(
        halving.METHOD, halving.TITLE, rails, halving.numbers_of(view, zero, way, n, shift, at), steps, say,
        _adjust(shift), halving.FRAME,
        marks(table, rail, start, direction), line, stroke, lengths_of(table, stroke.speed), lands, run,
        remember(table, rail, at), own, own_in_words(own, table, rail),
        blocked=blocked, open=not blocked, pocket=mouth.name, potted=potted,
        contact=ObjectContact(cut, (ghost[0] / table.diamond_x, ghost[1] / table.diamond_y)),
    )  # fmt: skip


def _pair(view: View, mouth: Mouth) -> tuple[float, float, float] | str:
    """(number, shift, ±1: to which side of the pocket it counts) of the pair nearest to the object ball."""
    rail, name = view.rail, spoken(view.target.id)
    zero = _zero(rail, mouth)
    aside, share = view.along(view.target) - zero, view.off(view.target) / rail.diamonds_across
    if abs(aside) < halving.LEAST:
        return f"{name} lies straight opposite: there is nothing to count"
    if view.off(view.target) <= view.radius + FROZEN:
        return f"{name} lies against the {rail} rail"
    way = math.copysign(1.0, aside)
    n = halving.nearest_pair(abs(aside), share, zero if way < 0 else view.whole - zero)
    shift = abs(aside) - halving.level_at(n, share)
    if n == 0.0 or n / 2 + shift <= 0.0 or abs(shift) > halving.NO_PAIR:
        return f"no natural pair passes near {name}"
    at = zero + way * (n / 2 + shift)
    return (n, shift, way) if 0.0 <= at <= rail.diamonds else f"the shifted line leads off the rail, to {figure(at)}"


def _at(run: Approach, mouth: Mouth) -> bool:
    """Whether a ball's way ends at the pocket, even if only at its jaws."""
    return bool(run.events) and run.events[-1].pocket == mouth.name


def _blocker(layout: Layout, stroke: Stroke, line: float, ball: str) -> str:
    """What stands in the bank's way when all balls lie there."""
    shot = play(layout, stroke, line)
    if shot.first_ball not in (None, ball):
        return f"{spoken(shot.first_ball or '')} is in the way of the cue ball"
    for ev in shot.events:
        if ev.kind == "ball" and ball in (ev.ball, ev.other):
            other = ev.other if ev.ball == ball else ev.ball
            if other is not None and other != layout.cue.id:
                return f"{spoken(other)} is in the way of {spoken(ball)}"
    return ""


def _told(view: View, mouth: Mouth, n: float, shift: float, cut: float) -> tuple[tuple[str, ...], str]:
    ball, rail, marks_word = spoken(view.target.id), view.name(view.rail), view.layout.table.marks
    steps = [halved(n)]
    say = f"Of the natural pairs that end in {mouth.name}, {figure(n)} to {figure(n / 2)} passes nearest to {ball}"
    if abs(shift) < halving.NO_SHIFT:
        say += ", right through it"
    else:
        steps.append(added(n / 2, shift))
        say += f"; shift it {figure(abs(shift))} {marks_word} parallel, through the middle of {ball}"
    say += (
        f": {ball} goes to {figure(n / 2 + shift)} from the pocket on the {rail} rail. Only now look at the cue ball: "
        f"a cut of {cut:.0f}°."
    )
    if abs(shift) > halving.FAR_SHIFT:
        say += " That is a long shift: expect to miss."
    return tuple(steps), say


def _adjust(shift: float) -> str:
    if abs(shift) < halving.NO_SHIFT:
        return "Hit hard it comes short: then thin it a little. The throw of a cut shortens or lengthens it as well."
    return (
        f"Shifted {figure(abs(shift))} the line comes back {figure(abs(shift))} beside the pocket's middle: aim "
        "about half of that back towards the natural mark."
    )
