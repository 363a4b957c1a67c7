"""Counts with a real cue: squirt moves a landing where there is side, and nowhere else."""

import re
from dataclasses import replace

import pytest

from fandle.core.handbook.page import page_of
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to, marks
from fandle.core.lines.remembered import place_of
from fandle.core.shot.cue import HOUSE, IDEAL
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.banks import bank_count
from fandle.core.systems.base import Count, NoCount, Own, figure
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.own import own_in_words
from fandle.core.systems.reference_lines import reference_marks
from fandle.core.systems.registry import count
from fandle.core.systems.symmetry import Turn
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

from .test_systems import FAR, FOOT, NEAR, POOL, SAMPLES, TURNS, lay


def with_cue(method: str, cue: object) -> Count:
    rails, ball, target = SAMPLES[method]
    found = count(method, lay(ball, target), rails, cue=cue)  # type: ignore[arg-type]
    assert isinstance(found, Count), found
    return found


@pytest.mark.parametrize("method", [name for name in METHODS if name != "M16"])  # its lines are found with the cue
def test_the_cue_moves_a_landing_just_where_the_stroke_has_side(method: str) -> None:
    """The mark is the system's and stays; what becomes of it is the cue's. Common practice, no published source."""
    ideal, house = with_cue(method, IDEAL), with_cue(method, HOUSE)
    assert house.aim == ideal.aim
    assert (house.lands != ideal.lands) == (ideal.stroke.side != 0.0)
    assert ideal.squirt == ""
    assert bool(house.squirt) == (abs(house.lands.off - ideal.lands.off) >= 0.05)


@pytest.mark.parametrize("method", ["M10", "M11", "M14", "M16", "M17"])
def test_another_mark_is_advised_only_where_it_serves_better(method: str) -> None:
    """Played: along the mark that makes up for squirt the ball lands a tenth of a diamond nearer, hits, and stays up."""
    found = with_cue(method, HOUSE)
    rails, ball, target = SAMPLES[method]
    layout = lay(ball, target)
    turned = found.direction - found.stroke.squirt
    way = getattr(marks(POOL, rails[0], layout.metres(layout.cue), turned), found.frame)
    shot = play(layout, found.stroke, turned)
    ideal = with_cue(method, IDEAL)  # the same ball line, so that is where it lands
    better = ideal.lands.off_diamonds <= found.lands.off_diamonds - 0.1
    hits = shot.first_ball == "7" and "cue" not in dict(shot.potted)
    if better and hits:
        assert f"aim at {figure(way)}." in found.squirt
    else:
        assert "aim at" not in found.squirt
        assert found.squirt == "" or found.squirt.endswith("that is already in the number.")


OWN = {"M2", "M3", "M4", "M5", "M7", "M11", "M14", "M17", "M18"}


@pytest.mark.parametrize("turn", TURNS, ids=str)
@pytest.mark.parametrize("method", METHODS)
def test_own_numbers_run_along_the_real_rail(method: str, turn: object) -> None:
    """From two places of the cue ball the aims differ by as many diamonds as their own numbers say."""
    rails, cue, target = SAMPLES[method]
    rails = tuple(turn.rail(rail) for rail in rails)  # type: ignore[attr-defined]
    found = []
    for away in (0.0, 0.04):
        layout = lay(turn.point(cue[0] + away, cue[1]), turn.point(*target))  # type: ignore[attr-defined]
        counted = count(method, layout, rails)
        assert isinstance(counted, Count), counted
        found.append(counted)
    a, b = found
    if method not in OWN:
        assert (a.own, a.own_say) == (None, "")
        return
    assert a.own is not None
    assert b.own is not None
    at = getattr(a.aim, a.frame)
    zero = next((n.at for n in a.numbers if n.role == "zero" and n.label == "0"), None)
    if method == "M2":  # its zero moves with the mark
        assert zero is not None
        assert at - zero == pytest.approx(a.own.number * a.own.unit, abs=1e-9)
    else:
        moved = getattr(b.aim, b.frame) - at
        assert moved == pytest.approx((b.own.number - a.own.number) * a.own.unit, abs=0.006)
    label = next(n.label for n in a.numbers if n.role == "aim")
    assert float(label) == pytest.approx(a.own.number, abs=0.5 if method == "M18" else 0.051)


@pytest.mark.parametrize(
    ("number", "unit", "table", "words"),
    [
        (2.1, 1.0, "pool-9ft", "2 plus 1 segment"),
        (2.26, 1.0, "pool-9ft", "2½ less 2½ segments"),
        (16.5, -0.1, "pool-9ft", "16½"),
        (16.6, -0.1, "pool-9ft", "16½"),
        (3.28, -0.5, "pool-9ft", "3½ less 1 segment"),
        (2.1, 1.0, "snooker-12ft", "2 plus ¾ ball"),
    ],
)
def test_sums_are_said_to_a_half_and_what_is_left_over(number: float, unit: float, table: str, words: str) -> None:
    """Halves as players say them, the rest in tenths of a diamond, or in balls where there are no diamonds."""
    assert own_in_words(Own(number, unit), standard_table(table), Rail.FAR) == words


@pytest.mark.parametrize("method", METHODS)
def test_a_counts_mark_is_remembered_in_its_own_frame(method: str) -> None:
    found = with_cue(method, IDEAL)
    said = place_of(POOL, found.rails[0], found.mark.say)
    assert said == pytest.approx(getattr(found.aim, found.frame), abs=0.045)


def test_small_and_large_equal_counts_are_told_for_both_cues() -> None:
    """The figures in the words are the counts played, from balls on the rail. From memory: nobody publishes them."""
    for method, rails in (("M11", (FOOT, FAR)), ("M17", (FOOT, FAR, NEAR))):
        found = count(method, lay(SAMPLES[method][1], SAMPLES[method][2]), rails)
        assert isinstance(found, Count)
        assert "with an ideal cue a count of 3 lands" in found.adjust
        assert "with a house cue a count of 3 lands" in found.adjust
    target = (1.2, POOL.ball_radius / POOL.diamond_y)
    for cue in (IDEAL, HOUSE):
        small = count("M11", lay((4.2, target[1]), target), (FOOT, FAR), cue=cue)
        assert isinstance(small, Count)
        assert f"a count of 3 lands {small.lands.where}" in small.adjust


def test_reference_lines_are_found_with_the_players_cue() -> None:
    """With a cue that squirts they lie further along, and each still ends where it is to end: recounted, played."""
    with_one, with_other = reference_marks(POOL, IDEAL), reference_marks(POOL, HOUSE)
    assert with_one is not None
    assert with_other is not None
    assert all(0.2 < house - ideal < 0.5 for ideal, house in zip(with_one, with_other, strict=True))
    bare = replace(POOL, name="bare", pockets=None)
    start = with_other[1] * 0.1, (4.0 + POOL.sight_setback / POOL.diamond_y) * 0.1  # type: ignore[operator]
    layout = Layout(bare, "nine-ball", (Ball("cue", *start),))
    direction = direction_to(bare, FAR, layout.metres(layout.cue), with_other[1], "sight")
    shot = play(layout, Stroke(4.0, 0.4, 0.2, cue=HOUSE), direction)
    met = [event for event in shot.events if event.rail is not None]
    assert [event.rail for event in met[:3]] == [FAR, FOOT, NEAR]
    assert met[3].x + 4.0 - met[3].y < 0.35  # the corner of head and far


@pytest.mark.parametrize("turn", TURNS, ids=str)
@pytest.mark.parametrize("method", ["M14", "M16"])
def test_three_rails_from_a_corner_to_the_other_corner_of_the_head_rail(method: str, turn: Turn) -> None:
    """The standard track, from (0.4, 0.3) to a ball in the corner: it hits and drops; sighted near the diamond that
    the engine finds with about a tip (4.93). Common practice, no published source."""
    layout = lay(turn.point(0.4, 0.3), turn.point(0.08, 3.92))
    found = count(method, layout, tuple(turn.rail(rail) for rail in (FAR, FOOT, NEAR)), cue=HOUSE)
    assert isinstance(found, Count), found
    assert found.aim.sight is not None
    assert turn.at(FAR, found.aim.sight) == pytest.approx(5.0, abs=0.1)
    assert found.lands.hits
    assert found.lands.pots == turn_pocket(turn, "head-far")
    assert play(layout, found.stroke, found.direction).first_ball == "7"


def turn_pocket(turn: Turn, name: str) -> str:
    end, side = name.split("-")
    return f"{turn.rail(Rail(end)).value}-{turn.rail(Rail(side)).value}"


def test_balls_where_a_track_ends_have_a_third_number() -> None:
    """Track 20 runs on to the corner; shorter numbers end on the long rail, longer ones on the short one (common
    practice). Played from the corner, each hits."""
    numbers = []
    for target in ((1.8, 3.91), (1.3, 3.91), (0.09, 3.55), (0.09, 3.25), (0.09, 2.95)):
        found = count("M14", lay((0.4, 0.3), target), (FAR, FOOT, NEAR), cue=HOUSE)
        assert isinstance(found, Count), found
        told = re.search(r"third number ([\d.]+) ends", found.say)
        assert told is not None
        numbers.append(float(told[1]))
        assert found.lands.off_diamonds < 0.75
        point = count("M15", lay((0.4, 0.3), target), (FAR, FOOT, NEAR), cue=HOUSE)
        assert isinstance(point, Count) or "neighbouring choice" in point.reason  # the side pocket's jaw
    assert numbers == sorted(numbers)
    assert numbers[0] < 12
    assert numbers[2] > 22
    nowhere = count("M14", lay((0.4, 0.3), (3.5, 3.91)), (FAR, FOOT, NEAR))
    assert isinstance(nowhere, NoCount)
    assert "where a track ends: in the head-far corner" in nowhere.reason


def test_reference_marks_are_told_by_cloth() -> None:
    """About 3.7, 4.35, 5.0; new cloth 3.85, 4.5, 5.1; damp 3.45, 4.1, 4.8: common practice, no published source."""
    found = with_cue("M16", IDEAL)
    for name, expected in (
        ("this table", (3.7, 4.35, 5.0)),
        ("new cloth", (3.85, 4.5, 5.1)),
        ("damp", (3.45, 4.1, 4.8)),
    ):
        told = found.adjust.partition(name)[2].partition(";")[0].partition(".  ")[0].removeprefix(" cloth")
        got = [float(part.strip().rstrip(".")) for part in told.split(",")]
        assert got == pytest.approx(expected, abs=0.051)


def test_a_bank_by_pairs_is_played_plain_with_ones_own_cue() -> None:
    """So that the cue makes no difference to where the ball goes."""
    page = page_of("M3")
    assert page.bank is not None
    layout, rails, pocket = page.bank.layout, page.bank.rails, page.bank.pocket
    a, b = (bank_count(layout, rails, pocket=pocket, cue=cue) for cue in (IDEAL, HOUSE))
    assert isinstance(a, Count)
    assert isinstance(b, Count)
    assert b.stroke.cue == HOUSE
    assert a.lands == b.lands
