"""Every technique on layouts where it works and where it does not; what it says is what happens when it is played."""

import math
from dataclasses import replace

import numpy as np
import pytest
from tests.core.techniques.test_claims import frozen, laid

from fandle.core.errors import BadInputError
from fandle.core.layout.edit import flip_end_to_end, flip_left_right
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import find_cue
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import play
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.core.techniques.base import NoTechnique, Technique, widest
from fandle.core.techniques.registry import TECHNIQUES, solved

POOL, CAROM, SNOOKER = (STANDARDS[name] for name in ("pool-9ft", "carom-10ft", "snooker-12ft"))


def works(table: Table) -> dict[str, Layout]:
    """A layout for every technique that makes sense on a table."""
    found = {
        "M20": laid(table, (4.6, 0.75), (6.0, 0.3)), "M22": laid(table, (1.0, 1.0), (2.0, frozen(table, 0.05))),
        "M23": laid(table, (4.0, 1.0), (7.0, 1.0)), "M24": laid(table, (4.0, 0.6), (5.6, frozen(table, 0.25))),
    }  # fmt: skip
    if table.pockets is not None:
        found["M25"] = laid(table, (5.2, 0.45), (5.0, 1.4))
        found["M26"] = laid(table, (4.5, 2.0), (6.5, 3.6))
    return found


def of(method: str, layout: Layout) -> Technique:
    found = solved(method, layout)
    assert isinstance(found, Technique), found
    return found


@pytest.mark.parametrize(
    ("table", "method"), [(table.name, method) for table in STANDARDS.values() for method in works(table)]
)
def test_what_it_says_is_what_happens(table: str, method: str) -> None:
    layout = works(STANDARDS[table])[method]
    found = of(method, layout)
    shot = play(layout, found.way.stroke, found.direction)
    moment = moment_of(layout, shot)
    assert moment == found.moment
    assert moment is not None
    rails = tuple(ev.rail for ev in shot.events if ev.ball == "cue" and ev.kind == "rail")[: len(found.rails)]
    assert rails == found.rails
    if found.pocket:
        assert (layout.target, found.pocket) in shot.potted
    assert found.way.low < found.direction < found.way.high
    assert found.say
    assert found.adjust


@pytest.mark.parametrize("method", ["M20", "M22", "M23", "M24", "M25", "M26"])
def test_a_mirrored_layout_has_the_mirrored_answer(method: str) -> None:
    layout = works(POOL)[method]
    found = of(method, layout)
    for flipped in (flip_left_right(layout), flip_end_to_end(layout)):
        other = of(method, flipped)
        assert other.way.name == found.way.name
        assert other.way.stroke.side == pytest.approx(-found.way.stroke.side, abs=1e-9)
        assert other.moment.hit == pytest.approx(-found.moment.hit, abs=0.02)
        assert other.way.window_deg == pytest.approx(found.way.window_deg, rel=0.05, abs=0.02)


def test_the_back_cut_names_full_reverse_and_the_pocket_behind() -> None:
    layout = laid(POOL, (4.98, 3.09), (5.0, frozen(POOL)))
    found = of("M21", layout)
    assert found.way.name == "full reverse side"
    assert 0.0 < sum(found.room_mm) < 2.0
    shot = play(layout, found.way.stroke, found.direction)
    assert (layout.target, found.pocket) in shot.potted


def test_a_house_cue_moves_the_line_of_the_back_cut_by_its_squirt() -> None:
    """Squirt matters more than anything here (M21): the cue's line lies the squirt's angle aside."""
    layout = laid(POOL, (4.98, 3.09), (5.0, frozen(POOL)))
    house = replace(of("M21", layout).way.stroke, cue=find_cue("house"))
    assert abs(house.squirt) * 2.95 * POOL.diamond_y > POOL.ball_radius


@pytest.mark.parametrize(
    ("method", "layout", "words"),
    [
        ("M20", laid(POOL, (4.6, 0.75), (6.0, 2.0)), "not near that rail"),
        ("M20", laid(POOL, (0.6, 0.75), (7.0, 0.3)), "too far off"),
        ("M21", laid(POOL, (4.98, 3.09), (5.0, 0.4)), "not frozen"),
        ("M21", laid(POOL, (2.0, 2.0), (5.0, frozen(POOL))), "°"),
        ("M21", laid(CAROM, (4.98, 3.0), (5.0, frozen(CAROM))), "no corner pocket"),
        ("M22", laid(POOL, (1.0, 1.0), (2.0, 0.5)), "within an inch"),
        ("M22", laid(POOL, (1.9, 1.0), (2.0, frozen(POOL, 0.05))), "nearer than the base"),
        ("M22", laid(POOL, (0.3, 1.0), (7.0, frozen(POOL, 0.05))), "three is the limit"),
        ("M23", laid(CAROM, (1.0, 1.0), (3.0, 1.0)), "it counts to three"),
        ("M23", laid(CAROM, (6.5, 1.0), (7.0, 1.0)), "too near"),
        ("M24", laid(POOL, (4.0, 0.6), (5.6, 1.6)), "not near enough"),
        ("M24", laid(POOL, (5.5, 3.4), (5.6, 0.3)), "no stroke comes back"),
        ("M25", laid(CAROM, (5.2, 0.45), (5.0, 1.4)), "no pockets"),
        ("M26", laid(CAROM, (5.2, 0.45), (5.0, 1.4)), "nothing to pot"),
        ("M26", laid(POOL, (4.0, 2.0), (6.0, 3.0)), "nearly full"),
    ],
)  # fmt: skip
def test_where_it_does_not_work_it_says_why(method: str, layout: Layout, words: str) -> None:
    found = solved(method, layout)
    assert isinstance(found, NoTechnique)
    assert words in found.reason


def test_the_tips_of_the_thin_line_add_up() -> None:
    """M22: one tip a half diamond back, half a tip a diamond on; a tip is a third of the miscue limit."""
    found = of("M22", laid(POOL, (0.5, 1.0), (3.0, frozen(POOL, 0.05))))
    assert found.steps[-1] == "1 + 0.5 = 1.5 tips of reverse"
    assert found.way.stroke.side == pytest.approx(1.5 * 0.98 * 0.5 / 3)  # right: reverse at the near rail to the foot
    base = of("M22", laid(POOL, (1.0, 1.0), (2.0, frozen(POOL, 0.05))))
    assert base.way.stroke.side == 0.0
    assert found.way.stroke.speed > base.way.stroke.speed


def test_the_half_ball_is_half_a_ball_and_its_tips_the_diamond() -> None:
    for diamond, tips in ((1, 1), (2, 2), (3, 3)):
        found = of("M23", laid(CAROM, (4.0, 1.0), (8.0 - diamond, 1.0)))
        assert found.moment.fullness == pytest.approx(0.5, abs=0.01)
        stroke = found.way.stroke
        assert math.hypot(stroke.side, stroke.up) == pytest.approx(tips * 0.98 * 0.5 / 3)
        assert math.degrees(math.atan2(abs(stroke.side), stroke.up)) == pytest.approx(60.0)  # two o'clock, or ten


@pytest.mark.parametrize("method", ["M20", "M22", "M24", "M25", "M26"])
def test_it_changes_with_the_tables_numbers(method: str) -> None:
    """A live example: another cloth and rubber, another answer."""
    layout = works(POOL)[method]
    worn = replace(layout, table=conditioned(POOL, "damp", "dead"))
    before, after = of(method, layout), solved(method, worn)
    changed = isinstance(after, NoTechnique) or (before.direction, before.steps) != (after.direction, after.steps)
    assert changed or (isinstance(after, Technique) and before.moment != after.moment)


def test_the_widest_run_is_found_with_half_steps_at_its_ends() -> None:
    at = np.arange(10.0)
    good = np.array([1, 0, 1, 1, 1, 0, 1, 1, 0, 0], bool)
    assert widest(at, good) == (1.5, 4.5)
    assert all(math.isnan(end) for end in widest(at, np.zeros(10, bool)))


def test_an_unknown_technique_and_a_missing_target_are_refused() -> None:
    layout = works(POOL)["M20"]
    with pytest.raises(BadInputError, match="unknown technique 'M3'"):
        solved("M3", layout)
    for method in TECHNIQUES:
        with pytest.raises(BadInputError, match="no target"):
            solved(method, replace(layout, target=None))
