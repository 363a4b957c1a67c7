"""A count's verdict is what happens when it is played. Set-ups of practitioners; common practice, no published source."""

import math
import random
import re
from dataclasses import replace

import pytest
from tests.conftest import all_counts

from fandle.core.errors import EngineError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.cue import HOUSE, IDEAL
from fandle.core.shot.play import play
from fandle.core.systems import verdict
from fandle.core.systems.base import Count
from fandle.core.systems.registry import count
from fandle.core.systems.verdict import proved, room_said, verdict_of, way_of
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

CORNER = Layout(
    standard_table("pool-8ft"), "eight-ball", (Ball("cue", 0.4, 0.14), Ball("1", 0.06, 3.94)), "1"
)  # from the corner to a ball that hangs in the other corner of the head rail
HANGING = Layout(standard_table("pool-9ft"), "nine-ball", (Ball("cue", 4.0, 0.4), Ball("7", 7.9, 0.08)), "7")


def counts(layout: Layout) -> list[Count]:
    return [each for each in all_counts(layout, cue=HOUSE) if isinstance(each, Count)]


def test_a_ball_in_the_corner_that_is_hit_and_potted_is_not_called_a_miss() -> None:
    """M5 over foot, told "a miss by 4 balls" when the last leg was cut off at the adjoining rail."""
    found = count("M5", CORNER, (Rail.FOOT,), cue=HOUSE)
    assert isinstance(found, Count)
    shot = play(CORNER, found.stroke, found.direction)
    assert shot.first_ball == "1"
    assert ("1", "head-far") in shot.potted
    assert (found.lands.hits, found.lands.pots) == (True, "head-far")
    assert found.lands.after == (Rail.FAR,)
    assert verdict_of(found.lands) == "hits after the far rail too"


@pytest.mark.parametrize("layout", [CORNER, HANGING], ids=["corner", "hanging"])
def test_nothing_in_a_verdict_contradicts_the_played_shot(layout: Layout) -> None:
    for found in counts(layout):
        lands, shot = found.lands, play(layout, found.stroke, found.direction)
        assert lands.hits == (shot.first_ball == layout.target), found.method
        assert lands.hits == (lands.off_balls < 1.0) == (lands.full is not None)
        assert dict(shot.potted).get(layout.target or "") == lands.pots
        said = f"{verdict_of(lands)}: {room_said(lands)}"
        assert said.startswith("hits") == lands.hits
        assert "by 0 " not in said
        assert "by 0.0 " not in said


def test_systems_whose_own_aim_pots_a_hanging_ball_say_so() -> None:
    """From (4, 0.4) at the 7 on (7.9, 0.08) five systems were told to miss, and all five pot it."""
    potting = [found.method for found in counts(HANGING) if found.lands.pots == "foot-near"]
    assert len(potting) >= 5
    assert counts(HANGING)[0].lands.hits


def test_a_way_that_ends_where_it_begins_has_a_distance() -> None:
    """A frozen ball lies on the line: the count goes by, as far as the ball is away (found by the campaign)."""
    table = standard_table("pool-9ft")
    touching = 1.3 + 2 * table.ball_radius / table.diamond_x * 0.6, 1.2 + 2 * table.ball_radius / table.diamond_y * 0.8
    layout = Layout(table, "nine-ball", (Ball("cue", 1.3, 1.2), Ball("7", 5.3, 1.2), Ball("8", *touching)), "7")
    for found in counts(layout):
        assert math.isfinite(found.lands.off_balls)
    blocked = [found for found in counts(layout) if found.rails == (Rail.FAR,)]
    assert blocked
    assert not any(found.lands.hits for found in blocked)


def test_how_full_it_is_hit_is_the_offset_of_the_played_way() -> None:
    layout = Layout(standard_table("pool-9ft"), "nine-ball", (Ball("cue", 1.3, 1.2), Ball("7", 5.3, 1.2)), "7")
    found = count("M3", layout, (Rail.FAR,), cue=IDEAL)
    assert isinstance(found, Count)
    assert found.lands.full is not None
    assert abs(found.lands.full) == pytest.approx(found.lands.off_balls)
    shot = play(layout, found.stroke, found.direction)
    met = next(event for event in shot.events if event.kind == "ball")
    heading = next(piece.heading for piece in reversed(shot.paths["cue"]) if piece.t < met.t - 1e-9)
    gap_x = (5.3 - met.x) * layout.table.diamond_x
    gap_y = (1.2 - met.y) * layout.table.diamond_y
    right = (math.cos(heading) * gap_y - math.sin(heading) * gap_x) / (2 * layout.table.ball_radius)
    assert found.lands.full == pytest.approx(right, abs=0.02)


def test_advice_for_squirt_is_played_as_it_is_written_and_never_an_in_off() -> None:
    """From the corner its advice was one; on layouts at random the mark advised hits."""
    advised, rng = 0, random.Random(31)
    laid = [CORNER, HANGING]
    for _ in range(8):
        cue = Ball("cue", rng.uniform(0.5, 3.0), rng.uniform(0.2, 1.5))
        target = Ball("7", rng.uniform(4.5, 7.5), rng.uniform(0.1, 0.4))
        laid.append(Layout(standard_table("pool-9ft"), "nine-ball", (cue, target), "7"))
    for layout, found in [(there, each) for there in laid for each in counts(there)]:
        told = re.search(r"aim at ([\d.]+)\.$", found.squirt)
        assert told is not None or found.squirt == "" or found.squirt.endswith("that is already in the number.")
        for mark in [] if told is None else [float(told[1])]:
            start = layout.metres(layout.cue)
            shot = play(layout, found.stroke, direction_to(layout.table, found.rails[0], start, mark, found.frame))
            assert shot.first_ball == layout.target
            assert "cue" not in dict(shot.potted)
            advised += 1
    assert advised >= 2


def test_of_two_balls_that_touch_the_cue_ball_the_one_that_takes_the_blow_is_met() -> None:
    """All round, whichever of the two is asked of: the verdict is the played shot (found by the campaign)."""
    table = standard_table("pool-9ft")
    reach_x, reach_y = 2 * table.ball_radius / table.diamond_x, 2 * table.ball_radius / table.diamond_y
    around = {"1": math.radians(145), "4": math.radians(236)}
    beside = [Ball(name, 5.0 + reach_x * math.cos(at), 2.0 + reach_y * math.sin(at)) for name, at in around.items()]
    layout = Layout(table, "nine-ball", (Ball("cue", 5.0, 2.0), *beside), "1").settled()
    assert layout.touch("cue", "1")
    assert layout.touch("cue", "4")
    made = counts(layout)[0]
    hit = {"1": 0, "4": 0}
    for k in range(72):
        found = replace(made, direction=math.radians(5 * k))
        first = play(layout, found.stroke, found.direction).first_ball
        for name in hit:
            touching = first == name and not way_of(layout, found).rails
            if touching:
                assert proved(layout, found, layout.ball(name)).hits
                hit[name] += 1
            elif first != name:
                assert not proved(layout, found, layout.ball(name)).hits
    assert min(hit.values()) >= 5


def test_a_count_stands_where_its_balls_never_stop_knocking(monkeypatch: pytest.MonkeyPatch) -> None:
    """A rack among dead cushions may make more contacts than the engine plays: then nothing is known to drop."""
    layout = Layout(
        standard_table("pool-9ft"), "nine-ball", (Ball("cue", 2.0, 1.0), Ball("1", 6.0, 1.0), Ball("2", 4.4, 3.2)), "1"
    )

    def never(*_: object) -> None:
        raise EngineError("more contacts than are played")

    monkeypatch.setattr(verdict, "play", never)
    found = counts(layout)
    assert found
    assert any(each.lands.hits for each in found)
    assert all(each.lands.pots is None for each in found)
