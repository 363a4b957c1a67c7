"""A stretch of directions is not one line: every way to a ball on is told, and none that there is is refused.

Looked for by a sweep of our own engine, which `tests/reference/` holds against another.
"""

import math
import random
from dataclasses import replace

import numpy as np
import pytest
from campaign.plans import layout as random_layout

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.field import Field, rails_of
from fandle.core.choice.report import Plan
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import CAROM_GAMES, GAMES
from fandle.core.layout.model import Layout
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.player.scatter import CLUB
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS

SWEPT = 3600
WIDE = 4  # of those directions side by side: 0.4°
POCKETED = [game for game in GAMES if game not in CAROM_GAMES]
Way = tuple[str, tuple[Rail, ...]]


def laid(table: str, balls: dict[str, tuple[float, float]], target: str = "1") -> Layout:
    return Layout(STANDARDS[table], "nine-ball", tuple(Ball(name, *at) for name, at in balls.items()), target)


def planned(layout: Layout, stroke: Stroke, strokes: str = "this", every: bool = True, draws: int = 60) -> Plan:
    wish = replace(wish_of("hit", CLUB, strokes, None, draws, 0, layout), every=every)
    return finish(plan(Situation(layout, stroke), wish, 2))


def ways_of(layout: Layout, stroke: Stroke) -> list[Way]:
    """What goes over the same rails to the same ball on, off no jaw, in more than 0.4° side by side."""
    field = Field.of(layout)
    at = 2 * math.pi * (np.arange(SWEPT) + 0.5) / SWEPT
    out = finish(field.met(at, np.repeat(stroke.array()[None], SWEPT, 0)))
    met: list[Way | None] = []
    for first, rails, count, jaw in zip(out.first, out.cue_rails, out.before_first, out.jaw, strict=True):
        on = first in field.court.on and count <= 4 and not jaw
        met.append((field.name(int(first)), rails_of(rails[:count].tolist())) if on else None)
    runs = [met[k] for k in range(SWEPT) if all(met[(k + step) % SWEPT] == met[k] for step in range(WIDE + 1))]
    return sorted({way for way in runs if way is not None})


@pytest.mark.parametrize("seed", range(12))
def test_every_way_is_listed_and_none_that_there_is_is_refused(seed: int) -> None:
    """Random layouts of every game on every table with pockets, at a stroke of their own."""
    rng = random.Random(seed)
    layout, stroke = random_layout(rng, POCKETED[seed % len(POCKETED)]), Stroke(rng.uniform(1.2, 5.0))
    found = planned(layout, stroke)
    ways = ways_of(layout, stroke)
    assert len(ways) > 2
    assert set(ways) <= {(line.target, line.rails) for line in found.lines}
    ways_refused = [no for no in found.refused if no.kind in ("straight", "kick")]
    solved = [no for no in ways_refused if isinstance(solve_kick(layout, no.rails, stroke, no.target), Aim)]
    assert solved == []


def test_a_ball_near_a_corner_is_met_straight_too() -> None:
    """Three ways in one run of 15°: the straight one was left out, and refused as blocked by the ball itself."""
    layout, stroke = laid("pool-7ft", {"cue": (6.2, 2.6), "1": (1.2, 3.7)}), Stroke(2.0)
    found = planned(layout, stroke)
    by_rails = {line.rails: line for line in found.lines}
    straight = by_rails[()]
    assert straight.also == ((Rail.FAR,), (Rail.HEAD,))
    assert straight.window_deg == pytest.approx(by_rails[(Rail.FAR,)].window_deg, abs=0.01)
    assert any("over the far rail" in reason.say for reason in straight.pros)
    assert not any(no.kind == "straight" for no in found.refused)
    for line in found.lines:
        shot = play(layout, line.stroke, line.direction)
        assert shot.first_ball == "1"
        assert tuple(event.rail for event in shot.events[: len(line.rails)]) == line.rails


def test_a_rail_beyond_the_ball_is_a_line() -> None:
    """`aim --rails foot` solves it: the foot rail first, the ball a hand before it."""
    layout = laid("pool-9ft", {"cue": (4.0, 1.2), "1": (7.5, 2.4)})
    stroke = Stroke(default_speed(layout.table))
    assert isinstance(solve_kick(layout, (Rail.FOOT,), stroke, "1"), Aim)
    found = planned(layout, stroke)
    assert (Rail.FOOT,) in {line.rails for line in found.lines}
    assert (Rail.FOOT,) not in {no.rails for no in found.refused}


def test_four_ways_in_one_run_are_lines_of_their_own() -> None:
    """The 1 in the head-far corner, the 8 in between: each has the room of the whole and a mark of its own."""
    balls = {"cue": (4.9746, 1.5882), "1": (0.7918, 3.6433), "8": (4.9173, 0.3777)}
    layout = laid("pool-7ft", balls)
    found = planned(layout, Stroke(default_speed(layout.table)))
    room = next(line.window_deg for line in found.lines if line.rails == ())
    together = [line for line in found.lines if abs(line.window_deg - room) < 0.05]
    assert {line.rails for line in together} == {(), (Rail.HEAD,), (Rail.FAR,)}
    assert len({line.direction for line in together}) == 3
    assert all(set(line.also) | {line.rails} == {(), (Rail.HEAD,), (Rail.FAR,)} for line in together)


def test_what_there_was_no_room_for_is_counted_and_told_when_asked_for() -> None:
    """Straight pool, ten balls on: 24 lines, and how many more; all of them, the same ones first."""
    rng = random.Random(48)
    layout, stroke = random_layout(rng, "straight"), Stroke(3.2)
    some, every = planned(layout, stroke, every=False), planned(layout, stroke)
    assert len(some.lines) <= 24
    assert some.more > 10
    assert every.more == 0
    assert len(every.lines) == pytest.approx(len(some.lines) + some.more, abs=2)  # one of 0.2° may be either
    told = {line.identity for line in every.lines}
    assert all(line.identity in told for line in some.lines)
    assert max(line.wanted.p for line in every.lines) == max(line.wanted.p for line in some.lines)


def test_all_usual_strokes_may_be_asked_for_all_lines_too() -> None:
    layout = laid("pool-7ft", {"cue": (4.9746, 1.5882), "1": (0.7918, 3.6433), "8": (4.9173, 0.3777)})
    stroke = Stroke(default_speed(layout.table))
    some, every = planned(layout, stroke, "usual", every=False), planned(layout, stroke, "usual")
    assert some.more > 0
    assert len(every.lines) > len(some.lines)
    assert every.more == 0
