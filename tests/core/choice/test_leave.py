"""What a shot leaves: the opponent's pot in closed form against played draws, what they see, and the goal Safe."""

import itertools
import math
import random

import numpy as np
import pytest
from tests.amount import amount
from tests.core.choice.test_plan import POOL, choose, lay

from fandle.core.choice.field import Field
from fandle.core.choice.leave import best_pot
from fandle.core.choice.opponent import SAFE_BELOW, safe, theirs
from fandle.core.choice.plan import rank
from fandle.core.choice.pocket_room import room_of
from fandle.core.choice.wish import Then, Wish, Zone, zone_of
from fandle.core.errors import BadInputError
from fandle.core.layout.state import OPEN, State
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim
from fandle.core.physics.batch import Strokes, play_batch
from fandle.core.physics.pots import aimed_at, speed_after
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.pocket import POCKET_NAMES, mouths
from fandle.core.table.speeds import default_speed

ON = np.ones((1, 2), np.bool_)
HARDEST = 7.0  # m/s


def spot(rng: random.Random) -> tuple[float, float]:
    return rng.uniform(0.5, 7.5), rng.uniform(0.5, 3.5)


def played(
    places: list[tuple[float, float]], ball: int, pocket: str, rng: np.random.Generator, speed: float = 0.0,
    n: int = amount(4_000, 20_000),
) -> float:  # fmt: skip
    """The chance of a pot by plain draws of the direction, σ = 0.1°; at a medium stroke where no speed is given."""
    spots = {"cue": places[0], **{str(k): place for k, place in enumerate(places[1:], 1)}}
    layout, stroke = lay(spots, "straight", target=str(ball)), Stroke(speed or default_speed(POOL))
    aim = solve_pot(layout, (), stroke, str(ball), pocket, with_chain=False)
    if not isinstance(aim, Aim):
        return 0.0
    at = aim.best.direction + math.radians(0.1) * rng.standard_normal(n)
    start = np.tile(layout.metres(layout.cue), (n, 1))
    rows = Strokes(at, np.tile(stroke.array(), (n, 1)), start, np.zeros(n, np.int64))
    out = play_batch(rows, POOL.params()[None], layout.obstacles(), threads=2)
    down = (out.down == ball) & (out.pockets == POCKET_NAMES.index(pocket))
    return float(down.any(axis=1).mean())


@pytest.mark.proof
def test_the_closed_form_is_what_is_played() -> None:
    """The best pots of random leaves of three balls: nine in ten are within 0.05, and on average they agree."""
    off: list[float]
    rng, plain, off = random.Random(5), np.random.default_rng(6), []
    while len(off) < amount(40, 80):
        places = [spot(rng) for _ in range(4)]
        if min(math.dist(a, b) for a, b in itertools.combinations(places, 2)) < 0.4:
            continue
        rests = np.array([places]) * (POOL.diamond_x, POOL.diamond_y)
        best = best_pot(POOL, rests, np.ones((1, 4), np.bool_), 0.1)
        off.append(best.p[0] - played(places, int(best.ball[0]), POCKET_NAMES[best.pocket[0]], plain))
    assert np.mean(np.abs(off) <= 0.05) >= 0.9
    assert abs(np.mean(off)) < 0.02


def arriving(cue: tuple[float, float], ball: tuple[float, float], pocket: int) -> float:
    """The speed, medium or more, at which the ball still has the slowest speed of a pocket's room there, m."""
    room = room_of(POOL)
    gx, gy, _ = aimed_at(room, pocket, *cue, *ball)
    away = math.dist((gx, gy), ball)
    ux, uy = (gx - ball[0]) / away, (gy - ball[1]) / away
    ghost = ball[0] - 2.0 * room.r * ux, ball[1] - 2.0 * room.r * uy
    line = math.dist(ghost, cue)
    cut = max(((ghost[0] - cue[0]) * ux + (ghost[1] - cue[1]) * uy) / line, 0.0)
    speed = room.pace
    while speed < HARDEST:
        meets = speed_after(speed, line, room.slows, room.rolls) * cut * room.passed
        if speed_after(meets, away, room.slows, room.rolls) >= room.speeds[0]:
            return speed
        speed *= 1.1
    return math.nan


@pytest.mark.proof
def test_long_pots_along_a_rail_are_told_as_they_are_played() -> None:
    """Balls up to 2½ radii off a long rail, three diamonds and more from their corner."""
    off: list[float]
    rng, plain, off = random.Random(31), np.random.default_rng(32), []
    radius = POOL.ball_radius / POOL.diamond_y
    while len(off) < amount(80, 200):
        ball = rng.uniform(1.2, 6.8), radius * (1.0 + 2.5 * rng.random() ** 2)
        cue = rng.uniform(0.5, 7.5), rng.uniform(0.5, 3.5)
        rests = np.array([[cue, ball]]) * (POOL.diamond_x, POOL.diamond_y)
        best = best_pot(POOL, rests, np.ones((1, 2), np.bool_), 0.1)
        name = POCKET_NAMES[best.pocket[0]]
        if best.p[0] < 0.05 or name.startswith("side") or abs(ball[0] - (0.0 if "head" in name else 8.0)) < 3.0:
            continue
        speed = arriving(tuple(rests[0, 0]), tuple(rests[0, 1]), int(best.pocket[0]))
        if math.isfinite(speed):
            off.append(best.p[0] - played([cue, ball], 1, name, plain, speed, 1000))
    assert abs(np.mean(off)) < amount(5, 3) / 100  # −0.24 without the way along the rail
    assert np.mean(np.abs(off) <= 0.15) >= 0.75


def test_a_straight_in_forgives_what_its_window_says() -> None:
    """Three quarters of a metre to the ball and to the pocket: a scatter of half the engine's window leaves 68 %."""
    (mx, my), u = mouths(POOL)[0].middle, 0.75 * math.sqrt(0.5)
    ball, cue = (mx + u, my + u), (mx + 2 * u, my + 2 * u)
    dx, dy = POOL.diamond_x, POOL.diamond_y
    layout = lay({"cue": (cue[0] / dx, cue[1] / dy), "1": (ball[0] / dx, ball[1] / dy)}, target="1")
    aim = solve_pot(layout, (), Stroke(2.5), "1", "head-near", with_chain=False)
    assert isinstance(aim, Aim)
    assert aim.best.pot is not None
    places = np.array([[cue, ball]])
    assert best_pot(POOL, places, ON, aim.best.pot.window_deg / 2).p[0] == pytest.approx(0.68, abs=0.05)
    assert best_pot(POOL, places, ON, 0.02).p[0] > 0.99
    assert best_pot(POOL, places, ON, 2.0).p[0] < 0.15


def test_a_ball_in_the_way_of_either_corridor_takes_the_pot_away() -> None:
    on = np.ones((1, 3), np.bool_)
    on[0, 2] = False
    cue, ball = (1.6, 0.635), (0.8, 0.635)
    for blocker in ((1.2, 0.635), (0.4, 0.40), (0.4, 0.87)):
        free = best_pot(POOL, np.array([[cue, ball, (2.3, 0.2)]]), on, 0.1)
        shut = best_pot(POOL, np.array([[cue, ball, blocker]]), on, 0.1)
        assert shut.p[0] <= free.p[0]
    wall = np.array([[cue, ball, (1.2, 0.635)]])
    assert best_pot(POOL, wall, on, 0.1).p[0] == 0.0
    gone = np.array([[cue, (np.nan, np.nan), (1.2, 0.3)]])
    assert best_pot(POOL, gone, on, 0.1).p[0] == 0.0


@pytest.mark.parametrize(
    ("game", "state", "balls", "expected"),
    [
        ("nine-ball", OPEN, ("4", "7", "9"), {"4"}),
        ("eight-ball", State(group="low"), ("3", "8", "11"), {"11"}),
        ("eight-ball", State(group="low"), ("3", "8"), {"8"}),
        ("straight", OPEN, ("3", "8"), {"3", "8"}),
        ("snooker", State(on="colour"), ("red1", "blue"), {"red1"}),
        ("snooker", OPEN, ("green", "blue"), {"green"}),
    ],
)
def test_what_is_on_for_the_opponent(game: str, state: State, balls: tuple[str, ...], expected: set[str]) -> None:
    layout = lay({"cue": (1.0, 1.0), **{name: (3.0 + 0.5 * k, 2.0) for k, name in enumerate(balls)}}, game, state)
    field = Field.of(layout)
    found = theirs(field, np.array([[field.start, *field.balls.tolist()]]))[0]
    assert {field.name(int(k)) for k in np.flatnonzero(found)} == expected


def test_an_open_table_is_never_safe_and_a_wall_always() -> None:
    """The cue ball left in the open, and behind a wall of balls that are not on."""
    wall = {str(k): (3.0, 0.2 + 0.18 * k) for k in range(2, 10)}
    field = Field.of(lay({"cue": (2.0, 2.0), "1": (6.0, 0.6), **wall}))
    legal = np.array([True])
    behind = np.array([[(0.9, 0.3), *field.balls.tolist()]])
    assert safe(field, legal, behind, 0.1)[0][0]
    open_ = np.array([[(1.6, 0.5), *field.balls.tolist()]])
    free, best = safe(field, legal, open_, 0.1)
    assert not free[0]
    assert best.p[0] >= SAFE_BELOW
    assert not safe(field, ~legal, behind, 0.1)[0][0]
    potted = behind.copy()
    potted[0, 3] = np.nan
    assert not safe(field, legal, potted, 0.1)[0][0]  # the turn does not pass


def test_the_goal_safe_ranks_by_what_is_left() -> None:
    layout = lay({"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5), "9": (4.3, 0.25)}, target="7")
    found = choose(layout, "safe", "usual", draws=80)
    shares = [line.chance.share("safe").p for line in found.lines]
    assert shares == sorted(shares, reverse=True)
    assert shares[0] > 0.2
    for line in found.lines:
        assert line.chance.share("safe").hits <= line.chance.share("legal").hits
        assert line.after.leave is not None
    slow = min(line.stroke.speed for line in found.lines)
    assert slow < default_speed(POOL)


def test_zones_are_where_the_cue_ball_stops() -> None:
    """Recounted by hand: a line's share is that of the draws that are legal and end inside."""
    layout = lay({"cue": (2.0, 1.0), "1": (3.4, 1.7), "9": (6.0, 3.0)})
    field, zone = Field.of(layout, 2), zone_of("4,2,1.5")
    for then, inside in ((Then(zones=(zone,)), True), (Then(away=(zone,)), False)):
        wish = Wish(usual=False, then=then)
        line = finish(rank(field, Stroke(2.0), wish)).lines[0]
        cue = line.chance.rests[:, 0]
        there = np.hypot(cue[:, 0] - 4 * POOL.diamond_x, cue[:, 1] - 2 * POOL.diamond_y) <= 1.5 * POOL.diamond_x
        assert wish.share(line.chance) == pytest.approx((line.chance.verdicts.legal & (there == inside)).mean())
    assert zone == Zone(4.0, 2.0, 1.5)
    for text, said in (
        ("4,2", "write x,y,r"),
        ("a,b,c", "write x,y,r"),
        ("4,2,0", "not lie on"),
        ("9,2,1", "not lie on"),
    ):
        with pytest.raises(BadInputError, match=said):
            zone_of(text)
