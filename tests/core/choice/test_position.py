"""The next ball: what is on for whom has potted, how a plan is ranked by it, and how the cue ball comes to its line."""

import math
from dataclasses import replace

import numpy as np
import pytest
from tests.core.choice.test_plan import POOL, choose, lay

from fandle.core.choice.field import Field
from fandle.core.choice.leave import best_pot
from fandle.core.choice.plan import rank
from fandle.core.choice.position import EASIEST, Next, next_of, next_pot, on_next
from fandle.core.choice.wish import Then, Wish
from fandle.core.errors import BadInputError
from fandle.core.layout.state import OPEN, State
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.standards import STANDARDS

SNOOKER = STANDARDS["snooker-12ft"]
LAID = {"cue": (2.5, 1.5), "2": (5.8, 2.6), "3": (3.2, 3.3), "9": (6.0, 0.6)}


@pytest.mark.parametrize(
    ("game", "state", "balls", "potted", "expected"),
    [
        ("nine-ball", OPEN, ("2", "5", "9"), "2", {"5"}),
        ("ten-ball", OPEN, ("2", "10"), "2", {"10"}),
        ("eight-ball", State(group="low"), ("2", "5", "8", "11"), "2", {"5"}),
        ("eight-ball", State(group="low"), ("2", "8", "11"), "2", {"8"}),
        ("eight-ball", OPEN, ("2", "8", "11", "12"), "11", {"12"}),
        ("straight", OPEN, ("2", "5"), "2", {"5"}),
        ("snooker", OPEN, ("red1", "red2", "blue", "pink"), "red1", {"blue", "pink"}),
        ("snooker", State(on="colour"), ("red1", "blue", "pink"), "blue", {"red1"}),
        ("snooker", State(on="blue"), ("blue", "pink", "black"), "blue", {"pink"}),
    ],
)
def test_what_is_on_after_a_pot(
    game: str, state: State, balls: tuple[str, ...], potted: str, expected: set[str]
) -> None:
    spots = {name: (3.0 + 0.6 * k, 2.4) for k, name in enumerate(balls)}
    field = Field.of(lay({"cue": (1.0, 1.0), **spots}, game, state))
    rests = np.array([[field.start, *field.balls.tolist()]])
    rests[0, field.number(potted)] = np.nan
    found = on_next(field, rests, potted)[0]
    assert {field.name(int(k)) for k in np.flatnonzero(found)} == expected


def test_a_colour_goes_back_to_its_spot_and_may_stand_in_the_way() -> None:
    """The pink potted from beside its spot comes back on it, before the last red: the red is not on for the pot."""
    pink = SNOOKER.spots["pink"]
    layout = lay({"cue": (1.0, 1.0), "red1": (7.4, 2.0), "pink": (5.0, 3.5)}, "snooker", State(on="colour"))
    field = Field.of(layout)
    cue = (pink[0] - 1.0) * SNOOKER.diamond_x, 2.0 * SNOOKER.diamond_y
    rests = np.array([[cue, *field.balls.tolist()]])
    rests[0, field.number("pink")] = np.nan
    on = on_next(field, rests, "pink")
    assert best_pot(SNOOKER, rests, on, 0.1).p[0] > 0.02  # straight past where the pink will stand
    assert next_pot(field, np.array([True]), rests, EASIEST, "pink", 0.1).p[0] == 0.0


def test_a_plan_is_ranked_by_the_pot_and_the_one_after_it() -> None:
    """Recounted: the share is the mean over all draws of the next pot's chance where this one drops."""
    layout = lay(LAID)
    field = Field.of(layout, 2)
    wish = Wish("pot", usual=False, draws=120, then=Then(next=Next("3")))
    lines = finish(rank(field, Stroke(3.2), wish)).lines
    shares = [wish.share(line.chance) for line in lines]
    assert shares == sorted(shares, reverse=True)
    best = lines[0].chance
    on = np.zeros((1, 4), np.bool_)
    on[0, field.number("3")] = True
    by_hand = [
        best_pot(POOL, best.rests[k : k + 1], on, best.direction_deg).p[0] if best.verdicts.pot[k] else 0.0
        for k in range(120)
    ]
    assert shares[0] == pytest.approx(np.mean(by_hand))
    assert shares[0] < best.share("pot").p


def test_the_stroke_is_chosen_for_the_next_ball() -> None:
    """The plain pot leaves the 3 into head-near hard; asked for, it gets another stroke that makes it likelier."""
    layout = lay(LAID)
    plain = choose(layout, "pot", "usual", draws=60).lines[0]
    wanted = Wish("pot", draws=60, then=Then(next=Next("3", "side-far")))
    found = finish(rank(Field.of(layout, 2), Stroke(3.2), wanted)).lines[0]
    chance = replace(plain.chance, then=Next("3", "side-far"))
    assert found.key.target == plain.target == "2"
    assert wanted.share(found.chance) > wanted.share(chance) + 0.05
    assert found.aim.stretch.tried.stroke != plain.stroke


def test_along_the_line_and_across_it() -> None:
    """Recounted from the played path: the cue ball's way since its last contact against the line over the ghost ball."""
    layout = lay(LAID)
    compared = 0
    for line in choose(layout, "pot", "usual", draws=60).lines:
        ahead, shot = line.after.ahead, play(layout, line.stroke, line.direction)
        if ahead is None or not ahead.line:
            continue
        cue = [ev for ev in shot.events if "cue" in (ev.ball, ev.other) and ev.kind in ("rail", "ball", "jaw")]
        legs = [piece for piece in shot.paths["cue"] if piece.t >= cue[-1].t - 1e-9]
        (sx, sy), (ex, ey) = legs[0].start, legs[-1].end
        way = np.array([(ex - sx) * POOL.diamond_x, (ey - sy) * POOL.diamond_y])
        if np.hypot(*way) < 2 * POOL.ball_radius:
            continue
        (cx, cy), ghost, goal = ahead.line
        assert (cx, cy) == pytest.approx((ex * POOL.diamond_x, ey * POOL.diamond_y))
        ball = np.array(shot.rest[ahead.ball] or ()) * (POOL.diamond_x, POOL.diamond_y)
        assert math.dist(ghost, ball) == pytest.approx(2 * POOL.ball_radius)
        assert math.dist(ghost, goal) > math.dist(ball, goal)
        to = np.array(ghost) - (cx, cy)
        cosine = abs(float(way @ to)) / np.hypot(*way) / np.hypot(*to)
        assert ahead.along_deg == pytest.approx(math.degrees(math.acos(min(cosine, 1.0))), abs=1e-6)
        compared += 1
    assert compared >= 4


def test_what_is_written_of_the_next_ball() -> None:
    layout = lay(LAID)
    assert next_of(layout, "3") == Next("3", None)
    assert next_of(layout, "3:foot-far") == Next("3", "foot-far")
    assert next_of(layout, "any") == EASIEST
    assert [next_of(layout, text).text for text in ("3", "3:foot-far", "any")] == ["3", "3:foot-far", "any"]
    with pytest.raises(BadInputError, match="not on the table"):
        next_of(layout, "7")
    with pytest.raises(BadInputError, match="unknown pocket"):
        next_of(layout, "3:top")
    with pytest.raises(BadInputError, match="without pockets"):
        next_of(lay({"cue": (1, 1), "white": (3, 1), "red": (5, 2)}, "three-cushion"), "red")


@pytest.mark.parametrize(
    "places",
    [
        {"cue": (5.69, 0.7), "7": (7.24, 0.48), "3": (1.63, 0.93), "4": (6.2, 3.77), "5": (6.63, 1.27)},
    ],
)
def test_much_side_brings_the_cue_ball_round_for_the_next_ball(
    places: dict[str, tuple[float, float]], monkeypatch: pytest.MonkeyPatch
) -> None:
    """Asked for the next ball, more than a tip of side over two rails and more; without it the next pot is less likely.

    Common practice, no published source.
    """
    layout = lay(places, "straight", target="7")
    field, wish = Field.of(layout, 1), Wish("pot", draws=120, then=Then(next=Next("3")))
    first = finish(rank(field, Stroke(3.2), wish)).lines[0]
    tips = first.aim.stretch.tried.tips
    assert abs(tips) == 1.25
    shot = play(layout, first.aim.stretch.tried.stroke, first.aim.direction)
    met = [event.kind for event in shot.events if event.ball == "cue"]
    assert met[met.index("ball") :].count("rail") >= 2
    monkeypatch.setattr("fandle.core.choice.plan.much_side", lambda table, cue: [])
    usual = finish(rank(field, Stroke(3.2), wish)).lines[0]
    assert abs(usual.aim.stretch.tried.tips) <= 1.0
    assert wish.share(usual.chance) < wish.share(first.chance) - 0.02
