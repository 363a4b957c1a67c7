"""The list says the true reason and leads with the plain thing: set-ups of practitioners, each claim played.

Common practice, no published source, where no other is named.
"""

import math
import random
from dataclasses import replace

import numpy as np
import pytest
from tests.amount import amount

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.chance import shooter
from fandle.core.choice.field import Field
from fandle.core.choice.reach import reach_of, shortfall
from fandle.core.choice.strokes import Tried
from fandle.core.choice.sweep import hits, looks
from fandle.core.choice.told import Line
from fandle.core.choice.wish import Then, zone_of
from fandle.core.handbook.close_work import technique_page
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.question import ask
from fandle.core.lines.reading import on_rail, read_at
from fandle.core.lines.refusal import refuse
from fandle.core.player.body import Body
from fandle.core.player.scatter import CLUB
from fandle.core.shot.approach import approach
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS, standard_table

from .test_plan import POOL, choose, codes, lay, random_layout

SNOOKER = STANDARDS["snooker-12ft"]


def planned(layout: Layout, goal: str = "hit", speed: float | None = None, **more: object) -> tuple[Line, ...]:
    wish = replace(wish_of(goal, CLUB, "usual", None, 200, 0, layout), **more)  # type: ignore[arg-type]
    stroke = Stroke(default_speed(layout.table) if speed is None else speed)
    return finish(plan(Situation(layout, stroke), wish, 2)).lines


# Reach is where a body can stand.


def test_beside_a_long_rail_one_stands_beside_the_cue() -> None:
    """Snooker, from (5.5, 3.6) at a red on (7.5, 3.5): nothing between, and a player leans over the far rail."""
    layout = lay({"cue": (5.5, 3.6), "red1": (7.5, 3.5), "black": (7.273, 2.0)}, "snooker", target="red1")
    lines = planned(layout)
    assert (lines[0].kind, lines[0].target) == ("straight", "red1")
    assert play(layout, lines[0].stroke, lines[0].direction).first_ball == "red1"
    assert "reach" not in codes(lines[0])


def test_an_open_ball_by_the_rail_needs_no_mechanical_bridge() -> None:
    layout = lay({"cue": (4.0, 3.2), "7": (7.0, 3.3)})
    line = planned(layout)[0]
    assert line.kind == "straight"
    assert "reach" not in codes(line)
    assert shortfall(POOL, layout.metres(layout.cue), line.direction) == 0.0


def test_the_middle_of_a_snooker_table_along_it_is_for_the_rest() -> None:
    middle, off = (4.0 * SNOOKER.diamond_x, 2.0 * SNOOKER.diamond_y), (4.0 * SNOOKER.diamond_x, 1.4 * SNOOKER.diamond_y)
    assert shortfall(SNOOKER, middle, 0.0) > 0.05
    assert shortfall(SNOOKER, middle, math.radians(90.0)) == 0.0  # across it one stands behind
    assert shortfall(SNOOKER, off, 0.0) == 0.0  # leaning over the near rail
    assert shortfall(SNOOKER, middle, 0.0, Body("tall")) < shortfall(SNOOKER, middle, 0.0, Body("short"))


def test_a_hand_says_on_which_side_of_the_cue_one_stands() -> None:
    """By the near rail, shooting along it towards foot: a right-hander stands left of the cue, on the table's side."""
    place = 4.0 * SNOOKER.diamond_x, 0.6 * SNOOKER.diamond_y
    assert shortfall(SNOOKER, place, 0.0, Body(hand="left")) == 0.0
    assert shortfall(SNOOKER, place, 0.0, Body(hand="right")) > 0.0
    assert shortfall(SNOOKER, place, math.pi, Body(hand="right")) == 0.0


def test_out_of_reach_is_a_reason_and_costs_a_quarter_more_scatter_and_no_line() -> None:
    layout = lay({"cue": (4.0, 2.0), "red1": (6.5, 2.0), "black": (7.273, 2.0)}, "snooker", target="red1")
    found = choose(layout, strokes="usual", draws=100)
    straight = next(line for line in found.lines if line.kind == "straight")
    assert "reach" in codes(straight)
    assert any(reason.say.endswith("cm out of reach: with the rest") for reason in straight.cons)
    with_it = shooter(Field.of(layout), CLUB, straight.direction)
    assert with_it.direction_deg == pytest.approx(1.25 * CLUB.direction_deg)
    assert not any(no.reason_code == "out_of_reach" for no in found.refused)


def test_a_ball_is_under_the_hand_only_where_no_bridge_has_room() -> None:
    at = (4.0, 1.0)
    beside = lay({"cue": at, "7": (7.0, 1.0), "8": (4.0 - 0.2 / POOL.diamond_x, 1.0)}, target="7")
    assert reach_of(beside, 0.0).under is None  # a longer bridge goes over it
    both = lay(
        {"cue": at, "7": (7.0, 1.0), "8": (4.0 - 0.19 / POOL.diamond_x, 1.0), "9": (4.0 - 0.28 / POOL.diamond_x, 1.0)},
        target="7",
    )
    under = reach_of(both, 0.0).under
    assert under is not None
    assert under.id == "8"


# The list says the true reason and leads with the plain thing.


def test_a_pot_that_cannot_leave_the_cue_ball_there_is_told_as_that() -> None:
    """The pot is certain; the zone is for hardly any stroke: the pot stands, with what it leaves, and nothing is said
    to be in its own way."""
    layout = lay({"cue": (4.6, 1.4), "7": (6.6, 3.0)})
    wish = replace(wish_of("pot", CLUB, "usual", None, 200, 0, layout), then=Then(zones=(zone_of("2,3.6,0.2"),)))
    found = finish(plan(Situation(layout, Stroke(default_speed(POOL))), wish, 2))
    first = found.lines[0]
    assert (first.kind, first.pocket) == ("straight", "foot-far")
    assert first.chance.share("pot").p > 0.9
    assert first.wanted.p < 0.08
    said = next(reason.say for reason in first.cons if reason.code == "zone")
    assert said.startswith("does not leave it there: stops ")
    assert not any("the 7 is in the way" in no.reason for no in found.refused)
    assert not any(no.kind == "jump" for no in found.refused)


def test_a_ball_that_is_met_is_never_in_its_own_way() -> None:
    layout = lay({"cue": (4.6, 1.4), "7": (6.6, 3.0)})
    told = refuse(ask(layout, (), "7", 0.0), Stroke(3.0), math.atan2(1.6, 2.0))
    assert (told.reason_code, told.by) == ("no_such_line", "7")
    assert "in the way" not in told.reason


def test_side_leads_only_where_it_gains() -> None:
    """Of the lines with side each is likelier than the best without, by a twentieth; plain only has none."""
    layout = lay({"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5)}, target="7")
    usual = [line for line in planned(layout) if line.kind == "kick" and not line.technique]
    sided = {line.rails: line for line in usual if abs(line.stroke.side) > 0.01}
    plain = {line.rails: line for line in planned(layout, plain=True) if not line.technique}
    assert all(line.stroke.side == 0.0 for line in plain.values())
    both = set(sided) & set(plain)
    assert len(both) >= 3
    assert all(sided[way].wanted.p >= plain[way].wanted.p + 0.04 for way in both)
    assert len(plain) >= 3


def test_a_ball_behind_another_is_reached_by_a_curve_of_twelve_to_twenty_degrees() -> None:
    """From (4.6, 0.6), the 8 on (5.9, 0.36) before the 1 on (7.6, 0.22): straight it is hidden."""
    layout = lay({"cue": (4.6, 0.6), "8": (5.9, 0.36), "1": (7.6, 0.22)}, "eight-ball", target="1")
    curve = next(line for line in planned(layout, speed=2.0) if line.kind == "curve")
    assert 12.0 <= curve.stroke.elevation <= 20.0
    shot = play(layout, curve.stroke, curve.direction)
    assert shot.first_ball == "1"
    assert not [event for event in shot.events[:1] if event.kind == "rail"]
    assert curve.chance.share("hit").p > 0.5


@pytest.mark.parametrize(("method", "goal"), [("M21", "pot"), ("M25", "pot"), ("M20", "pot")])
def test_close_work_stands_in_the_list_with_its_techniques_stroke(method: str, goal: str) -> None:
    layout = technique_page(method).example
    line = next(line for line in planned(layout, goal) if line.technique == method)
    shot = play(layout, line.stroke, line.direction)
    assert (line.target, line.pocket) in shot.potted


def test_a_combination_over_two_rails_is_found() -> None:
    layout = lay({"cue": (2.09, 3.48), "1": (1.38, 2.66), "9": (1.1, 1.19)}, target="1")
    found = [line for line in planned(layout, "pot") if line.kind == "combination"]
    assert any(_rails_before(layout, line) >= 2 for line in found)


def _rails_before(layout: Layout, line: Line) -> int:
    """Rails that the first ball meets before it meets the one that drops; that one does drop."""
    shot = play(layout, line.stroke, line.direction)
    assert (line.target, line.pocket) in shot.potted
    first = line.through[0]
    rails = 0
    for event in shot.events:
        if event.kind == "rail" and event.ball == first:
            rails += 1
        if event.kind == "ball" and {event.ball, event.other} == {first, line.target}:
            break
    return rails


# No mark off the rail.


def test_a_mark_past_the_end_is_read_at_the_rail_the_line_comes_to() -> None:
    start = (6.0 * POOL.diamond_x, 3.0 * POOL.diamond_y)
    at = read_at(POOL, Rail.FAR, start, math.radians(10.0))
    assert at.rail is Rail.FOOT
    assert at.aim is not None
    assert 3.0 < at.aim.nose < 4.0
    into = read_at(POOL, Rail.FAR, start, math.atan2(POOL.width - start[1] - 0.01, POOL.length - start[0]))
    assert (into.aim, into.mark.grade) == (None, "between")
    assert into.mark.say == "the middle of the foot-far pocket"


@pytest.mark.proof
@pytest.mark.parametrize("seed", range(amount(2, 6)))
def test_no_number_lies_off_its_rail(seed: int) -> None:
    places = [(0.3 + 1.2 * seed, 0.3), (7.7, 3.7 - 0.3 * seed), (4.0, 2.0)]
    layout = lay(dict(zip(("cue", "1", "9"), places, strict=True)), target="1")
    for goal in ("hit", "pot"):
        for line in planned(layout, goal):
            if line.aim is None:
                assert line.mark.grade == "between"
                assert "pocket" in line.mark.say or "corner" in line.mark.say
            else:
                assert on_rail(line.aim, line.mark_rail) == line.aim


def test_an_open_ball_is_told_straight_and_met_before_the_rail() -> None:
    """Frozen to the rail, met straight in a tenth of the directions and off the rail in the rest (found by the campaign)."""
    places = {
        "cue": (3.046681, 0.427372), "12": (3.713, 0.098), "7": (0.293, 2.659), "4": (0.654, 0.0978261), "6": (5.214, 1.952),
        "8": (3.738, 1.151), "5": (0.428, 3.027), "10": (0.447, 0.0978261), "15": (3.436, 1.008),
    }  # fmt: skip
    layout = Layout(STANDARDS["pool-8ft"], "nine-ball", tuple(Ball(name, *place) for name, place in places.items()))
    stroke = Stroke(4.1620901)
    found = finish(plan(Situation(layout, stroke), wish_of("hit", CLUB, "this", None, 40, 3226, layout), 2))
    straight = next(line for line in found.lines if line.kind == "straight" and line.target == "4")
    first = play(layout, straight.stroke, straight.direction).events[0]
    assert (first.kind, first.other) == ("ball", "4")


def test_what_lies_between_the_looks_of_a_crawl_is_no_stretch() -> None:
    """Straight pool, seven-foot: the 8 shows beside the 11. A soft push meets it at the edge of what was looked at
    round two other balls, 30° apart: that was one stretch, named straight and aimed over two rails."""
    table = standard_table("pool-7ft")
    places = {
        "cue": (5.9623, 1.1363), "10": (5.7812, 0.1154), "8": (2.7381, 2.0522), "11": (3.6104, 1.4825),
        "14": (2.6299, 0.3229), "2": (7.4058, 0.8428), "1": (7.611, 2.9189), "12": (0.4965, 3.5834),
        "5": (1.5843, 0.3583), "7": (5.9279, 2.3682),
    }  # fmt: skip
    laid = Layout(table, "straight", tuple(Ball(name, x, y) for name, (x, y) in places.items()), "10")
    field, crawl = Field.of(laid), Tried(Stroke(1.6355), 1.7423, crawls=True)
    look = finish(looks(field, [crawl]))[0]
    for stretch in hits(field, look):
        assert np.diff(np.array([stretch.low, *stretch.at, stretch.high])).max() < math.radians(2.0)
    wish = wish_of("safe", CLUB, "usual", None, 40, 5387, laid)
    found = finish(plan(Situation(laid, Stroke(2.2898)), wish, 2))
    assert "straight" in {line.kind for line in found.lines if line.target == "8"}


@pytest.mark.proof
@pytest.mark.parametrize("game", ["nine-ball", "straight", "snooker"])
def test_a_line_is_aimed_over_its_own_rails_and_has_the_error_of_a_mark_only_where_it_has_one(game: str) -> None:
    """A ball near a rail is met off it and straight, side by side: the kick is aimed off the rail, the straight shot at
    the ball, which no mark's error belongs to. Out of reach the scatter is a quarter wider, and said to be."""
    rng = random.Random(game)
    for seed in range(amount(4, 12)):
        laid = random_layout(rng, game, 5)
        found = finish(
            plan(Situation(laid, Stroke(rng.uniform(1.5, 4.5))), wish_of("hit", CLUB, "this", None, 60, seed, laid), 2)
        )
        for line in found.lines:
            way = approach(laid, line.stroke, line.direction)
            assert way.first_ball in found.on
            if line.kind in ("straight", "push"):
                assert (way.rails, line.mark_error) == ((), False)
            elif line.kind in ("kick", "rail-first"):
                assert way.rails == line.rails != ()
            assert line.scatter == (1.0 if reach_of(laid, line.direction, CLUB.body).by_hand else 1.25)
