"""Which line? What a good player would say of it, and whether the chances are what they say they are."""

import math
import random
from dataclasses import replace

import numpy as np
import pytest
from tests.amount import amount

from fandle.app.choose import plan, wish_for, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.field import Field
from fandle.core.choice.plan import rank
from fandle.core.choice.ranked import Ranked
from fandle.core.choice.report import Plan
from fandle.core.choice.told import Line
from fandle.core.choice.wish import Wish
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import GAMES, id_order
from fandle.core.layout.model import Layout
from fandle.core.layout.state import OPEN, State
from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.physics.batch import Strokes, play_batch
from fandle.core.player.scatter import CLUB, STRONG
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.fitted import Fitted
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import STANDARDS
from fandle.formats.plan import PlanAnswer

POOL = STANDARDS["pool-9ft"]
TABLES = {"snooker": "snooker-12ft", "three-cushion": "carom-10ft"}


def lay(
    balls: dict[str, tuple[float, float]], game: str = "nine-ball", state: State = OPEN, target: str | None = None
) -> Layout:
    table = STANDARDS[TABLES.get(game, "pool-9ft")]
    return Layout(table, game, tuple(Ball(name, x, y) for name, (x, y) in balls.items()), target, state)


def choose(layout: Layout, goal: str = "hit", strokes: str = "this", speed: float | None = None, **more: int) -> Plan:
    """The plan of a layout, medium where no speed is given."""
    stroke = Stroke(default_speed(layout.table) if speed is None else speed)
    wish = wish_of(goal, CLUB, strokes, None, more.get("draws", 300), more.get("seed", 0), layout)
    return finish(plan(Situation(layout, stroke), wish, more.get("threads", 2)))


def codes(line: Line) -> set[str]:
    return {reason.code for reason in (*line.pros, *line.cons)}


def legal(line: Line) -> float:
    return line.chance.share("legal").p


BLOCKED = lay({"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5)}, target="7")


def test_an_open_near_ball_is_shot_straight() -> None:
    found = choose(lay({"cue": (2.0, 1.0), "3": (3.4, 1.7), "9": (6.0, 3.0)}), strokes="usual")
    assert (found.lines[0].kind, found.lines[0].rails) == ("straight", ())
    assert legal(found.lines[0]) > 0.97
    assert not any(no.kind == "straight" for no in found.refused)


def test_dead_behind_a_ball_and_off_a_rail_it_is_kicked_over_one_rail() -> None:
    """The target lies a little off the far rail, so that the kick over it has a backstop."""
    found = choose(lay({"cue": (2.0, 2.0), "2": (6.0, 3.65), "9": (4.0, 2.83)}, target="2"), strokes="usual")
    assert found.lines[0].kind in ("kick", "rail-first")
    assert len(found.lines[0].rails) == 1
    straight = next(no for no in found.refused if no.kind == "straight")
    assert straight.reason_code == "blocked"
    assert "the 9 is in the way" in straight.reason
    assert any((no.kind, no.reason_code) == ("jump", "not_played") for no in found.refused)


@pytest.mark.parametrize("rail", [Rail.NEAR, Rail.FAR])
def test_a_third_of_a_diamond_off_the_rail_is_likelier_than_frozen_or_in_the_open(rail: Rail) -> None:
    """`trade.md` §5: a ball a little off the rail behind it is the easiest; frozen it is no easier than open.

    Kicked over the other long rail, medium, the straight way blocked. Common practice, no published source.
    """

    def chance(off: float) -> float:
        """The mean over five cue balls, so that no one of them is helped by a mark on a diamond."""
        over, found = Rail.FAR if rail is Rail.NEAR else Rail.NEAR, []
        for x in (0.8, 1.0, 1.2, 1.4, 1.6):
            (cue, ball), block = ((x, 1.0), (5.0, off)), (0.5 * (x + 5.0), 0.5 * (1.0 + off))
            turned = [(a, b if rail is Rail.NEAR else 4.0 - b) for a, b in (cue, ball, block)]
            layout = lay(dict(zip(("cue", "1", "9"), turned, strict=True)), target="1")
            line = next(line for line in choose(layout).lines if line.rails == (over,))
            found.append(line.chance.share("hit").p)
        return sum(found) / len(found)

    frozen, third, whole = chance(POOL.ball_radius / POOL.diamond_y), chance(0.33), chance(1.0)
    assert third > frozen + 0.05
    assert third > whole + 0.05


def test_a_long_kick_wants_the_firmer_stroke() -> None:
    """Four table lengths of way: soft, it dies before; the best stroke is no soft one."""
    layout = lay({"cue": (7.4, 2.0), "4": (7.2, 3.3), "9": (7.32, 2.6)}, target="4")
    soft = {line.rails: legal(line) for line in choose(layout, speed=1.1).lines}
    long = next(line for line in choose(layout, strokes="usual").lines if line.rails == (Rail.HEAD,))
    assert soft.get((Rail.HEAD,), 0.0) < 0.1
    assert long.stroke.speed > 2.0
    assert legal(long) > 0.3


def test_a_full_hit_near_a_pocket_follows_in() -> None:
    """`trade.md` §5: "full" hits follow into the pocket."""
    found = choose(lay({"cue": (6.2, 1.8), "1": (7.6, 0.4), "9": (2.0, 3.0)}), goal="pot", speed=2.2)
    straight = next(line for line in found.lines if line.kind == "straight" and line.pocket == "foot-near")
    assert "follows_in" in codes(straight)
    assert abs(straight.hit) > 0.05  # so it is not aimed full
    assert straight.chance.share("in_off").p < 0.1


def test_nothing_possible_is_said_with_what_it_costs() -> None:
    """The cue ball walled in by the balls that are not on."""
    r = 2.02 * POOL.ball_radius
    wall = {
        str(3 + k): (
            4.0 + r / POOL.diamond_x * math.cos(k * math.pi / 3),
            2.0 + r / POOL.diamond_y * math.sin(k * math.pi / 3),
        )
        for k in range(6)
    }
    found = choose(lay({"cue": (4.0, 2.0), "1": (7.0, 1.0), **wall}))
    assert found.lines == ()
    assert found.notes == ("no_line",)
    assert "ball in hand" in found.say
    assert {no.reason_code for no in found.refused} <= {"blocked", "not_played", "jaw", "no_such_line"}


def test_any_red_will_do() -> None:
    """A red that is hidden behind another red is not blocked: the one in front is on as well."""
    layout = lay(
        {"cue": (2.0, 2.0), "red1": (6.0, 2.0), "red2": (5.0, 2.0), "black": (7.27, 2.0)}, "snooker", target="red1"
    )
    found = choose(layout)
    assert set(found.on) == {"red1", "red2"}
    assert (found.lines[0].kind, found.lines[0].target) == ("straight", "red2")
    assert legal(found.lines[0]) > 0.95
    assert {line.target for line in found.lines} == {"red1", "red2"}


def test_of_several_balls_on_the_chosen_one_leads_and_every_one_is_a_target() -> None:
    balls = {"cue": (2.0, 2.0), "3": (6.0, 3.4), "11": (4.0, 2.7), "5": (3.0, 1.0), "14": (6.5, 0.6)}
    found = choose(lay(balls, "eight-ball", State(group="low"), "3"))
    targets = [line.target for line in found.lines]
    assert set(targets) == {"3", "5"} == set(found.on)
    assert targets == sorted(targets, key="35".index)
    assert "target_not_on" in choose(lay(balls, "eight-ball", State(group="high"), "3")).notes


def test_pots_banks_and_combinations_are_told_with_their_pocket() -> None:
    bank = choose(lay({"cue": (3.0, 2.5), "7": (5.0, 1.2), "9": (1.0, 3.0)}, target="7"), goal="pot", speed=3.0)
    one = next(line for line in bank.lines if line.kind == "bank")
    assert one.pocket is not None
    assert one.target == "7"
    layout = lay({"cue": (3.0, 2.5), "7": (5.0, 1.2), "9": (1.0, 3.0)}, target="7")
    shot = play(layout, one.stroke, one.direction)
    assert (one.target, one.pocket) in shot.potted
    assert tuple(ev.rail for ev in shot.events if ev.ball == "7" and ev.kind == "rail")[: len(one.rails)] == one.rails
    two = choose(lay({"cue": (4.0, 2.0), "1": (6.6, 0.95), "9": (7.5, 0.27)}), goal="pot", speed=3.0)
    combination = next(line for line in two.lines if line.kind == "combination")
    assert (combination.target, combination.through, combination.pocket) == ("9", ("1", "9"), "foot-near")


def test_a_half_hidden_ball_is_offered_a_slight_curve() -> None:
    layout = lay({"cue": (1.5, 2.0), "1": (6.0, 2.0), "8": (3.6, 2.24), "9": (3.6, 1.72)}, target="1")
    found = choose(layout, strokes="usual")
    curves = [line for line in found.lines if line.kind == "curve"]
    assert curves
    assert 0.0 < curves[0].stroke.elevation <= 10.0
    assert curves[0].rails == ()


def test_a_ball_frozen_to_the_cue_ball_is_pushed() -> None:
    width = 2 * POOL.ball_radius / POOL.diamond_x
    found = choose(lay({"cue": (3.0, 2.0), "1": (3.0 + width, 2.0), "9": (6.0, 3.0)}))
    assert found.lines[0].kind == "push"


def test_a_line_appears_once_with_the_stroke_that_serves_it() -> None:
    """Over the usual strokes a line is at least as likely as at the one given, up to what the few draws can mistake."""
    here = {(line.kind, line.target, line.rails, ""): legal(line) for line in choose(BLOCKED).lines}
    usual = choose(BLOCKED, strokes="usual").lines
    keys = [(line.kind, line.target, line.rails, line.technique) for line in usual]
    assert len(keys) == len(set(keys))
    best = {key: legal(line) for key, line in zip(keys, usual, strict=True)}
    assert all(best[key] >= share - 0.07 for key, share in here.items() if key in best)
    assert any(best[key] > share + 0.2 for key, share in here.items() if key in best)
    assert [legal(line) for line in usual] == sorted((legal(line) for line in usual), reverse=True)


def test_what_would_raise_the_chance_does() -> None:
    """Each gain that is told is there on other draws, too."""
    gains = [line for line in choose(BLOCKED, strokes="usual").lines if line.gain is not None][:3]
    assert gains
    other = Wish(usual=False, draws=1000, seed=99)
    for line in gains:
        shares = []
        for stroke in (line.stroke, Stroke(default_speed(POOL))):
            lines = finish(rank(Field.of(BLOCKED, 2), stroke, other)).lines
            match = [one for one in lines if one.key.rails == line.rails and one.key.target == line.target]
            shares.append(match[0].chance.share("legal").p if match else 0.0)
        assert shares[0] > shares[1], line.gain
        assert "%" in line.gain.say


def plain_shares(layout: Layout, line: Line, draws: int, seed: int) -> tuple[float, float]:
    """(hit, legal) of a kick or a straight shot by plain draws that share nothing with the plan but the engine."""
    table, e = layout.table, np.random.default_rng(seed).standard_normal((draws, 5))
    x, y = layout.metres(layout.cue)
    at = line.direction + math.radians(CLUB.direction_deg) * e[:, 0]
    if line.kind in ("kick", "rail-first"):
        rail = line.rails[0]
        unit = table.diamond_x if rail.is_long else table.diamond_y
        edge = (table.width if rail.is_long else table.length) if rail.at_end else 0.0
        mark = line.aim.nose + getattr(CLUB.mark, line.mark.grade) * e[:, 4]
        places = (mark * unit, edge) if rail.is_long else (edge, mark * unit)
        ways = np.arctan2(places[1] - y, places[0] - x)
        at = at + np.angle(np.exp(1j * (ways - line.direction)))
    strokes = np.repeat(line.stroke.array()[None], draws, axis=0)
    strokes[:, 0] *= np.maximum(1.0 + CLUB.speed_part * e[:, 1], 0.05)
    tip = CLUB.tip_mm / 1000 / table.ball_radius
    strokes[:, 1] += tip * e[:, 2]
    strokes[:, 2] += tip * e[:, 3]
    miscue = np.hypot(strokes[:, 1], strokes[:, 2]) > 0.5
    rows = Strokes(at, strokes, np.tile((x, y), (draws, 1)), np.zeros(draws, np.int64))
    out = play_batch(rows, table.params()[None], layout.obstacles(), threads=2)
    lowest = [ball.id for ball in layout.object_balls()].index(min((b.id for b in layout.object_balls()), key=int)) + 1
    hit = (out.first == lowest) & ~miscue
    after = (out.rails_after > 0).any(axis=1) | (out.down > 0).any(axis=1)
    return float(hit.mean()), float((hit & after & ~(out.down == 0).any(axis=1)).mean())


@pytest.mark.proof
def test_the_ranges_are_honest() -> None:
    """Of 95 % ranges, each on another layout, few miss; `bench/honest_ranges.py` counts more of them."""
    rng, inside, told = random.Random(11), 0, 0
    most = amount(20, 80)
    while told < most:
        layout = random_layout(rng, "nine-ball", 4)
        found = choose(layout, draws=150, seed=told, speed=rng.uniform(1.8, 4.5))
        lines = [
            line
            for line in found.lines
            if "reach" not in codes(line) and line.kind in ("kick", "straight", "rail-first")
        ]
        if not lines:
            continue
        line = rng.choice(lines)
        true = plain_shares(layout, line, 4000, told)[1]
        if 0.03 <= true <= 0.97:
            low, high = line.chance.share("legal").range
            inside += low <= true <= high
            told += 1
    assert inside >= most - amount(4, 10)  # by chance alone fewer once in three hundred


def test_the_same_seed_the_same_bytes_in_one_or_two_threads() -> None:
    one, two = (PlanAnswer.of(choose(BLOCKED, strokes="usual", threads=n, draws=60)).json_data() for n in (1, 2))
    assert one == two
    other = PlanAnswer.of(choose(BLOCKED, strokes="usual", draws=60, seed=1)).json_data()
    assert other != one
    shuffled = replace(BLOCKED, balls=(BLOCKED.balls[2], BLOCKED.balls[0], BLOCKED.balls[1]))
    assert PlanAnswer.of(choose(shuffled, strokes="usual", draws=60)).json_data() == one


def random_layout(rng: random.Random, game: str, most: int) -> Layout:
    """Balls in the open, some on a rail or frozen to another."""
    places: dict[str, tuple[float, float]] = {}
    table = STANDARDS[TABLES.get(game, "pool-9ft")]
    order = id_order(game)
    rng.shuffle(order)
    names = ["cue", *(order if game == "three-cushion" else order[: rng.randint(1, most)])]
    for name in names:
        for _ in range(60):
            x, y = rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7)
            if rng.random() < 0.15:
                y = table.ball_radius / table.diamond_y
            try:
                lay({**places, name: (x, y), **({} if "cue" in places or name == "cue" else {"cue": (0.5, 0.5)})}, game)
            except BadInputError:
                continue
            places[name] = (x, y)
            break
    return lay(places, game)


@pytest.mark.proof
@pytest.mark.parametrize("game", GAMES)
def test_chances_are_in_order_on_random_layouts(game: str) -> None:
    """No exception, all shares in 0 … 1, pot ≤ legal ≤ hit, whatever lies where."""
    rng = random.Random(game)
    for k in range(amount(2, 10)):
        layout = random_layout(rng, game, 8)
        for goal in ("hit", "pot") if layout.table.pockets is not None else ("hit",):
            for line in choose(layout, goal, draws=40, seed=k).lines:
                hit, ok, pot, in_off = (line.chance.share(name) for name in ("hit", "legal", "pot", "in_off"))
                assert 0.0 <= pot.p <= ok.p <= hit.p <= 1.0
                assert 0.0 <= in_off.p <= 1.0
                for share in (hit, ok, pot, in_off):
                    assert share.range[0] <= share.p <= share.range[1]


def test_a_line_at_this_stroke_is_the_aim_of_the_same_rails() -> None:
    """Full where that is as good: the direction is the one that `aim` finds; the window is its window, a backstop included."""
    for line in choose(BLOCKED).lines:
        if line.kind != "kick" or abs(line.hit) > 1e-6:
            continue
        aim = solve_kick(BLOCKED, line.rails, line.stroke)
        assert isinstance(aim, Aim)
        best = min(aim.solutions, key=lambda s: abs(s.direction - line.direction))
        assert line.direction == pytest.approx(best.direction, abs=1e-7)
        assert line.aim.nose == pytest.approx(best.corrected.nose, abs=1e-6)


def test_uncertain_numbers_of_the_table_widen_the_chance() -> None:
    """A table check's errors are drawn with the player's: a sure kick is less sure on a table one hardly knows."""
    names = ("cushion_friction", "cushion_restitution")
    unsure = replace(POOL, name="unsure", fitted=Fitted("2026-11-01", names, ((0.0025, 0.0), (0.0, 0.0036))))
    shares = {}
    for table in (POOL, unsure):
        layout = replace(BLOCKED, table=table)
        wish = Wish(player=STRONG, usual=False, draws=600)
        lines: tuple[Ranked, ...] = finish(rank(Field.of(layout, 2), Stroke(default_speed(POOL)), wish)).lines
        shares[table.name] = next(line for line in lines if line.key.rails == (Rail.FAR,)).chance.share("hit").p
    assert shares["unsure"] < shares["pool-9ft"] - 0.05


def test_three_cushions_are_ranked_by_the_point() -> None:
    found = choose(
        lay({"cue": (2.0, 0.5), "red": (1.1, 2.6), "white": (1.7, 1.7)}, "three-cushion", target="red"), speed=4.0
    )
    assert set(found.on) == {"red", "white"}
    assert found.lines
    for line in found.lines:
        assert line.kind == "point"
        assert len(line.rails) >= 3
        assert line.legal
        assert line.chance.share("pot").hits == 0


def test_a_diamond_inside_the_room_is_aimed_at() -> None:
    """`trade.md` §6b: a mark on a diamond is aimed better than one between. Far, foot: 5.91 is full, 6 within the room."""
    line = next(line for line in choose(BLOCKED).lines if line.rails == (Rail.FAR, Rail.FOOT))
    assert line.aim.nose == pytest.approx(6.0, abs=0.061)  # as near as still counts as the diamond
    assert (line.mark.say, line.mark.grade) == ("just short of 6", "diamond")
    assert 0.02 < abs(line.hit) < 0.5
    full = solve_kick(BLOCKED, line.rails, line.stroke)
    assert isinstance(full, Aim)
    aside = replace(line, direction=full.best.direction, aim=full.best.corrected, mark=full.best.mark)
    assert plain_shares(BLOCKED, line, 3000, 1)[0] > plain_shares(BLOCKED, aside, 3000, 1)[0] + 0.1


def test_a_soft_push_leaves_an_open_ball_on_the_rail() -> None:
    """`trade.md` §5: a soft push that puts a ball on a rail is a safety of its own."""
    layout = lay({"cue": (2.0, 2.0), "1": (2.3, 3.2), "9": (6.0, 1.0)})
    push = next(line for line in choose(layout, strokes="usual").lines if line.kind == "push")
    shot = play(layout, push.stroke, push.direction)
    rest = shot.rest["1"]
    assert rest is not None
    assert (4.0 - rest[1]) * POOL.diamond_y < POOL.ball_radius + 0.031
    assert push.stroke.speed < 2.0
    assert push.legal
    assert "backstop" in codes(push)


@pytest.mark.proof
def test_a_slight_curve_goes_into_a_kick_where_no_level_cue_serves_and_the_ball_is_hidden() -> None:
    """A wall of balls before the cue ball: what is told with a raised cue over a rail hits when it is played."""
    told = 0
    for seed in range(amount(8, 40)):
        rng = random.Random(seed)
        x, y = rng.uniform(1.0, 3.0), rng.uniform(1.2, 2.4)
        wall = [Ball(str(k), x + 0.75 + rng.uniform(-0.05, 0.05), y - 0.8 + 0.22 * k) for k in range(2, 7)]
        try:
            layout = Layout(POOL, "nine-ball", (Ball("cue", x, y), Ball("1", rng.uniform(5.0, 7.0), y), *wall), "1")
        except BadInputError:
            continue
        asked = Situation(layout, Stroke(3.0))
        for line in finish(plan(asked, wish_for(asked, "usual", 40, 0))).lines:
            if line.stroke.elevation > 0.0 and line.rails:
                assert play(layout, line.stroke, line.direction).first_ball == "1"
                told += 1
    assert told > 0
