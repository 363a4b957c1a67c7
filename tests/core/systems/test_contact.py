"""Counts to a contact: a thickness, a pot, a combination. Each claim is played. Common practice, no published source."""

import math

import pytest
from tests.conftest import all_counts

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.play import play
from fandle.core.systems.base import Count, NoCount
from fandle.core.systems.contact import Contact
from fandle.core.systems.registry import count, counted, hands_of
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL = standard_table("pool-9ft")
FAR, NEAR = Rail.FAR, Rail.NEAR
PLACES = {"cue": (3.2, 1.6), "7": (6.6, 0.6)}


def lay(places: dict[str, tuple[float, float]], target: str = "7") -> Layout:
    return Layout(POOL, "nine-ball", tuple(Ball(name, *place) for name, place in places.items()), target)


def made(method: str, layout: Layout, rails: tuple[Rail, ...] | None, contact: Contact) -> Count:
    found = counted(method, layout, rails, cue=HOUSE, contact=contact)
    assert isinstance(found, Count), found
    return found


def test_the_span_of_a_pot_is_measured_to_the_ghost_ball_that_pots() -> None:
    """213 mm from the near rail to the ghost ball in line with foot-near; to the last leg's it was 159."""
    found = made("M8", lay(PLACES), (NEAR,), Contact(pocket="foot-near"))
    assert "span 213 mm" in found.steps[0]
    assert "Counted to the ghost ball that sends the 7 into foot-near" in found.say
    plain = made("M8", lay(PLACES), (NEAR,), Contact())
    assert "span 159 mm" in plain.steps[0]


def test_the_hands_measure_to_the_ghost_ball_of_the_pot() -> None:
    """The first thing to think of is the ghost ball counted to, not the one of a full hit."""
    layout = lay(PLACES)
    potting, full = (made("M8", layout, (NEAR,), contact) for contact in (Contact(pocket="foot-near"), Contact()))
    ghosts = [hands_of(found, layout)[0].things[0].points[0] for found in (potting, full)]
    assert potting.goal is not None
    assert ghosts[0] == pytest.approx(potting.goal)
    assert ghosts[0] != pytest.approx(ghosts[1], abs=0.02)


@pytest.mark.parametrize(
    ("cue", "seven", "pocket"),
    [((0.7, 0.7), (3.6, 1.4), "side-near"), ((4.1, 1.7), (6.7, 0.4), "foot-near")],
)
def test_a_count_to_a_pot_pots_where_the_system_is_right(
    cue: tuple[float, float], seven: tuple[float, float], pocket: str
) -> None:
    """Over far the image is right to a hair from here: played, the 7 drops where it is said to; hit full it does not."""
    layout = lay({"cue": cue, "7": seven})
    found = made("M8", layout, (FAR,), Contact(pocket=pocket))
    assert (found.pocket, found.potted, found.lands.pots) == (pocket, True, pocket)
    assert dict(play(layout, found.stroke, found.direction).potted)["7"] == pocket
    assert made("M8", layout, (FAR,), Contact()).lands.pots != pocket


@pytest.mark.parametrize("hit", [-0.6, -0.25, 0.3, 0.5])
def test_a_thickness_moves_the_mark_to_its_contact(hit: float) -> None:
    """Where the full count lands, the other one does, that much beside it."""
    layout = lay(PLACES)
    full, thick = made("M1", layout, (FAR,), Contact()), made("M1", layout, (FAR,), Contact(hit=hit))
    assert full.lands.full is not None
    assert thick.lands.full is not None
    assert thick.lands.full - full.lands.full == pytest.approx(hit, abs=0.06)
    assert f"{abs(hit):g} ball {'right' if hit > 0 else 'left'} of full" in thick.say


def test_any_pocket_is_the_one_it_lands_best_for() -> None:
    layout = lay({"cue": (4.1, 1.7), "7": (6.7, 0.4)})
    found = made("M8", layout, (FAR,), Contact(pocket="any"))
    assert (found.pocket, found.potted) == ("foot-near", True)
    every = [c for c in all_counts(layout, (FAR,), cue=HOUSE, contact=Contact(pocket="any")) if isinstance(c, Count)]
    assert len(every) >= 5
    assert all(c.pocket is not None and c.potted == (c.lands.pots == c.pocket) for c in every)


def test_a_combination_is_counted_to_the_contact_of_its_first_ball() -> None:
    """The 2 has to go to the ghost ball of the 7: recounted by hand, two radii behind each in line."""
    places = {"cue": (2.5, 1.0), "7": (7.3, 0.7), "2": (6.6, 1.4)}
    layout = lay(places)
    found = made("M1", layout, (FAR,), Contact(pocket="foot-near", met="2"))
    reach = 2 * POOL.ball_radius

    def ghost(ball: tuple[float, float], goal: tuple[float, float]) -> tuple[float, float]:
        far = math.dist(ball, goal)
        return ball[0] - (goal[0] - ball[0]) * reach / far, ball[1] - (goal[1] - ball[1]) * reach / far

    seven, two = ((x * POOL.diamond_x, y * POOL.diamond_y) for x, y in (places["7"], places["2"]))
    x, y = ghost(two, ghost(seven, (POOL.length, 0.0)))
    assert found.goal is not None
    assert found.goal == pytest.approx((x / POOL.diamond_x, y / POOL.diamond_y))
    assert "by way of the 2" in found.say
    assert play(layout, found.stroke, found.direction).first_ball == "2"


def test_what_no_count_can_carry_says_why() -> None:
    behind = count(
        "M1", lay({"cue": (7.0, 2.0), "7": (4.0, 1.0)}), (FAR,), cue=HOUSE, contact=Contact(pocket="foot-far")
    )
    assert isinstance(behind, NoCount)
    assert "would have to be cut" in behind.reason
    frozen = count(
        "M1", lay({"cue": (2.0, 1.0), "7": (5.0, 0.09)}), (FAR,), cue=HOUSE, contact=Contact(pocket="side-far")
    )
    assert isinstance(frozen, NoCount)
    assert "no ghost ball fits behind the 7" in frozen.reason
    with pytest.raises(BadInputError, match="not a thickness"):
        Contact(hit=1.5)
    with pytest.raises(BadInputError, match="unknown pocket"):
        counted("M1", lay(PLACES), (FAR,), contact=Contact(pocket="nowhere"))
