"""Systems are judged by the strokes they are taught with. Common practice, no published source."""

import pytest
from tests.conftest import all_counts

from fandle.core.constants import MEDIUM_LENGTHS
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.play import play
from fandle.core.systems.base import Count
from fandle.core.systems.mapped import landings
from fandle.core.systems.registry import count
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table, usual_game

BY_EYE = ("M1", "M6", "M7", "M8", "M9", "M12", "M13")
FAR, FOOT, NEAR, HEAD = Rail.FAR, Rail.FOOT, Rail.NEAR, Rail.HEAD


def lay(table: str, cue: tuple[float, float], target: tuple[float, float]) -> Layout:
    kind = standard_table(table)
    name = "red1" if table.startswith("snooker") else "7"
    return Layout(kind, usual_game(kind), (Ball("cue", *cue), Ball(name, *target)), name)


def counted(method: str, layout: Layout, rails: tuple[Rail, ...]) -> Count:
    found = count(method, layout, rails, cue=HOUSE)
    assert isinstance(found, Count), found
    return found


@pytest.mark.parametrize(("table", "lengths"), [("pool-9ft", MEDIUM_LENGTHS), ("snooker-12ft", 2.0)])
def test_lines_by_eye_are_played_plain_at_medium_and_gently_in_snooker(table: str, lengths: float) -> None:
    seen = set()
    for cue, target in (((1.3, 1.2), (5.4, 1.6)), ((2.0, 0.8), (6.4, 0.7))):
        for found in all_counts(lay(table, cue, target), cue=HOUSE):
            if isinstance(found, Count) and found.method in BY_EYE:
                assert found.stroke.side == found.stroke.up == 0.0
                assert found.lengths == pytest.approx(lengths, abs=0.01) or "the least that does" in found.say
                seen.add(found.method)
    assert seen == set(BY_EYE)


def test_angles_backwards_hits_at_medium() -> None:
    """From (2.0, 0.8) at (6.4, 0.7) over far and foot: at 4¼ m/s it was 0.77 long."""
    layout = lay("pool-9ft", (2.0, 0.8), (6.4, 0.7))
    found = counted("M12", layout, (FAR, FOOT))
    assert found.lands.hits
    assert play(layout, found.stroke, found.direction).first_ball == "7"


def test_where_the_usual_stroke_stops_on_the_way_the_least_that_arrives_is_played_and_said() -> None:
    """Three rails at snooker's gentle pace: the ball stops; a quarter of a length softer than what is told it does."""
    layout = lay("snooker-12ft", (1.0, 0.6), (4.6, 0.5))
    found = counted("M12", layout, (FAR, FOOT, NEAR))
    assert found.lengths > 2.2
    assert "Its usual 2 lengths do not get there" in found.say
    shot = play(layout, found.stroke, found.direction)
    assert [event.rail for event in shot.events if event.ball == "cue" and event.rail][:3] == [FAR, FOOT, NEAR]


def test_a_map_plays_the_same_strokes() -> None:
    """A map says what the count says, also where the usual stroke would stop on the way."""
    layout = lay("snooker-12ft", (1.0, 0.6), (4.6, 0.5))
    starts = [(1.0 + k / 4, 0.6 + k / 10) for k in range(8)]
    found = landings("M12", layout, (FAR, FOOT, NEAR), starts, HOUSE)
    harder = 0
    for k, start in enumerate(starts):
        one = count("M12", lay("snooker-12ft", start, (4.6, 0.5)), (FAR, FOOT, NEAR), cue=HOUSE)
        assert isinstance(one, Count) == bool(found.counted[k])
        if isinstance(one, Count):
            assert found.off[k] == pytest.approx(one.lands.off, abs=1e-6)
            harder += one.lengths > 2.2
    assert harder >= 3
