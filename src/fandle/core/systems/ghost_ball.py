"""M8, ghost ball and span: the mirror image found by hand, with fingers or cue.

Span the distance from the ghost ball's centre to the rail's edge, square to it; carry the same span beyond
the edge; sight from there to the cue ball and remember the mark the line crosses. The mirror lies in
the nose, so the hit is a little short. Common practice, no published source.
"""

import math
from dataclasses import dataclass, replace

from fandle.core import constants as k
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import inches
from fandle.core.shot.side import running
from fandle.core.systems.base import Count, Draft, RailNumber, View, figure
from fandle.core.systems.hands import HandStep, finger, ghost, on, remember, sight
from fandle.core.systems.hands import span as span_of
from fandle.core.systems.played import Aiming
from fandle.core.systems.taught import HALF_TIP, by_eye
from fandle.core.table.pocket import Point
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken

METHOD = "M8"
TITLE = "Ghost ball and span"
ORDERS = ((Rail.FAR,), (Rail.FOOT,))
LITTLE_FOLLOW = 0.1  # radii, of those who play it with running side and follow


@dataclass(frozen=True)
class Held:
    """The centre spanned from (diamonds), its distance from the rail's edge (m), and what that is held with.

    whose: "ghost", or "target" where the ghost ball would lie in the cushion; both centres lie on the last leg.
    """

    centre: Point
    span: float
    hand: str
    whose: str


def held(view: View, at: float) -> Held:
    """What the fingers hold for the mark at `at`: the ghost ball lies two radii short of the target on the last leg."""
    table, rail, target = view.layout.table, view.rail, view.target
    along_m, across_m = (table.diamond_x, table.diamond_y) if rail.is_long else (table.diamond_y, table.diamond_x)
    run_x, run_y = (view.along(target) - at) * along_m, view.off(target) * across_m
    back, whose = 2 * table.ball_radius / math.hypot(run_x, run_y), "ghost"
    if view.ghost:  # it is what is counted to
        back = 0.0
    elif run_y * (1 - back) < table.ball_radius:  # a ball on or near the rail, met from behind
        back, whose = 0.0, "target"
    span_m = run_y * (1 - back)
    hand = "finger and thumb"
    if span_m >= k.SPAN_M:  # out of the hand's reach
        hand = "finger and cue, its tip at the centre in the thumb's place and its shaft square to the rail,"
    off = view.off(target) * (1 - back)
    edge = rail.diamonds_across - off if rail.at_end else off
    return Held(rail.point(view.along(target) - run_x * back / along_m, edge), span_m, hand, whose)


def count(view: View) -> Draft | str:
    """The span to carry over the rail, and the mark to remember."""
    target, rail, ball = view.target, view.rail, spoken(view.target.id)
    if view.at_edge(target):
        return f"{ball} hangs over the edge of the {view.name(rail)} rail: there is no span to carry"
    at = view.mirror_mark()
    grip = held(view, at)
    span, hand = grip.span, grip.hand
    mark = figure(view.shown(rail, at))
    numbers = (
        RailNumber(rail, view.along(target), inches(span), "zero"),
        RailNumber(rail, at, mark, "aim"),
    )
    steps = (f"span {span * 1000:.0f} mm ({inches(span)})", f"mark = {mark}")
    say = (
        f"Set {hand} to {span * 1000:.0f} mm ({inches(span)}): from {_whose(grip, ball)} square to "
        f"the edge of the {view.name(rail)} rail. Carry that span beyond the edge, sight back to the cue ball, "
        f"and remember the mark {mark} the line crosses."
    )
    adjust = "The image in the edge is a ball too far away, so the hit comes a little short: thicker than it looks."
    return Draft(at, "nose", by_eye(view), numbers, steps, say, adjust)


def _whose(grip: Held, ball: str) -> str:
    """Whose centre is spanned from, in words."""
    return f"the ghost ball's centre before {ball}" if grip.whose == "ghost" else f"the centre of {ball}"


def _thought_of(grip: Held, ball: str) -> HandStep:
    """The first step: which centre is meant."""
    if grip.whose == "ghost":
        say = f"Think of the cue ball where it must be when it meets {ball}."
        return HandStep(say, "that ghost ball", (ghost(grip.centre),))
    say = f"No ghost ball fits between {ball} and the rail: span from the centre of {ball} itself."
    return HandStep(say, f"the centre of {ball}", (finger(grip.centre),))


def hands(view: View, draft: Draft) -> tuple[HandStep, ...]:
    """The span set before the rail, carried over it, sighted from and remembered."""
    rail, ball, first = view.rail, spoken(view.target.id), view.name(view.rail)
    grip = held(view, draft.at)
    place = rail.along(*grip.centre)
    off = rail.diamonds_across - rail.across(*grip.centre) if rail.at_end else rail.across(*grip.centre)
    edge, image, cue = on(view, place), on(view, place, off), (view.cue.x, view.cue.y)
    told = f"{grip.span * 1000:.0f} mm, {inches(grip.span)}"
    return (
        _thought_of(grip, ball),
        HandStep(
            f"Set {grip.hand} from its centre straight to the edge of the {first} rail: {told}.",
            "the span",
            (span_of(grip.centre, edge),),
        ),
        HandStep(
            "Carry the same span beyond the edge, still square to it.",
            "the far end",
            (span_of(edge, image), finger(image)),
        ),
        HandStep(
            f"Sight from there to the cue ball: the line crosses the edge of the {first} rail.",
            "",
            (sight(image, cue), finger(on(view, draft.at))),
        ),
        remember(view, draft.at),
    )


def contact_span(layout: Layout, found: Count, target: Ball) -> float:
    """Metres spanned by those who span from the spot where the balls touch: on the same last leg, so the mark stays."""
    table, rail = layout.table, found.rails[0]
    along, across = (table.diamond_x, table.diamond_y) if rail.is_long else (table.diamond_y, table.diamond_x)
    edge = rail.diamonds_across if rail.at_end else 0.0
    aside = (rail.along(target.x, target.y) - getattr(found.aim, found.frame)) * along
    off = abs(rail.across(target.x, target.y) - edge) * across
    return off * (1.0 - table.ball_radius / math.hypot(aside, off))


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust, with the other span and the other stroke, and where that lands."""
    side = HALF_TIP if running(HALF_TIP, found.rails[0], found.direction) == "running" else -HALF_TIP
    spun = replace(found.stroke, side=side, up=LITTLE_FOLLOW)
    aiming = Aiming(layout, found.rails, found.frame, spun, (target.x, target.y))
    lands = aiming.play(getattr(found.aim, found.frame))[2]
    where = "does not arrive" if lands is None else f"lands {lands.where}"
    deep = contact_span(layout, found, target) * 1000
    return (
        f"{found.adjust} Some span from the spot where the balls touch, {deep:.0f} mm, and come to the same mark. "
        f"Played plain it lands {found.lands.where}; with half a tip of running side and a little follow, as others "
        f"play it, it {where}."
    )
