"""What a count says of cloth and weather is what playing it shows. Common practice, no published source."""

import re
from dataclasses import replace

import pytest

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE
from fandle.core.systems.base import Count
from fandle.core.systems.registry import count
from fandle.core.table.condition import OWN, conditioned
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL = standard_table("pool-9ft")
THREE = (Rail.FAR, Rail.FOOT, Rail.NEAR)


def counted(table: Table, cue: tuple[float, float], target: tuple[float, float]) -> Count:
    layout = Layout(table, "nine-ball", (Ball("cue", *cue), Ball("7", *target)), "7")
    found = count("M14", layout, THREE, cue=HOUSE)
    assert isinstance(found, Count), found
    return found


def told(text: str, pattern: str) -> float:
    found = re.search(rf"(?:([\d.]+) (longer|shorter)|alike){pattern}", text)
    assert found is not None, text
    return 0.0 if found[1] is None else float(found[1]) * (1 if found[2] == "longer" else -1)


@pytest.mark.parametrize(
    ("cue", "target"), [((1.0, 0.3), (5.6, 0.12)), ((0.3, 1.0), (5.0, 0.1)), ((2.0, 0.2), (6.0, 0.1))]
)
def test_what_cloth_does_to_this_very_line(cue: tuple[float, float], target: tuple[float, float]) -> None:
    """The mark is the system's on any cloth, so the same count on another cloth lands where it is said to."""
    here = counted(POOL, cue, target)
    for name, cloth in (("new cloth", "new"), ("damp cloth", "damp")):
        there = counted(conditioned(POOL, cloth, OWN), cue, target)
        assert told(here.adjust, f" on {name}") == pytest.approx(there.lands.off - here.lands.off, abs=0.0051)
    assert "against a standard table" not in here.adjust.lower()


def test_what_this_table_does_against_a_standard_one() -> None:
    mine = replace(conditioned(POOL, "damp", OWN), name="By the window")
    found, usual = counted(mine, (0.3, 1.0), (5.0, 0.1)), counted(POOL, (0.3, 1.0), (5.0, 0.1))
    said = found.adjust.lower().partition("against a standard table this one plays it ")[2]
    assert told(said, ";") == pytest.approx(found.lands.off - usual.lands.off, abs=0.0051)
    assert abs(found.lands.off - usual.lands.off) < 0.3  # the weather's, not the half diamond of a table
