"""Every system: worked examples, the four symmetries, exactness, landings at its own stroke.

Worked examples and landings: common practice, no published source.
"""

import itertools
import re
from collections import Counter
from dataclasses import replace

import pytest
from tests.conftest import all_counts

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing
from fandle.core.lines.mirror import natural_direction
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.play import play
from fandle.core.systems import equal_count_further, product
from fandle.core.systems.base import Count, Draft, NoCount, View, figure
from fandle.core.systems.catalogue import METHODS, orders_of, systems_over
from fandle.core.systems.reference_lines import reference_marks
from fandle.core.systems.registry import best_count, count
from fandle.core.systems.spread import spread
from fandle.core.systems.symmetry import Turn, turn_to
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import speed_of
from fandle.core.table.standards import standard_table, usual_game

POOL, CAROM = standard_table("pool-9ft"), standard_table("carom-10ft")
FAR, FOOT, NEAR, HEAD = Rail.FAR, Rail.FOOT, Rail.NEAR, Rail.HEAD
SIGHT_Y = 4 + (POOL.sight_setback or 0) / POOL.diamond_y
Place = tuple[float, float]
EXACT_CUES = ((1.0, 0.6), (2.3, 1.7), (0.7, 2.2))
EXACT_TARGETS = ((5.2, 1.1), (6.4, 2.4), (5.0, 0.4))


def lay(cue: Place, target: Place, table: Table = POOL) -> Layout:
    name = "red" if usual_game(table) == "three-cushion" else "7"
    return Layout(table, usual_game(table), (Ball("cue", *cue), Ball(name, *target)), name)


def counted(method: str, rails: tuple[Rail, ...], cue: Place, target: Place, table: Table = POOL) -> Count:
    found = count(method, lay(cue, target, table), rails)
    assert isinstance(found, Count), found
    return found


def between(a: Place, b: Place, share: float) -> Place:
    return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])


# a layout on which each system counts
SAMPLES: dict[str, tuple[tuple[Rail, ...], Place, Place]] = {
    "M1": ((FAR,), (1.3, 1.2), (5.4, 1.6)),
    "M2": ((FAR,), (1.3, 1.2), (5.4, 1.25)),
    "M3": ((FAR,), (1.3, 1.2), (5.4, 1.6)),
    "M4": ((FAR,), (1.6, 0.6), (4.0, 0.12)),
    "M5": ((FOOT,), (0.5, 0.6), (0.6, 2.9)),
    "M6": ((FAR,), (1.3, 1.2), (5.4, 0.4)),
    "M7": ((FAR,), (0.8, 0.6), (5.4, 0.5)),
    "M8": ((FAR,), (1.3, 1.2), (5.4, 1.6)),
    "M9": ((FAR,), (1.3, 0.3), (5.4, 1.6)),
    "M10": ((FAR, FOOT), (2.0, 0.8), (6.4, 0.7)),
    "M11": ((FOOT, FAR), (6.0, 0.12), (1.2, 0.12)),
    "M12": ((FAR, FOOT), (2.0, 0.8), (6.4, 0.7)),
    "M13": ((FAR, NEAR), (1.0, 1.0), (4.4, 2.2)),
    "M15": ((FAR, FOOT, NEAR), (1.0, 0.3), (5.6, 0.12)),
    "M14": ((FAR, FOOT, NEAR), (1.0, 0.3), (5.6, 0.12)),
    "M16": ((FAR, FOOT, NEAR), (0.4, 0.5), (1.2, 3.88)),
    "M17": ((FOOT, FAR, NEAR), (6.0, 0.12), (0.12, 1.1)),
    "M19": ((FOOT, FAR, HEAD, NEAR), (2.0, 1.5), (2.0, 1.0)),
    "M18": ((FOOT, FAR, HEAD), (2.0, 0.3), (0.12, 1.6)),
}
TURNS = [Turn(False, False), Turn(True, False), Turn(False, True), Turn(True, True)]


def test_every_system_has_a_sample() -> None:
    assert SAMPLES.keys() == METHODS.keys()


@pytest.mark.parametrize("turn", TURNS, ids=str)
@pytest.mark.parametrize("method", METHODS)
def test_counts_turn_with_the_table(method: str, turn: Turn) -> None:
    """Marks agree to 1e-9; side changes its hand in a mirror and keeps it in a half turn."""
    rails, cue, target = SAMPLES[method]
    a = counted(method, rails, cue, target)
    turned = tuple(turn.rail(rail) for rail in rails)
    b = counted(method, turned, turn.point(*cue), turn.point(*target))
    assert b.aim.nose == pytest.approx(turn.at(rails[0], a.aim.nose), abs=1e-9)
    assert b.stroke.side == turn.hand * a.stroke.side
    assert b.lands.off_diamonds == pytest.approx(a.lands.off_diamonds, abs=1e-6)
    assert b.lands.side == a.lands.side
    mirrored = {"left": "right", "right": "left", "full": "full"}
    assert b.lands.met == (a.lands.met if turn.hand > 0 else mirrored[a.lands.met])
    assert len(b.numbers) == len(a.numbers)
    for one, other in zip(a.numbers, b.numbers, strict=True):
        assert (other.rail, other.at) == (turn.rail(one.rail), pytest.approx(turn.at(one.rail, one.at), abs=1e-9))
    assert f"{turned[0]} rail" in b.say or method in (
        "M7",
        "M17",
        "M19",
    )  # M7 names its three marks, M19 all rails at once


@pytest.mark.parametrize("n", [20, 24, 25, 27, 30, 54, 55, 60])
def test_m4_tracks_in_tens(n: float) -> None:
    """20→10, 24→12, 25→12½, 27→13½, 30→15, 54→27, 55→27½, 60→30: sighted at both ends, the track is found."""
    back = SIGHT_Y - 4
    start = (4 - n / 10, -back) if n <= 40 else (-back, n / 10 - 4)
    cue = between(start, (4 - n / 20, SIGHT_Y), 0.35)
    found = counted("M4", (FAR,), cue, (4.0, 0.12))
    assert found.aim.sight == pytest.approx(4 - n / 20, abs=1e-9)
    assert found.steps == (f"{n:g} ÷ 2 = {n / 2:g}",)
    assert found.stroke.side == (0.0875 if n >= 54 else 0.0)
    assert found.stroke.speed == 2.5
    assert found.lands.off_diamonds < 0.15 or n > 54  # 60 comes half a diamond short


@pytest.mark.parametrize(
    ("begin", "end", "mark"), [(5, 35, 20), (5, 30, 17.5), (5, 20, 12.5), (3, 10, 6.5), (10, 38, 24), (20, 38, 29)]
)
def test_m5_add_and_halve(begin: float, end: float, mark: float) -> None:
    """(from + to) ÷ 2, as 20+30→25; both read where the ways cross the shooter's rail, from the corner that keeps them
    small."""
    cue = between((0.0, begin / 10), (8.0, mark / 10), 0.07)
    target = between((0.0, end / 10), (8.0, mark / 10), 0.06)
    found = counted("M5", (FOOT,), cue, target)
    assert found.aim.sight == pytest.approx(mark / 10, abs=1e-9)
    a, b = (40 - begin, 40 - end) if begin + end > 40 else (begin, end)
    assert found.steps == (f"{a:g} + {b:g} = {a + b:g}", f"{a + b:g} ÷ 2 = {(a + b) / 2:g}")


@pytest.mark.parametrize("n", [3.0, 5.0])
def test_m11_equal_count(n: float) -> None:
    """5→5, 3→3 in half diamonds from the corner away from the cue ball's rail; moved by what the ball lies off it."""
    found = counted("M11", (FOOT, FAR), (1.5 + n, 0.1), (1.5, 0.1))
    assert found.aim.sight == pytest.approx(4 - (n - 1) / 2 + 0.1 - POOL.ball_radius / POOL.diamond_y, abs=1e-9)
    assert found.stroke.side == -0.27  # left is running off foot towards far


@pytest.mark.parametrize(
    ("number", "third", "first"), [(50, 20, 30), (50, 30, 20), (45, 25, 20), (40, 20, 20), (70, 30, 40)]
)
def test_m14_corner_numbers(number: float, third: float, first: float) -> None:
    """50 − 30 = 20: first = cue − third, sighted on far, ten a diamond from the foot end."""
    start = ((50 - number) / 5, 0.0) if number <= 50 else (0.0, (number - 50) / 10)
    cue = between(start, (8 - first / 10, SIGHT_Y), 0.12)
    found = counted("M14", (FAR, FOOT, NEAR), cue, (8 - third / 10, 0.12))
    assert found.steps == (f"{number:g} − {third:g} = {first:g}",)
    assert found.aim.sight == pytest.approx(8 - first / 10, abs=1e-9)
    assert (found.stroke.side, found.stroke.up) == (0.4, 0.2)


@pytest.mark.parametrize(("number", "score", "tenths"), [(2, 2, 4), (4, 6, 24), (3, 4, 12), (4.5, 6, 27), (5, 7.6, 38)])
def test_m18_products(number: float, score: float, tenths: float) -> None:
    """2 × 2 = 4, and so on to 5 × 8, the whole rail: tenths of a diamond, from the corner with the cue ball's long rail: the sum itself."""
    sight_x = 8 + (CAROM.sight_setback or 0) / CAROM.diamond_x
    cue = between((2 * (5 - number), 0.0), (sight_x, tenths / 10), 0.3)
    layout = lay(cue, (0.12, 4 - score / 2), CAROM)
    draft = product.count(View(layout, (FOOT, FAR, HEAD), layout.ball("red"), Turn()))
    assert isinstance(draft, Draft)
    assert draft.at == pytest.approx(tenths / 10, abs=1e-9)
    assert draft.steps[0] == f"{number:g} × {score:g} = {tenths:g}"
    labels = {n.role: n.label for n in draft.numbers if n.role != "scale"}
    assert labels == {"zero": f"{score:g}", "cue": f"{number:g}", "aim": f"{tenths:g}"}


def test_m18_writes_its_numbers_as_a_player_does() -> None:
    """One decimal at the cue ball and the scoring rail, whole tenths at the aim."""
    layout = lay((2.13, 0.31), (0.12, 1.63), CAROM)
    draft = product.count(View(layout, (FOOT, FAR, HEAD), layout.ball("red"), Turn()))
    assert isinstance(draft, Draft)
    labels = {n.role: n.label for n in draft.numbers if n.role != "scale"}
    assert len(labels["cue"].partition(".")[2]) <= 1
    assert len(labels["zero"].partition(".")[2]) <= 1
    assert labels["aim"].isdigit()


@pytest.mark.parametrize(
    ("y", "applies"), [(equal_count_further.LANDINGS[0] - 0.3, True), (0.249, False), (2.8, True), (2.801, False)]
)
def test_m17_counts_up_to_three_tenths_beyond_its_table(y: float, applies: bool) -> None:
    layout = lay((6.0, 0.12), (0.12, y))
    draft = equal_count_further.count(View(layout, (FOOT, FAR, NEAR), layout.ball("7"), Turn()))
    assert isinstance(draft, Draft) == applies, draft


def test_exact_where_the_trade_says_exact() -> None:
    """M6 and M10 in the centre frame, M1 and M8 in the nose frame, M7 there at equal distance: the mirror, to 1e-9.

    Every system must count on most of the layouts, or nothing was checked.
    """
    applied: Counter[str] = Counter()

    def exact(method: str, layout: Layout, rails: tuple[Rail, ...], frame: str, expected: float) -> None:
        found = count(method, layout, rails)
        if isinstance(found, Count):
            assert getattr(found.aim, frame) == pytest.approx(expected, abs=1e-9), (method, rails, layout.balls)
            assert method != "M12" or len(found.numbers) == len(found.steps) == len(rails)
            applied[f"{method} {len(rails)}"] += 1

    for cue, target in itertools.product(EXACT_CUES, EXACT_TARGETS):
        layout = lay(cue, target)
        start, goal = layout.metres(layout.cue), layout.metres(layout.ball("7"))

        def mirror(rails: tuple[Rail, ...], inset: float, start: Place = start, goal: Place = goal) -> float:
            direction = natural_direction(POOL, rails, start, goal, inset)
            assert direction is not None
            return crossing(POOL, rails[0], start, direction, inset)

        for method in ("M1", "M8", "M9"):
            exact(method, layout, (FAR,), "nose", mirror((FAR,), 0.0))
        exact("M6", layout, (FAR,), "centre", mirror((FAR,), POOL.ball_radius))
        for rails in ((FAR, FOOT), (FOOT, FAR)):
            exact("M10", layout, rails, "centre", mirror(rails, POOL.ball_radius))
        ways: tuple[tuple[Rail, ...], ...] = ((FAR,), (FAR, FOOT), (FAR, NEAR), (FOOT, FAR, HEAD))
        for way in ways:
            exact("M12", layout, way, "centre", mirror(way, POOL.ball_radius))
        exact("M7", lay(cue, (target[0], cue[1])), (FAR,), "nose", (cue[0] + target[0]) / 2)
    layouts = len(EXACT_CUES) * len(EXACT_TARGETS)
    for method in ("M1 1", "M6 1", "M8 1", "M9 1", "M7 1", "M10 2", "M12 1", "M12 2"):
        assert applied[method] >= 0.6 * layouts, applied


def landings(
    method: str, rails: tuple[Rail, ...], places: list[tuple[Place, Place]], table: Table = POOL
) -> list[float]:
    """Diamonds off of those that apply; most must."""
    found = [count(method, lay(cue, target, table), rails) for cue, target in places]
    lands = [c.lands.off_diamonds for c in found if isinstance(c, Count)]
    assert len(lands) >= 0.7 * len(places), [c.reason for c in found if isinstance(c, NoCount)]
    return lands


def test_m4_lands_within_three_quarters() -> None:
    places = [((4 - n / 10, y), (4.0, 0.12)) for n in (20, 25, 30, 35) for y in (0.09, 0.3)]
    places += [((x, n / 10 - 4), (4.0, 0.12)) for n in (45, 50, 55) for x in (0.1, 0.25)]
    assert max(landings("M4", (FAR,), places)) <= 0.75


def test_m5_lands_within_three_quarters() -> None:
    places = [((0.15, a / 10), (0.15, b / 10)) for a in (5, 15, 25, 35) for b in (5, 15, 25, 35) if a != b]
    assert max(landings("M5", (FOOT,), places)) <= 0.75


def test_m10_lands_within_a_diamond_medium_soft_with_half_a_tip_at_most() -> None:
    """Its core range: the first rail met at 30 to 70°."""
    starts = [(x, y) for x in (1.5, 2.5, 3.5) for y in (0.4, 1.2, 2.0)]
    ends = [(x, y) for x in (5.0, 6.0, 7.0) for y in (0.4, 1.2, 2.0)]
    for rails, places in (
        ((FAR, FOOT), [(cue, target) for cue in starts for target in ends]),
        ((FOOT, FAR), [(cue, target) for cue in starts for target in starts if cue != target]),
    ):
        found = [count("M10", lay(cue, target), rails) for cue, target in places]
        met = [c for c in found if isinstance(c, Count)]
        core = [c for c in met if 30 <= (c.shot.events[0].in_deg or 0.0) <= 70]
        assert len(core) >= 25
        off = sorted(c.lands.off_diamonds for c in core)
        assert off[len(off) // 2] <= 0.45
        assert off[int(0.95 * len(off))] <= 1.0
        running = [c.stroke.side * (1 if rails[0] is FAR else -1) for c in core]
        assert 0.0 <= min(running) < max(running) <= 0.175
        assert all(c.lengths <= 2.5 for c in core)


def test_m10_over_one_rail_finds_a_ball_on_the_second() -> None:
    """From (1.5, 1.2) over far at the 7 on the foot rail, and turned: the same parallel, plain. Medium soft it comes long
    here, as every flat line does; played at the pace that is told, it hits."""
    for turn in TURNS:
        rails = (turn.rail(FAR),)
        layout = lay(turn.point(1.5, 1.2), turn.point(7.9, 2.2))
        found = counted("M10", rails, turn.point(1.5, 1.2), turn.point(7.9, 2.2))
        assert found.stroke.side == 0.0
        assert found.lengths == pytest.approx(2.25, abs=0.01)
        mirrored = counted("M6", rails, turn.point(1.5, 1.2), turn.point(7.9, 2.2)).aim.centre
        assert found.aim.centre == pytest.approx(mirrored, abs=0.1)  # the ball does not quite lie where foot is met
        told = re.search(r"it takes (\d)([¼½¾]?) lengths", found.adjust)
        assert told is not None
        lengths = int(told[1]) + {"": 0.0, "¼": 0.25, "½": 0.5, "¾": 0.75}[told[2]]
        firmer = replace(found.stroke, speed=speed_of(POOL, lengths))
        assert play(layout, firmer, found.direction).first_ball == "7"
    off_the_rail = count("M10", lay((1.5, 1.2), (6.5, 2.2)), (FAR,))
    assert isinstance(off_the_rail, NoCount)
    assert "must lie on the foot rail" in off_the_rail.reason
    near_it = counted("M10", (FAR,), (4.5, 1.2), (7.7, 2.6))
    assert near_it.lands.hits


def test_m10_tells_how_its_variant_does() -> None:
    """The corner pocket itself, half a tip: in the noses the same half turn, so the mirror in the noses (geometry)."""
    told_of = 0
    for rails in ((FAR, FOOT), (FOOT, FAR), (NEAR, HEAD), (HEAD, FAR)):
        turn = next(t for t in TURNS if tuple(t.rail(r) for r in rails) in ((FAR, FOOT), (FOOT, FAR)))
        cue, target = turn.point(2.0, 0.8), turn.point(6.4, 0.7)
        layout = lay(cue, target)
        found = count("M10", layout, rails)
        if not isinstance(found, Count):
            continue
        told_of += 1
        direction = natural_direction(POOL, rails, layout.metres(layout.cue), layout.metres(layout.ball("7")), 0.0)
        assert direction is not None
        told = float(found.adjust.partition("shoots ")[2].split()[0])
        assert told == pytest.approx(
            crossing(POOL, rails[0], layout.metres(layout.cue), direction, POOL.ball_radius), abs=0.0051
        )
        assert found.adjust.endswith((" short.", " long.", " on."))
    assert told_of >= 2


def test_m15_tells_how_well_the_lines_meet() -> None:
    """The lines of neighbouring starts pass within a hand of the spot; what a slick table does to them is told."""
    found = counted("M15", (FAR, FOOT, NEAR), (2.0, 0.1), (5.6, 0.12))
    layout = lay((2.0, 0.1), (5.6, 0.12))
    holds = spread(layout, found.rails, layout.ball("7"), found.stroke, (6 + 24 / 5, 8.0))
    assert holds is not None
    assert holds.starts == 5
    assert 0.0 < holds.spread_m < 0.3
    assert holds.low <= found.lands.off_diamonds <= holds.high
    assert f"within {holds.spread_m * 100:.0f} cm" in found.adjust
    assert f"pass there at {figure(holds.middle)}" in found.adjust
    assert 0.5 < 6 + 24 / 5 - holds.middle < 1.5  # numbers taken at the edge play long: the true spot is nearer
    slick = counted(
        "M15", (FAR, FOOT, NEAR), (2.0, 0.1), (5.6, 0.12), replace(POOL, name="slick", cushion_friction=0.12)
    )
    assert slick.adjust != found.adjust
    # one start that can be played is no neighbourhood
    assert spread(lay((0.4, 0.1), (0.62, 0.12)), found.rails, layout.ball("7"), found.stroke, (9.0, 8.0)) is None


def test_m11_lands_within_three_quarters() -> None:
    places = [
        ((t + n, y), (t, 0.1))
        for t in (0.4, 1, 1.5, 2, 2.5, 3)
        for n in (3, 3.5, 4, 4.5, 5, 5.5, 6)
        for y in (0.09, 0.15)
        if t + n < 7.7
    ]
    assert max(landings("M11", (FOOT, FAR), places)) <= 0.75


def test_m11_takes_less_side_close_to_the_short_rail() -> None:
    assert counted("M11", (FOOT, FAR), (7.5, 0.1), (2.0, 0.1)).stroke.side == pytest.approx(-0.17)


def test_m14_lands_within_three_quarters() -> None:
    cues = [(2.0, 0.2), (1.0, 0.3), (0.3, 0.3), (0.2, 0.7), (0.2, 1.4), (0.2, 2.0)]
    places = [(cue, (8 - third / 10, 0.12)) for cue in cues for third in (20, 25, 30, 35, 38)]
    assert max(landings("M14", (FAR, FOOT, NEAR), places)) <= 0.75


@pytest.mark.parametrize("third", [20.0, 25.0, 30.0])
def test_m15_the_lines_of_the_corner_numbers_meet_at_one_spot(third: float) -> None:
    """From starts on near to a third number T, by the numbers alone: (6 + T/5, 8), exactly."""
    applied = 0
    for start in (0.0, 0.7, 1.3, 2.0, 3.1):
        first = (50 - 5 * start) - third
        far = 8 - first / 10
        assert start + 2 * (far - start) == pytest.approx(6 + third / 5, abs=1e-12)
        found = count("M15", lay((max(start, 0.3), 0.2), (8 - third / 10, 0.12)), (FAR, FOOT, NEAR))
        if isinstance(found, Count):
            assert found.lands.off_diamonds <= 0.75
            x, y = max(start, 0.3), 0.2
            assert x + (found.aim.nose - x) * (8 - y) / (4 - y) == pytest.approx(6 + third / 5, abs=1e-9)
            applied += 1
    assert applied >= 3


def test_m16_finds_its_marks_and_lands_within_half_a_diamond() -> None:
    """Three neighbouring marks, near far 3.85, 4.35, 4.95 on the default table (trade, common practice)."""
    marks = reference_marks(POOL)
    assert marks is not None
    assert marks == pytest.approx((3.85, 4.35, 4.95), abs=0.15)
    assert reference_marks(replace(POOL, name="new", cushion_friction=0.14)) != marks
    places = [(cue, (x, 3.88)) for cue in ((0.35, 0.35), (0.8, 0.3), (0.3, 0.9), (0.5, 1.5)) for x in (0.6, 1.0, 1.3)]
    assert max(landings("M16", (FAR, FOOT, NEAR), places)) <= 0.5


def test_m17_returns_as_the_default_table_does() -> None:
    """x = 1, 2, 3 on near connect to y ≈ 0.55, 1.1, 1.9 on head with about 0.3 R (trade, common practice)."""
    places = [((x, 0.12), (0.12, y)) for x in (5.0, 6.0) for y in (0.55, 1.1, 1.5, 1.9)]
    assert max(landings("M17", (FOOT, FAR, NEAR), places)) <= 0.75


def test_m17_says_which_way_full_side_runs_on_this_table() -> None:
    """About a diamond short on the default table, the other way on a slick one (trade, common practice)."""
    found = counted("M17", (FOOT, FAR, NEAR), (6.0, 0.09), (0.12, 1.1))
    assert "short on this table" in found.adjust
    assert "away from the 1-corner" in found.adjust
    off = float(found.adjust.partition("lands ")[2].split()[0])
    assert 0.5 < off < 1.5
    slick = replace(POOL, name="slick", cushion_friction=0.12)
    other = counted("M17", (FOOT, FAR, NEAR), (5.0, 0.09), (0.12, 1.9), slick)
    assert "long on this table" in other.adjust
    assert "towards the 1-corner" in other.adjust


def test_m19_is_played_not_counted() -> None:
    found = counted("M19", *SAMPLES["M19"])
    assert found.lands.off_balls < 1.0
    assert len(found.steps) == 4


def test_m18_lands_within_half_a_diamond_on_the_carom_table() -> None:
    places = [
        ((max(2 * (5 - n), 0.2), y), (0.1, 4 - s / 2))
        for n in (2, 3, 4, 5)
        for s in (2, 3, 4, 5, 6, 7)
        for y in (0.1, 0.2)
    ]
    assert max(landings("M18", (FOOT, FAR, HEAD), places, CAROM)) <= 0.5


@pytest.mark.parametrize("method", METHODS)
def test_landings_come_from_this_table(method: str) -> None:
    rails, cue, target = SAMPLES[method]
    slick = replace(POOL, name="slick", cushion_friction=0.12)
    assert counted(method, rails, cue, target).lands != counted(method, rails, cue, target, slick).lands


def test_what_does_not_apply_says_why() -> None:
    open_one = lay((1.3, 1.2), (5.4, 1.6))
    for method, rails, words in (
        ("M4", (FAR,), "must lie on the near rail"),
        ("M7", (FOOT,), "it counts over far; near"),
        ("M11", (FOOT, FAR), "must lie on the near rail"),
        ("M14", (FAR, FOOT, NEAR), "to have a third number"),
        ("M18", (FOOT, FAR, HEAD), "must lie on the head rail"),
        ("M3", (FAR, FOOT), "it counts over one rail, not over far,foot"),
        ("M10", (FAR,), "over one rail the 7 must lie on the foot rail"),
        ("M11", (FAR,), "it counts over 2 rails, not over far"),
    ):
        found = count(method, open_one, rails)
        assert isinstance(found, NoCount), (method, found)
        assert words in found.reason
    snooker = Layout(
        standard_table("snooker-12ft"), "snooker", (Ball("cue", 1.0, 0.3), Ball("red1", 5.6, 0.12)), "red1"
    )
    for method, rails in (("M14", (FAR, FOOT, NEAR)), ("M11", (FOOT, FAR))):
        found = count(method, snooker, rails)
        assert isinstance(found, NoCount)
        assert "no sights" in found.reason
    m6 = count("M6", snooker, (FAR,))
    assert isinstance(m6, Count)
    assert "diamond" not in m6.say


def test_orders_and_turns() -> None:
    assert set(orders_of("M7")) == {(FAR,), (NEAR,)}
    assert len(orders_of("M10")) == 12
    assert systems_over((FAR, FOOT, NEAR)) == ["M12", "M14", "M15", "M16"]
    assert "M18" in systems_over((HEAD, NEAR, FOOT))
    layout = lay((5.0, 1.0), (2.0, 1.0))
    assert turn_to((NEAR,), (FAR,), layout, (2.0, 1.0)) == Turn(ends=True, sides=True)
    assert turn_to((FAR, FAR), (FAR, FOOT), layout, (2.0, 1.0)) is None
    assert turn_to((FAR, NEAR), (FAR, FAR), layout, (2.0, 1.0)) is None


def test_all_counts_are_ranked_and_the_best_rails_are_chosen() -> None:
    layout = lay((1.0, 0.3), (5.6, 0.12))
    found = all_counts(layout)
    assert {c.method for c in found} == set(METHODS)
    lands = [c.lands.off_balls for c in found if isinstance(c, Count)]
    assert lands == sorted(lands)
    best = best_count("M14", layout)
    assert isinstance(best, Count)
    assert best.rails in orders_of("M14")


def test_m5_keeps_its_numbers_small() -> None:
    """From beside one corner to the other, 30 + 0: not 9.2 + 39.5. Common practice, no published source."""
    for turn in TURNS:
        found = counted("M5", (turn.rail(FOOT),), turn.point(0.4, 0.95), turn.point(0.06, 3.94))
        first = found.steps[0].split(" = ")[0]
        assert [float(part) for part in first.split(" + ")] == pytest.approx([31.0, 0.5], abs=0.6)
        assert found.own is not None
        assert found.own.number == pytest.approx(15.7, abs=0.3)


@pytest.mark.parametrize("turn", TURNS, ids=str)
def test_m11_counts_round_the_corner(turn: Turn) -> None:
    """From (5, 0.09) to a ball on the short rail behind: 2 + 5 = 7, sighted at 1.0; it hits. Common practice, no
    published source."""
    rails = (turn.rail(FOOT), turn.rail(FAR))
    layout = lay(turn.point(5.0, 0.09), turn.point(0.09, 2.0))
    found = count("M11", layout, rails, cue=HOUSE)
    assert isinstance(found, Count), found
    assert found.aim.sight is not None
    assert turn.at(FOOT, found.aim.sight) == pytest.approx(1.0, abs=0.01)
    assert found.own is not None
    assert found.own.number == pytest.approx(7.0, abs=0.01)
    assert found.lands.hits
    assert play(layout, found.stroke, found.direction).first_ball == "7"
    where = {(number.rail, number.label): number.at for number in found.numbers}
    head, near = turn.rail(HEAD), turn.rail(NEAR)
    assert turn.at(HEAD, where[head, "0"]) == pytest.approx(2.0)
    assert turn.at(HEAD, where[head, "1"]) == pytest.approx(1.0)
    assert turn.at(NEAR, where[near, "3"]) == pytest.approx(1.0)
