"""The Handbook: a complete page a system, an example that counts, figures that come from playing.

The words are common practice, no published source; the figures are this program's own.
"""

import re
from dataclasses import fields, replace

import pytest

from fandle.core.errors import BadInputError
from fandle.core.handbook.holds import by_cloth, by_pace, placed, swept
from fandle.core.handbook.page import HERE, Page, all_pages, page_of
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.steps import finish
from fandle.core.systems.banks import bank_count
from fandle.core.systems.base import Count
from fandle.core.systems.catalogue import METHODS
from fandle.core.systems.registry import count, plain_count
from fandle.core.table.condition import conditioned
from fandle.core.table.rails import parse_rails
from fandle.core.table.standards import standard_table, usual_game

PAGES = all_pages()
PROSE = ("line", "who", "rule", "by_eye", "sums", "exact", "drifts", "dispute", "caution", "axis")


def test_there_is_a_page_for_every_system_and_no_other() -> None:
    assert [page.method for page in PAGES] == list(METHODS)
    assert len(list(HERE.glob("*.toml"))) == len(METHODS)
    with pytest.raises(BadInputError, match="unknown method"):
        page_of("M99")


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.method)
def test_a_page_is_complete(page: Page) -> None:
    assert {f.name for f in fields(page)} >= set(PROSE)
    for part in PROSE:
        text = getattr(page, part)
        assert len(text) > 20 or part == "axis", (page.method, part)
        assert "  " not in text
        assert part == "axis" or text.endswith(".")
    assert page.rivals
    assert set(page.rivals) <= set(METHODS) - {page.method}


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.method)
def test_the_example_counts_and_depends_on_the_cushions_friction(page: Page) -> None:
    found = count(page.method, page.example, page.rails)
    assert isinstance(found, Count), found
    table = page.example.table
    for share in (0.8, 1.25):
        other = replace(table, name="other", cushion_friction=table.cushion_friction * share)
        changed = count(page.method, replace(page.example, table=other), page.rails)
        assert isinstance(changed, Count)
        assert changed.lands.off_diamonds != found.lands.off_diamonds
        assert changed.lands.off_balls != found.lands.off_balls


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.method)
def test_curves_are_the_counts_own_landings(page: Page) -> None:
    cloth = finish(by_cloth(page, page.example, page.rails))
    pace = finish(by_pace(page, page.example, page.rails))
    assert [c.name for c in cloth] == ["this table", "new cloth", "damp cloth"]
    assert [c.name for c in pace] == ["as meant", "softer", "firmer"]
    assert cloth[0].dots == pace[0].dots
    assert len(cloth[0].dots) >= 16
    assert cloth[1].dots != cloth[0].dots != cloth[2].dots
    assert pace[1].dots != pace[0].dots != pace[2].dots
    found = finish(swept(page, page.example, page.rails))
    for (at, there, counted), dot in zip(found, cloth[0].dots, strict=True):
        again = plain_count(page.method, there, page.rails)
        assert isinstance(again, Count)
        assert (dot.at, dot.off) == (at, again.lands.off)
        assert dot.hit == (counted.lands.off_balls < 1.0)
    assert cloth[0].worst == max(abs(dot.off) for dot in cloth[0].dots)


def test_an_axis_is_the_number_counted_where_the_page_says_so() -> None:
    m11, m1 = page_of("M11"), page_of("M1")
    dots = finish(by_cloth(m11, m11.example, m11.rails))[0].dots
    assert dots[0].at == pytest.approx(m11.sweep[0][0] - 1.2, abs=0.01)
    assert finish(by_cloth(m1, m1.example, m1.rails))[0].dots[0].at == pytest.approx(m1.sweep[0][0])
    m5 = page_of("M5")
    assert max(dot.at for dot in finish(by_cloth(m5, m5.example, m5.rails))[0].dots) > 10  # numbers of the short rail


def test_softer_is_long_and_firmer_short_over_one_rail() -> None:
    """Common practice: a rolling ball comes off long, a sliding one short."""
    for method in ("M1", "M3", "M6"):
        page = page_of(method)
        meant, softer, firmer = finish(by_pace(page, page.example, page.rails))
        mid = len(meant.dots) // 2
        assert softer.dots[mid].off > meant.dots[mid].off > firmer.dots[mid].off


def lands(method: str, table: str, rails: str, cue: tuple[float, float], target: tuple[float, float]) -> float:
    """Diamonds off, long positive, of a system on a standard table."""
    bed = standard_table(table)
    ball = "red1" if table.startswith("snooker") else "7"
    layout = Layout(bed, usual_game(bed), (Ball("cue", *cue), Ball(ball, *target)), ball)
    found = plain_count(method, layout, parse_rails(rails))
    assert isinstance(found, Count), found
    return found.lands.off


def test_figures_in_the_words_are_the_played_ones() -> None:
    """Where a page names a figure for a system's own error, it is this one."""
    assert "a sixth of a diamond for balls near your rail, two thirds for balls in mid-table" in page_of("M2").drifts
    assert lands("M2", "pool-9ft", "far", (1.0, 0.5), (5.0, 0.5)) == pytest.approx(-1 / 6, abs=0.05)
    assert lands("M2", "pool-9ft", "far", (1.0, 2.0), (5.0, 2.0)) == pytest.approx(-2 / 3, abs=0.05)
    assert "within a seventh of a diamond, a shade short" in page_of("M4").drifts
    for n in (15, 20, 30, 40):
        cue = 4 - n / 10 + 0.25 * n / 20, -0.295 + 0.25 * 4.59
        assert -1 / 7 < lands("M4", "pool-9ft", "far", cue, (4.0, 0.09)) < 0.0
    assert "one diamond short for targets round the other corner" in page_of("M16").drifts
    assert lands("M16", "pool-9ft", "far,foot,near", (1.0, 0.3), (0.1, 3.5)) == pytest.approx(-1.0, abs=0.1)
    assert "short rail first, up to 1½ marks long" in page_of("M10").drifts
    assert lands("M10", "snooker-12ft", "foot,far", (2.0, 1.0), (3.0, 2.0)) == pytest.approx(1.5, abs=0.1)


def test_a_map_leaves_out_places_where_no_ball_can_lie() -> None:
    page = page_of("M1")
    target = page.example.require_target()
    assert placed(page.example, target.x, target.y) is None
    assert placed(page.example, 4.0, -0.2) is None


def test_the_bank_of_a_page_counts_and_drops() -> None:
    banked = {page.method: page.bank for page in PAGES if page.bank is not None}
    assert set(banked) == {"M3"}
    example = banked["M3"]
    found = bank_count(example.layout, example.rails, pocket=example.pocket)
    assert isinstance(found, Count)
    assert found.potted


def test_the_condition_of_the_table_is_played() -> None:
    page = page_of("M14")
    damp = replace(page.example, table=conditioned(standard_table("pool-9ft"), "damp", "soft"))
    a, b = count("M14", page.example, page.rails), count("M14", damp, page.rails)
    assert isinstance(a, Count)
    assert isinstance(b, Count)
    assert a.aim == b.aim
    assert b.lands.off < a.lands.off  # damp and soft: short


def test_a_landing_keeps_its_sign_where_it_counts_as_on() -> None:
    """A curve must not jump to the long side only because it comes near."""
    page = page_of("M9")
    dots = finish(by_cloth(page, page.example, page.rails))[0].dots
    assert any(-0.05 < dot.off < 0.0 for dot in dots)
    found = plain_count("M14", page_of("M14").example, page_of("M14").rails)
    assert isinstance(found, Count)
    assert found.lands.off_diamonds == abs(found.lands.off) < 0.05
    assert found.lands.side == "on"


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.method)
def test_where_a_system_can_be_trusted_is_said_in_the_numbers_it_is_measured_by(page: Page) -> None:
    trusted = page.trusted
    assert 0.0 < trusted.share <= 1.0
    assert trusted.share * 20 == pytest.approx(round(trusted.share * 20))  # to a twentieth
    numbers = [float(number) for number in re.findall(r"\d+", trusted.say)]
    wanted = [limit for limit in trusted.angle if limit not in (0.0, 90.0)] + list(trusted.number or ())
    assert numbers == pytest.approx(wanted)


def test_a_count_outside_its_range_is_not_covered() -> None:
    """M14 from the corner meets far at about 40°; M1 so flat is outside its own range."""
    layout = Layout(standard_table("pool-9ft"), "nine-ball", (Ball("cue", 0.4, 0.3), Ball("7", 5.6, 0.12)), "7")
    three = plain_count("M14", layout, parse_rails("far,foot,near"))
    one = plain_count("M1", layout, parse_rails("far"))
    assert isinstance(three, Count)
    assert isinstance(one, Count)
    assert page_of("M14").trusted.covers(three)
    assert not page_of("M1").trusted.covers(one)  # met at 54°
    assert not replace(page_of("M14").trusted, number=(10.0, 20.0)).covers(three)
