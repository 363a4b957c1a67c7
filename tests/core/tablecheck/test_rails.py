"""A rail that answers otherwise than the other three is named; a table of four alike rails is left in peace."""

from dataclasses import replace

import numpy as np
import pytest
from campaign.invented import POOL, STEADY, odd_evening
from tests.amount import amount

from fandle.core.errors import BadInputError
from fandle.core.shot.approach import approach
from fandle.core.table.rails import Contact, Rail
from fandle.core.tablecheck.evidence import Seen, own_shot
from fandle.core.tablecheck.fit import NUMBERS, likeliest, moved
from fandle.core.tablecheck.rails import odd_rail
from fandle.core.tablecheck.shots import reference_shot

TABLES = amount(5, 12)
DEADER = -0.1  # of restitution


def _named(odd: Rail, by: float) -> list[Rail | None]:
    found = []
    for seed in range(TABLES):
        rng = np.random.default_rng(seed)
        hidden = moved(POOL, rng.standard_normal(len(NUMBERS)))
        hidden = replace(hidden, cushion_restitution=min(hidden.cushion_restitution, 0.9))
        seen = odd_evening(hidden, odd, by, STEADY, 2, rng)
        rail = odd_rail(*likeliest(POOL, seen, STEADY))
        assert rail is None or rail.sd > 0.0
        found.append(None if rail is None else rail.rail)
    return found


@pytest.mark.proof
@pytest.mark.parametrize(("odd", "least"), [(Rail.FOOT, 0.7), (Rail.FAR, 0.4), (Rail.NEAR, 0.4), (Rail.HEAD, 0.4)])
def test_a_dead_rail_is_named(odd: Rail, least: float) -> None:
    named = _named(odd, DEADER)
    assert named.count(odd) >= least * TABLES
    assert len([rail for rail in named if rail not in (None, odd)]) <= amount(1, 2)


@pytest.mark.proof
def test_of_four_alike_none_is() -> None:
    assert _named(Rail.FAR, 0.0).count(None) >= TABLES - 1


def test_it_says_which_and_how() -> None:
    rng = np.random.default_rng(3)
    seen = odd_evening(POOL, Rail.FOOT, DEADER, STEADY, 3, rng)
    rail = odd_rail(*likeliest(POOL, seen, STEADY))
    assert rail is not None
    assert rail.say.startswith("the foot rail is deader than the other three")
    assert rail.off < 0.0


def test_contacts_out_of_order_are_refused() -> None:
    three = reference_shot(POOL, "three")
    Seen(three, (Contact(Rail.FAR, 5.0), Contact(Rail.NEAR, 4.0)))  # one left out is no matter
    with pytest.raises(BadInputError, match="watched at far, foot, near, in this order; landed has foot, far"):
        Seen(three, (Contact(Rail.FOOT, 2.0), Contact(Rail.FAR, 5.0)))
    with pytest.raises(BadInputError, match="in this order"):
        Seen(three, (Contact(Rail.HEAD, 2.0),))


def test_contacts_of_a_shot_of_ones_own_out_of_order_are_refused() -> None:
    """Far, foot, near as it is played, none or one left out; at a corner either of two rails may come first."""
    corner = reference_shot(POOL, "corner")
    way = approach(corner.layout, corner.stroke, corner.direction).events[:3]
    far, foot, near = (Contact(ev.rail, ev.rail.along(ev.x, ev.y)) for ev in way if ev.rail is not None)
    shot = corner.layout, corner.stroke, corner.direction
    own_shot(*shot, (far, near), None)
    assert own_shot(*shot, (far, foot, near), None).setup.watch == (Rail.FAR, Rail.FOOT, Rail.NEAR)
    with pytest.raises(BadInputError, match="meets far, foot, near, in this order; landed has foot, far, near"):
        own_shot(*shot, (foot, far, near), None)
    own_shot(*shot, (Contact(Rail.FOOT, 3.6), Contact(Rail.FAR, 7.7)), None)
    with pytest.raises(BadInputError, match="needs its contacts"):
        own_shot(*shot, (), None)
