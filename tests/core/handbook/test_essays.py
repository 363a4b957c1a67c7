"""The Handbook's other pages: corrections have the players' signs on every table, the finder finds, texts are whole."""

import itertools
import math
import re
from typing import Literal

import pytest

from fandle.core.choice.rules import RULES
from fandle.core.handbook.close_work import technique_pages
from fandle.core.handbook.corrections import CORRECTIONS, corrections
from fandle.core.handbook.essays import CLOTHS, caution, cautions, disputes, games, quarrels
from fandle.core.handbook.finder import FITS, Wish, fits, found_in
from fandle.core.systems.catalogue import METHODS, orders_of
from fandle.core.table.standards import STANDARDS
from fandle.core.techniques.base import Technique
from fandle.core.techniques.registry import TECHNIQUES, solved


@pytest.mark.parametrize("name", list(STANDARDS))
def test_corrections_have_the_signs_that_players_report(name: str) -> None:
    """trade.md §4 (common practice, no published source): signs, and that the sizes are worth telling."""
    found = corrections(STANDARDS[name])
    assert len(found) == len(CORRECTIONS)
    for each in found:
        assert each.shift is not None, each.correction.title
        assert each.before
        assert each.after
        if each.correction.claimed == "long":
            assert each.shift > 0.02, each.correction.title
        if each.correction.claimed == "short":
            assert each.shift < -0.02, each.correction.title


def test_the_sizes_are_the_prototypes_on_nine_feet() -> None:
    """physics.md, check values of two independent prototypes: 0.2 R running +1.0, reverse −0.3 to −0.6 near medium."""
    shift = {each.correction.title: each.shift for each in corrections(STANDARDS["pool-9ft"])}
    assert shift["Running side"] == pytest.approx(1.06, abs=0.12)
    assert shift["Reverse side"] == pytest.approx(-0.45, abs=0.2)
    assert shift["Follow that still slides"] == pytest.approx(0.51, abs=0.15)
    assert shift["Draw that still slides"] == pytest.approx(-0.54, abs=0.15)


def test_every_method_has_what_the_finder_needs_and_its_rails_are_its_own() -> None:
    assert list(FITS) == [*METHODS, *TECHNIQUES]
    for method in METHODS:
        counts = {len(order) for order in orders_of(method)}
        assert set(FITS[method].rails) <= counts, method


def test_the_finder_leaves_out_what_does_not_suit() -> None:
    one_eye = {name for name in FITS if fits(name, Wish(rails=1, sums=False, use="kick"))}
    assert {"M1", "M6", "M8", "M20"} <= one_eye
    assert not {"M2", "M3", "M14", "M25"} & one_eye
    strange = {name for name in FITS if fits(name, Wish(rails=3, known=False))}
    assert strange == {"M12"}
    assert {name for name in FITS if fits(name, Wish(use="bank"))} == {"M3", "M25"}
    assert {name for name in FITS if fits(name, Wish())} == set(FITS)
    lies: tuple[Literal["rail", "open"], ...] = ("rail", "open")
    wishes = [Wish(rails, lie, sums) for rails, lie, sums in itertools.product((1, 2, 3), lies, (None, False))]
    assert all(any(fits(name, wish) for name in FITS) for wish in wishes if wish.rails != 3 or wish.lie == "rail")


def test_a_search_finds_words_in_titles_first() -> None:
    assert found_in("Halving", "Halving count", ("n / 2",)) == 2
    assert found_in("mirror corner", "Midpoint", ("mirrors", "to the corner")) == 1
    assert found_in("unicorn", "Midpoint", ("mirrors",)) == 0
    assert found_in("  ", "Midpoint", ("mirrors",)) == 0


def test_every_technique_works_on_its_own_page() -> None:
    for page in technique_pages():
        assert isinstance(solved(page.method, page.example), Technique), page.method
        assert all((page.line, page.who, page.rule, page.works, page.fails, page.dispute, page.caution))


@pytest.mark.parametrize("name", list(STANDARDS))
def test_disputes_have_their_figures_and_every_system_its_landings(name: str) -> None:
    table = STANDARDS[name]
    told = disputes(table)
    assert all(each.text for each in told)
    assert sum(bool(each.figure) for each in told) >= 3
    rows = quarrels(table)
    assert [row.method for row in rows] == list(METHODS)
    assert all(len(row.lands) == len(CLOTHS) for row in rows)
    assert any(row.lands[0] != row.lands[2] for row in rows)


def test_a_frozen_ball_is_no_easier_by_the_engine() -> None:
    """One rail, medium: a third of a diamond off 81 to 109 mm of window, a diamond off 57 to 59, frozen 53 to 61
    (trade.md 5, the house's engine; here from one start)."""
    for name, table in STANDARDS.items():
        told = next(each.figure for each in disputes(table) if each.title.startswith("Is a ball tight"))
        frozen, third, one = (float(width) for width in re.findall(r"([\d.]+) mm", told))
        assert 45 <= frozen <= 65, name
        assert third > 1.3 * frozen, name
        assert 50 <= one <= 75, name


def test_the_spans_of_a_full_hit_and_of_a_pot_part() -> None:
    told = next(each.figure for each in disputes(STANDARDS["pool-9ft"]) if each.title.startswith("From where"))
    full, pot = (float(mark) for mark in re.findall(r"(?:full|near) (\d\.\d+)", told))
    assert full == pytest.approx(3.2 + 3.4 * 1.6 / 2.2, abs=0.01)  # similar triangles
    ghost_x, ghost_y = 6.6 - 1.4 / math.hypot(1.4, 0.6) * 0.18, 0.6 + 0.6 / math.hypot(1.4, 0.6) * 0.18
    assert pot == pytest.approx(3.2 + (ghost_x - 3.2) * 1.6 / (1.6 + ghost_y), abs=0.02)


def test_half_a_ball_and_a_tip_a_diamond_come_to_about_the_same_place() -> None:
    """Played: within half a diamond on every table."""
    for table in STANDARDS.values():
        told = next(each.figure for each in disputes(table) if each.title.startswith("A tip a diamond"))
        places = [float(place) for place in re.findall(r"([\d.]+) from", told)]
        assert len(places) >= 2
        assert max(places) - min(places) < 0.65


def test_every_game_is_told_and_every_caution_has_its_key() -> None:
    words = " ".join(each.title + each.key for each in games()).lower().replace(" ", "-")
    for game in RULES:
        assert game.split("-")[0] in words
    assert {each.key for each in cautions()} == {"masse", "jump", "power", "fatigue", "stance", "rules"}
    assert "room" in caution("masse")
