"""Three cushions: what is called a score scores when it is played, nothing wide is missed, names and kisses are "
"true."""

import itertools
import math
import random

import numpy as np
import pytest
from tests.amount import amount

from fandle.app.carom import product
from fandle.app.choose import plan, wish_for
from fandle.app.situation import Situation
from fandle.core.choice.carom import kiss_said, point_of, way_name
from fandle.core.choice.field import Field, rails_of
from fandle.core.choice.judge import judge
from fandle.core.choice.plan import rank
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import CAROM_GAMES
from fandle.core.layout.model import Layout
from fandle.core.shot.play import Shot, play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.systems.base import Count
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

CAROM = STANDARDS["carom-10ft"]
NEAR, FAR, HEAD, FOOT = Rail.NEAR, Rail.FAR, Rail.HEAD, Rail.FOOT


def spread(seed: int, game: str = "three-cushion") -> Layout:
    """Three balls at random."""
    rng = random.Random(seed)
    while True:
        places = [(rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7)) for _ in range(3)]
        try:
            balls = [Ball(name, *place) for name, place in zip(("cue", "red", "white"), places, strict=True)]
            return Layout(CAROM, game, tuple(balls), "red")
        except BadInputError:
            continue


def scored(shot: Shot) -> tuple[int, list[Rail]] | None:
    """(how many rails before the second ball, all of them), counted here from the events; None without both balls."""
    rails: list[Rail] = []
    met: list[str | None] = []
    for event in shot.events:
        if event.kind == "ball" and "cue" in (event.ball, event.other):
            other = event.other if event.ball == "cue" else event.ball
            if other not in met:
                met.append(other)
            if len(met) == 2:
                return len(rails), rails
        elif event.kind == "rail" and event.ball == "cue" and event.rail is not None:
            rails.append(event.rail)
    return None


@pytest.mark.proof
@pytest.mark.parametrize("first", range(0, amount(10, 100), 10))
def test_what_is_called_a_score_scores_with_three_rails_before_the_second_ball(first: int) -> None:
    """Every line of each layout at its own stroke, ten layouts at a time."""
    told = 0
    for seed in range(first, first + 10):
        layout = spread(seed)
        asked = Situation(layout, Stroke(4.0, 0.15))
        for line in finish(plan(asked, wish_for(asked, "this", 40, 0))).lines:
            shot = play(layout, line.stroke, line.direction)
            found = scored(shot)
            assert found is not None
            assert found[0] >= 3
            assert tuple(found[1]) == line.rails
            assert (line.kind, line.chance.share("pot").p, line.legal) == ("point", 0.0, True)
            assert line.chance.share("legal").p <= line.chance.share("hit").p
            told += 1
    assert told > 10


@pytest.mark.parametrize("seed", [1, 5, 9, 17, 21, 112, 126, 155])
def test_a_brute_sweep_finds_no_wide_line_that_is_missing(seed: int) -> None:
    layout = spread(seed)
    stroke = Stroke(4.0, -0.15)
    asked = Situation(layout, stroke)
    found = finish(plan(asked, wish_for(asked, "this", 40, 0)))
    lines, apart = found.lines, {no.rails for no in found.refused if no.reason_code == "out_of_reach"}
    field, step = Field.of(layout), 2 * math.pi / 7200
    at = -math.pi + step * np.arange(7200)
    out = finish(field.played(np.asarray(at, np.float64), np.repeat(stroke.array()[None], len(at), axis=0)))
    legal = judge(field.court, out, -1, -1).legal
    keys = [
        (int(out.first[k]), tuple(out.cue_rails[k, : out.before_second[k]].tolist())) if legal[k] else None
        for k in range(7200)
    ]
    place, wide = 0, 0
    for key, run in itertools.groupby(keys):
        long = len(list(run))
        low, high, place = at[place], at[place] + (long - 1) * step, place + long
        if key is None or math.degrees(long * step) <= 0.3:
            continue
        wide += 1
        inside = [
            line for line in lines if -2e-3 <= math.remainder(line.direction - low, 2 * math.pi) <= high - low + 2e-3
        ]
        beyond = rails_of(key[1]) in apart  # told as what no bridge reaches
        assert beyond or [line for line in inside if field.number(line.target) == key[0]], (key, math.degrees(low))
    assert wide > 0


@pytest.mark.parametrize(
    ("rails", "before", "name"),
    [
        ((FOOT, FAR, HEAD), 0, "natural"), ((FAR, FOOT, NEAR), 0, "natural"), ((FAR, FOOT, NEAR, HEAD), 0, "round the table"),
        ((NEAR, FOOT, NEAR), 0, "reversed"), ((FAR, NEAR, FAR), 0, "across"), ((FAR, FOOT, NEAR), 1, "rail first"),
        ((FOOT, FAR, NEAR), 0, "across"),
    ],
)  # fmt: skip
def test_ways_have_the_names_players_use(rails: tuple[Rail, ...], before: int, name: str) -> None:
    """Common practice, no published source."""
    assert way_name(rails, before) == name


@pytest.mark.proof
def test_the_nearest_that_two_balls_come_is_read_off_their_paths() -> None:
    """Against both balls' places looked at a thousand times, from the pieces' own motion."""
    checked = 0
    for seed in range(amount(12, 30)):
        layout = spread(seed)
        asked = Situation(layout, Stroke(4.5, 0.2))
        for line in finish(plan(asked, wish_for(asked, "this", 20, 0))).lines[:2]:
            shot = play(layout, line.stroke, line.direction)
            point = point_of(layout, shot)
            assert point == line.point
            assert point is not None
            assert point.kiss is not None
            one, other = (at(shot, layout, name, point.kiss.t) for name in point.kiss.balls)
            gap = 1000 * (math.dist(one, other) - 2 * CAROM.ball_radius)
            assert point.kiss.gap_mm == pytest.approx(max(gap, 0.0), abs=0.5)
            assert point.kiss.t < point.t
            assert [step.t for step in point.steps] == sorted(step.t for step in point.steps)
            checked += 1
    assert checked > amount(4, 10)


def at(shot: Shot, layout: Layout, name: str, t: float) -> tuple[float, float]:
    x, y = layout.metres(layout.ball(name))
    for piece in shot.paths.get(name, ()):
        if t >= piece.t:
            s, (vx, vy, ax, ay) = min(t - piece.t, piece.lasts), piece.motion
            x = piece.start[0] * CAROM.diamond_x + s * (vx + 0.5 * ax * s)
            y = piece.start[1] * CAROM.diamond_y + s * (vy + 0.5 * ay * s)
    return x, y


def test_a_kiss_is_told_only_where_it_is_near() -> None:
    layout = spread(3)
    asked = Situation(layout, Stroke(4.5, 0.2))
    lines = finish(plan(asked, wish_for(asked, "this", 20, 0))).lines
    assert lines
    for line in lines:
        assert line.point is not None
        kiss = line.point.kiss
        near = kiss is not None and kiss.gap_mm <= 60.0
        assert bool(kiss_said(kiss)) is near
    assert kiss_said(None) == ""


@pytest.mark.proof
@pytest.mark.parametrize("game", CAROM_GAMES)
def test_each_carom_game_wants_its_own_cushions(game: str) -> None:
    wanted = {"three-cushion": 3, "one-cushion": 1, "straight-rail": 0}[game]
    counts = []
    for seed in range(amount(4, 12)):
        layout = spread(seed, game)
        asked = Situation(layout, Stroke(3.0))
        for line in finish(plan(asked, wish_for(asked, "this", 20, 0))).lines:
            found = scored(play(layout, line.stroke, line.direction))
            assert found is not None
            counts.append(found[0])
    assert min(counts) == wanted


def test_straight_rail_has_a_plain_point() -> None:
    balls = (Ball("cue", 2.0, 2.0), Ball("red", 4.0, 2.1), Ball("white", 4.6, 2.9))
    layout = Layout(CAROM, "straight-rail", balls, "red")
    asked = Situation(layout, Stroke(2.0))
    best = finish(plan(asked, wish_for(asked, "usual", 60, 0))).lines[0]
    assert best.rails == ()
    assert best.chance.share("legal").p > 0.5


def test_the_products_number_is_told_for_a_natural_short_long_short() -> None:
    """M18 from where the cue ball leaves the first ball to the second (common practice)."""
    count, met = _products(spread(57))[0]  # of sixty the one with such a way among its lines
    assert count.method == "M18"
    assert 0.0 <= met <= 4.0


def _products(layout: Layout) -> list[tuple[Count, float]]:
    asked = Situation(layout, Stroke(4.0, 0.15))
    lines = finish(plan(asked, wish_for(asked, "this", 20, 0))).lines
    found = [product(layout, line.point, line.rails) for line in lines if line.point is not None]
    return [each for each in found if each is not None]


def test_a_point_that_meets_a_ball_first_has_no_mark_on_a_rail_to_miss() -> None:
    """Contract: the error of a mark belongs to kicks, banks by mark and rail-first only."""
    straight = kicked = 0
    for seed in range(12):
        layout = spread(seed)
        asked = Situation(layout, Stroke(4.0, 0.15))
        ranking = rank(Field.of(layout), asked.stroke, wish_for(asked, "this", 20, 0))
        while True:
            try:
                next(ranking)
            except StopIteration as done:
                lines = done.value.lines
                break
        for line in lines:
            ball_first = line.key.before == 0
            assert (line.aim.marked is None) is ball_first
            assert line.key.aimed == line.key.rails[: line.key.before]
            straight, kicked = straight + ball_first, kicked + (not ball_first)
    assert straight > 5
    assert kicked > 5
