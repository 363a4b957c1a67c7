"""The two-shot test finds the cue that its shots were played with."""

import math
import random
from statistics import median

import pytest

from fandle.core.errors import BadInputError
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import HOUSE, IDEAL, SLIM, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.table.standards import STANDARDS, standard_table
from fandle.core.tablecheck.squirt_test import SIDE, landings, set_up, squirt_of

POOL = standard_table("pool-9ft")


def landed(table_side: float, cue: Cue, aim: float = 0.0, speed: float = 3.0) -> float:
    """Where one shot meets the foot rail, diamonds."""
    stroke = Stroke(speed, table_side, cue=cue)
    return approach(set_up(POOL), stroke, aim, most_rails=1, ignore_balls=True).events[0].y


@pytest.mark.parametrize("table", STANDARDS)
@pytest.mark.parametrize("ratio", [6.0, 15.0, 22.0, 45.0, 120.0])
def test_a_known_cue_is_found_within_two_percent(table: str, ratio: float) -> None:
    """At another speed than it assumes, and sighted a little beside the middle, as a player would."""
    bed = standard_table(table)
    known = Cue("known", "known", ratio)
    found = squirt_of(bed, *landings(bed, known))
    assert found.deg == pytest.approx(known.squirt_deg, rel=0.001)
    left, right = (landed(way * SIDE, known, aim=math.radians(0.3), speed=4.2) for way in (-1.0, 1.0))
    assert squirt_of(POOL, left, right).deg == pytest.approx(known.squirt_deg, rel=0.02)


@pytest.mark.parametrize("known", [HOUSE, SLIM], ids=lambda cue: cue.name)
def test_read_to_5_mm_and_tipped_to_half_a_millimetre_it_is_found_within_15_percent(known: Cue) -> None:
    rng = random.Random(4)
    errors = []
    for _ in range(100):
        tips = (way * SIDE + rng.gauss(0.0, 0.0005) / POOL.ball_radius for way in (-1.0, 1.0))
        left, right = (landed(tip, known) + rng.gauss(0.0, 0.005) / POOL.diamond_y for tip in tips)
        errors.append(abs(squirt_of(POOL, left, right).deg / known.squirt_deg - 1.0))
    assert median(errors) < 0.15
    told = squirt_of(POOL, *landings(POOL, known))
    assert median(errors) == pytest.approx(0.67 * told.sd_deg / told.deg, rel=0.4)  # the error it tells is the real one


def test_what_cannot_be() -> None:
    assert squirt_of(POOL, *landings(POOL, IDEAL)).end_ratio == math.inf
    assert squirt_of(POOL, 2.02, 1.99).deg == 0.0  # within reading
    with pytest.raises(BadInputError, match="further than any cue squirts"):
        squirt_of(POOL, 0.2, 3.8)
    with pytest.raises(BadInputError, match="shows no squirt"):
        squirt_of(POOL, 1.8, 2.2, 0.0)
    with pytest.raises(BadInputError, match="miscue"):
        squirt_of(POOL, 1.8, 2.2, 0.7)
