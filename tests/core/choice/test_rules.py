"""The rules of the games, case by case: the published rules of the games' world bodies, from memory."""

import math

import numpy as np
import pytest

from fandle.core.choice.error import Marked, Through, direction_error
from fandle.core.choice.field import Field
from fandle.core.choice.judge import Verdicts, judge, pocket_number
from fandle.core.choice.rules import balls_on, foul_cost
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.layout.state import OPEN, State, state_of_text
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS

TABLES = {"snooker": "snooker-12ft", "three-cushion": "carom-10ft"}
FROZEN_Y = 0.02857500000000001 / 0.3175  # diamonds: a ball against the near rail


def lay(game: str, balls: dict[str, tuple[float, float]], state: State = OPEN) -> Layout:
    """A layout from places in diamonds, the cue ball at (2, 1) where it is not given."""
    places = {"cue": (2.0, 1.0), **balls}
    table = STANDARDS[TABLES.get(game, "pool-9ft")]
    return Layout(table, game, tuple(Ball(name, x, y) for name, (x, y) in places.items()), None, state)


def names(*ids: str) -> dict[str, tuple[float, float]]:
    """Balls by id, in a row in the open."""
    return {name: (3.0 + 0.3 * k, 3.0) for k, name in enumerate(ids)}


@pytest.mark.parametrize(
    ("game", "balls", "state", "on"),
    [
        ("nine-ball", ("9", "4", "7"), OPEN, {"4"}),
        ("ten-ball", ("10", "3", "12"), OPEN, {"3"}),
        ("straight", ("3", "15"), OPEN, {"3", "15"}),
        ("eight-ball", ("8", "3", "11"), OPEN, {"3", "11"}),  # open table: any but the 8
        ("eight-ball", ("8", "3", "11"), State(group="low"), {"3"}),
        ("eight-ball", ("8", "3", "11"), State(group="high"), {"11"}),
        ("eight-ball", ("8", "11"), State(group="low"), {"8"}),  # none of ours is left: the 8
        ("snooker", ("red1", "red4", "blue"), OPEN, {"red1", "red4"}),
        ("snooker", ("red1", "blue", "black"), State(on="colour"), {"blue", "black"}),
        ("snooker", ("red1", "blue", "black"), State(on="black"), {"black"}),
        ("snooker", ("green", "black", "pink"), OPEN, {"green"}),  # the colours in order
        ("snooker", ("red1", "blue"), State(free_ball=True), {"red1", "blue"}),
        ("snooker", ("blue", "pink"), State(on="red"), {"blue"}),  # the last red is gone
        ("three-cushion", ("red", "white"), OPEN, {"red", "white"}),
        ("nine-ball", (), OPEN, set()),
    ],
)
def test_balls_on(game: str, balls: tuple[str, ...], state: State, on: set[str]) -> None:
    assert set(balls_on(lay(game, names(*balls), state))) == on


def verdict(
    layout: Layout, towards: tuple[float, float], speed: float, target: str = "", pocket: str | None = None
) -> Verdicts:
    """What a plain stroke towards a place (diamonds) is by the rules."""
    field = Field.of(layout)
    table = layout.table
    at = math.atan2(towards[1] * table.diamond_y - field.start[1], towards[0] * table.diamond_x - field.start[0])
    out = field.played_now(np.array([at]), Stroke(speed).array()[None])
    return judge(field.court, out, field.number(target) if target else -1, pocket_number(pocket))


@pytest.mark.parametrize(
    ("case", "layout", "towards", "speed", "hit", "legal"),
    [
        ("a rail after contact", lay("nine-ball", {"1": (5.0, 1.0)}), (5.0, 1.0), 3.0, True, True),
        ("no rail after contact", lay("nine-ball", {"1": (3.0, 1.5)}), (3.0, 1.5), 0.45, True, False),
        ("wrong ball first", lay("nine-ball", {"1": (6.0, 3.0), "2": (5.0, 1.0)}), (5.0, 1.0), 3.0, False, False),
        ("in-off", lay("nine-ball", {"1": (6.0, 3.0)}), (0.0, 0.0), 3.0, False, False),
        ("nothing met", lay("nine-ball", {"1": (6.0, 3.0)}), (2.0, 4.0), 1.0, False, False),
        ("snooker needs no rail", lay("snooker", {"red1": (3.0, 1.5)}), (3.0, 1.5), 0.45, True, True),
        ("a colour first, a red on", lay("snooker", {"red1": (6.0, 3.0), "blue": (3.0, 1.0)}), (3.0, 1.0), 2.0, False, False),
        ("a free ball", lay("snooker", {"red1": (6.0, 3.0), "blue": (3.0, 1.0)}, State(free_ball=True)), (3.0, 1.0), 2.0, True, True),
        ("their group first", lay("eight-ball", {"3": (6.0, 3.0), "11": (4.0, 1.0)}, State(group="low")), (4.0, 1.0), 3.0, False, False),
        ("the 8 first on an open table", lay("eight-ball", {"3": (6.0, 3.0), "8": (4.0, 1.0)}), (4.0, 1.0), 3.0, False, False),
    ],
)  # fmt: skip
def test_what_is_a_hit_and_what_is_legal(
    case: str, layout: Layout, towards: tuple[float, float], speed: float, hit: bool, legal: bool
) -> None:
    told = verdict(layout, towards, speed)
    assert (bool(told.hit[0]), bool(told.legal[0])) == (hit, legal), case


def test_a_frozen_ball_must_leave_its_rail_before_that_rail_counts() -> None:
    """Pushed along the rail it is frozen to, it reaches none; driven to the other one, it does."""
    layout = lay("nine-ball", {"cue": (2.0, FROZEN_Y), "1": (3.0, FROZEN_Y)})
    along = verdict(layout, (3.0, FROZEN_Y), 0.5)
    assert bool(along.hit[0])
    assert not bool(along.legal[0])
    assert bool(verdict(layout, (3.0, FROZEN_Y), 4.0).legal[0])


def test_a_touching_red_is_hit_by_not_being_moved() -> None:
    width = 2 * 0.02625
    table = STANDARDS["snooker-12ft"]
    layout = lay("snooker", {"cue": (4.0, 1.0), "red1": (4.0 + width / table.diamond_x, 1.0), "blue": (2.0, 3.0)})
    away, into = verdict(layout, (2.0, 1.0), 1.0), verdict(layout, (6.0, 1.0), 1.0)
    assert (bool(away.hit[0]), bool(away.legal[0])) == (True, True)
    assert not bool(into.hit[0])


def test_what_counts_as_a_pot() -> None:
    """Straight into a pocket: called where a call is needed, any ball in nine-ball, in snooker none but a ball on."""
    hanging = {"cue": (6.2, 1.8), "3": (7.6, 0.4)}
    layout = lay("eight-ball", hanging, State(group="low"))
    assert verdict(layout, (7.6, 0.4), 5.0, "3", "foot-near").pot[0]
    assert not verdict(layout, (7.6, 0.4), 5.0, "3", "foot-far").pot[0]
    assert not verdict(layout, (7.6, 0.4), 5.0).pot[0]
    assert verdict(lay("nine-ball", hanging), (7.6, 0.4), 5.0).pot[0]


def test_three_rails_before_the_second_ball_make_the_point() -> None:
    """Over the whole circle: a point has both balls and three rails; fewer rails are none, whatever the order."""
    field = Field.of(lay("three-cushion", {"cue": (2.0, 0.5), "red": (1.1, 2.6), "white": (1.7, 1.7)}))
    at = np.linspace(-math.pi, math.pi, 2000)
    out = field.played_now(at, np.repeat(Stroke(4.5, 0.2).array()[None], len(at), axis=0))
    told = judge(field.court, out, -1, -1)
    both = (out.first > 0) & (out.second > 0)
    assert told.legal.sum() > 5
    assert np.array_equal(told.legal, both & (out.before_second >= 3))
    assert np.array_equal(told.hit, out.first > 0)


def test_what_a_foul_costs() -> None:
    assert "ball in hand" in foul_cost(lay("nine-ball", names("3")))
    assert "4 points" in foul_cost(lay("snooker", names("red1", "blue")))
    assert "7 points" in foul_cost(lay("snooker", names("black"), State(on="black")))


def test_a_state_that_the_game_does_not_know_is_refused() -> None:
    assert state_of_text("group=low") == State(group="low")
    assert state_of_text("free_ball=true", State(on="red")) == State(on="red", free_ball=True)
    assert state_of_text("group=", State(group="low")) == OPEN
    for text in ("groups=low", "group=medium", "free_ball=perhaps", "low"):
        with pytest.raises(BadInputError, match=r"write group=low|use low or high"):
            state_of_text(text)
    for game, state in (
        ("nine-ball", State(group="low")),
        ("eight-ball", State(on="red")),
        ("straight", State(free_ball=True)),
    ):
        with pytest.raises(BadInputError, match="only"):
            lay(game, names("3"), state)


def test_a_jaw_counts_as_a_rail() -> None:
    """A ball that rattles in the jaws and stays up, with no rail met by any, is no foul (common practice; the texts of
    the rules do not spell it out)."""
    balls = (Ball("cue", 1.2687, 0.5273), Ball("8", 6.4793, 0.9089), Ball("11", 6.4059, 0.3899))
    layout = Layout(STANDARDS["pool-9ft"], "eight-ball", balls, "11")
    field, stroke = Field.of(layout), Stroke(1.3428)
    at = np.radians(-1.215 + np.linspace(-0.6, 0.6, 121))
    told = judge(field.court, field.played_now(at, np.repeat(stroke.array()[None], len(at), axis=0)), -1, -1)
    rattled = 0
    for k, direction in enumerate(at.tolist()):
        shot = play(layout, stroke, direction)
        met = next((ev.t for ev in shot.events if ev.kind == "ball"), math.inf)
        after = {ev.kind for ev in shot.events if ev.t > met}
        if "jaw" in after and not after & {"rail", "pocket"}:
            rattled += 1
            assert told.legal[k]
    assert rattled > 2


def test_the_error_of_a_banks_mark_never_turns_the_cue_past_the_ball() -> None:
    """A ball a hand away, 6 cm off the rail: a mark half a diamond off turns it by 60°, and the cue to the ghost ball
    there, not by a straight law past the ball: a player aims at the ball when it is near."""
    table = STANDARDS["pool-9ft"]
    ball, away, wide = (1.4, 1.21), 0.245, 2 * table.ball_radius
    heading = math.radians(80.0)
    start = ball[0] - away * math.cos(heading), ball[1] - away * math.sin(heading)
    nose = (ball[0] + (table.width - ball[1]) / math.tan(heading)) / table.diamond_x
    marked = Marked(Rail.FAR, nose, ball, Through(start, ball, heading))
    off = np.linspace(-1.0, 1.0, 41)
    turned = direction_error(table, marked, off)
    assert np.abs(turned).max() <= math.asin(wide / away)  # every one still meets the ball
    assert turned[20] == pytest.approx(0.0, abs=1e-12)
    assert (np.diff(turned) >= 0.0).all() or (np.diff(turned) <= 0.0).all()
    small = (
        direction_error(table, marked, np.array([1e-4]))[0]
        / direction_error(table, Marked(Rail.FAR, nose, ball), np.array([1e-4]))[0]
    )
    assert small == pytest.approx(-wide / (away - wide), rel=1e-3)  # full on: 2R behind it, seen from the cue ball
