"""Rails, jaws and fall lines, against shapely and against facts every player knows."""

import math
import random

import numpy as np
import pytest
from campaign.audit import POOL, Raw, raw, struck
from shapely import LineString, Point, Polygon, unary_union

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics import bed, slots
from fandle.core.physics.state import EV_JAW, EV_POCKET, EV_RAIL, EVENT
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.pocket import POCKET_NAMES, mouths, noses

R = POOL.ball_radius
DEEP = 0.3  # m: how far the cushions of the check reach behind the noses
MOUTHS = {mouth.name: mouth for mouth in mouths(POOL)}


def cushions() -> Polygon:
    """The rubber, built by shapely: each nose with its two facings, then its points rounded.

    Rounding a corner: shrink by the point's radius, then grow by it.
    """
    pieces = []
    jaws = {jaw.start: jaw for mouth in mouths(POOL) for jaw in mouth.jaws(POOL)}
    for rail, a, b in noses(POOL):
        out = {"near": (0, -1), "far": (0, 1), "head": (-1, 0), "foot": (1, 0)}[rail.value]
        corners = [a, b]
        for end in (b, a):
            jaw = min(jaws.values(), key=lambda j: math.hypot(j.start[0] - end[0], j.start[1] - end[1]))
            deep = DEEP / abs(jaw.along[0] * out[0] + jaw.along[1] * out[1])
            corners.append((end[0] + jaw.along[0] * deep, end[1] + jaw.along[1] * deep))
        radius = POOL.pockets.corner_point_radius if POOL.pockets else 0.0
        pieces.append(Polygon(corners).buffer(-radius, quad_segs=64).buffer(radius, quad_segs=256))
    return unary_union(pieces)


RUBBER = cushions()


def distances(played: Raw) -> tuple[float, float]:
    """(least distance of the path's sampled centres from the rubber, worst error of it at a contact)."""
    least, worst = math.inf, 0.0
    for q in played.pieces:
        t = np.linspace(0, q[1], 12)[:, None]
        track = q[2:4] + t * (q[4:6] + 0.5 * t * q[6:8])
        least = min(least, *(RUBBER.distance(Point(*xy)) for xy in track))
    for row in played.events:
        if row[0] in (EV_JAW, EV_RAIL):
            worst = max(worst, abs(RUBBER.distance(Point(*row[3:5])) - R))
    return least, worst


def at_pocket(rng: random.Random, name: str) -> tuple[np.ndarray, float]:
    """A ball somewhere on the bed and a direction at a pocket, within a mouth's width of its middle."""
    mouth = MOUTHS[name]
    place = np.array([[rng.uniform(0.3, POOL.length - 0.3), rng.uniform(0.2, POOL.width - 0.2)]])
    aside = rng.uniform(-0.07, 0.07)
    x = mouth.middle[0] - mouth.axis[1] * aside - place[0, 0]
    y = mouth.middle[1] + mouth.axis[0] * aside - place[0, 1]
    return place, math.atan2(y, x)


@pytest.mark.parametrize("name", POCKET_NAMES)
def test_jaws_are_met_where_the_rubber_is(name: str) -> None:
    """No centre nearer to shapely's rubber than a radius, every contact exactly there (0.01 mm)."""
    rng = random.Random(name)
    jaws = 0
    for _ in range(40):
        place, direction = at_pocket(rng, name)
        played = raw(place, struck(Stroke(rng.uniform(0.5, 8.0), rng.uniform(-0.4, 0.4)), direction))
        least, worst = distances(played)
        assert least > R - 1e-5
        assert worst < 1e-5
        jaws += int((played.events[:, EVENT.kind] == EV_JAW).sum())
        for row in played.events[played.events[:, EVENT.kind] == EV_POCKET]:
            mouth = MOUTHS[POCKET_NAMES[int(row[2])]]
            beyond = (row[3:5] - mouth.fall) @ mouth.axis
            assert beyond == pytest.approx(0.0, abs=1e-9)
            assert LineString([mouth.first, mouth.second]).distance(Point(*row[3:5])) < 0.06
    assert jaws > 10


def test_cut_angles_and_mouths_are_the_published_ones() -> None:
    """WPA (from memory): mouths 4 9/16 and 5 1/16 in, facings at 142° and 104° to the noses."""
    for mouth in mouths(POOL):
        side = mouth.name.startswith("side")
        assert math.dist(mouth.first, mouth.second) == pytest.approx((5.0625 if side else 4.5625) * 0.0254)
        for jaw, point in zip(mouth.jaws(POOL), (mouth.first, mouth.second), strict=True):
            nose = min((n for n in noses(POOL)), key=lambda n: min(math.dist(n[1], point), math.dist(n[2], point)))
            far_end = nose[1] if math.dist(nose[2], point) < math.dist(nose[1], point) else nose[2]
            a = (np.array(far_end) - point) / math.dist(far_end, point)
            assert math.degrees(math.acos(float(a @ jaw.along))) == pytest.approx(104 if side else 142)
            # tangent to nose and facing, and a facing's normal points into the rubber
            assert RUBBER.exterior.distance(Point(*jaw.start)) if hasattr(RUBBER, "exterior") else True
            assert Point(*(np.array(jaw.start) + 0.01 * np.array(jaw.normal))).within(RUBBER)
            assert math.dist(jaw.centre, jaw.start) == pytest.approx(jaw.radius)


def window_mm(start: tuple[float, float], pocket: str, speed: float) -> float:
    """How wide, across the line, a ball may be sent and still drop without a rail first."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", *start),))
    x, y = layout.metres(layout.cue)
    mx, my = MOUTHS[pocket].middle
    straight, away = math.atan2(my - y, mx - x), math.dist((x, y), (mx, my))
    spread = np.linspace(-0.08, 0.08, 321) / away
    down = 0
    for d in spread:
        events = play(layout, Stroke(speed), straight + d).events
        first = next(ev for ev in events if ev.kind != "jaw")
        down += first.kind == "pocket" and first.pocket == pocket
    return float(down * 0.16 / 320 * 1000)


def test_a_pocket_narrows_for_fast_and_for_angled_balls() -> None:
    """Common practice, no published source: out of the jaws' geometry alone."""
    straight, angled = (6.0, 2.0), (4.8, 3.7)
    slow, fast = window_mm(straight, "foot-far", 0.8), window_mm(straight, "foot-far", 7.0)
    assert slow > fast + 2
    along_slow, along_fast = window_mm(angled, "foot-far", 0.8), window_mm(angled, "foot-far", 7.0)
    assert along_slow > along_fast + 10
    assert fast > along_fast + 20
    assert window_mm((4.0, 1.5), "side-far", 3.0) > window_mm((2.0, 2.0), "side-far", 3.0) + 20


def test_a_rattle_is_more_than_one_jaw() -> None:
    """Sent fast along the rail at a corner, some balls hit both jaws and stay out."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", 4.8, 3.75),))
    rattles = 0
    for aim in np.linspace(7.3, 8.0, 141):
        direction = math.atan2((4.0 - 3.75) * POOL.diamond_y, (aim - 4.8) * POOL.diamond_x)
        shot = play(layout, Stroke(6.0), direction)
        kinds = [ev.kind for ev in shot.events[:3]]
        rattles += kinds.count("jaw") >= 2 and not shot.potted
    assert rattles > 0


def test_a_ball_resting_in_front_of_a_jaw_or_rolling_by_is_left_alone() -> None:
    """Along the rail, frozen to it, past the side pocket and over the corner's mouth."""
    layout = Layout(POOL, "nine-ball", (Ball("cue", 1.0, R / POOL.diamond_y),))
    shot = play(layout, Stroke(3.0), 0.0)
    assert shot.potted == (("cue", "foot-near"),) or shot.events[0].kind in ("rail", "jaw")
    assert shot.events[0].x > 7.0


def test_contact_numbers_fit_the_pockets() -> None:
    p = POOL.params()
    for k, mouth in enumerate(mouths(POOL)):
        assert bed.pocket_near(*mouth.fall, p) == k
        at = slots.POCKET * k
        assert p[at : at + 4] == pytest.approx([*mouth.fall, *mouth.axis])
    assert bed.in_mouth(bed.NEAR, POOL.length / 2, R, p)
    assert not bed.in_mouth(bed.NEAR, POOL.length / 4, R, p)
    assert p.size == slots.FIRST_SLOT + len(slots.SLOTS)
