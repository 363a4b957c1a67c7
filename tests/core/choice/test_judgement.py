"""What a good player would choose: cases of safety and position told by players (common practice, no published source)."""

import numpy as np
import pytest
from tests.core.choice.test_plan import POOL, choose, lay

from fandle.core.choice.advice import Risk, advice, points_away, risk_of
from fandle.core.choice.leave import best_pot, sees
from fandle.core.choice.told import Line
from fandle.core.layout.model import Layout
from fandle.core.layout.state import State
from fandle.core.table.standards import STANDARDS

SNOOKER = STANDARDS["snooker-12ft"]


def share(line: Line, name: str) -> float:
    return line.chance.share(name).p


def safe_plan(layout: Layout, draws: int = 80) -> tuple[Line, ...]:
    return choose(layout, "safe", "usual", draws=draws).lines


def open_pot(table_on: np.ndarray, *places: tuple[float, float]) -> float:
    rests = np.array([places]) * (POOL.diamond_x, POOL.diamond_y)
    return float(best_pot(POOL, rests, table_on, 0.1).p[0])


ON_1 = np.array([[False, True]])


def test_distance_costs_the_opponent() -> None:
    """The further off they are, the less likely their pot."""
    shares = [open_pot(ON_1, (x, 1.2), (6.0, 2.6)) for x in (5.0, 3.5, 2.0, 0.6)]
    assert shares == sorted(shares, reverse=True)
    assert shares[0] > shares[-1] + 0.2


def test_a_hanging_ball_is_theirs_from_all_over_the_bed() -> None:
    for x, y in ((0.5, 0.5), (4.0, 3.5), (1.0, 3.5)):
        assert open_pot(ON_1, (x, y), (7.75, 0.25)) > 0.8


def test_a_ball_frozen_in_the_middle_of_a_rail_is_hard_for_them() -> None:
    """Left on the long rail it goes along it only; left in the open near a pocket it is there for the taking.

    Played out, the frozen one drops a third of the time at a hard pace, half of it at a soft one.
    """
    r = POOL.ball_radius / POOL.diamond_y
    frozen, in_open = (open_pot(ON_1, (2.0, 3.0), place) for place in ((5.0, r), (6.6, 0.8)))
    assert frozen < 0.55
    assert in_open > frozen + 0.3


def test_behind_a_wall_of_balls_a_legal_shot_is_a_safe_one() -> None:
    """The cue ball left beside a wall of balls that are not on: most of what is legal is safe."""
    wall = {str(k): (3.0, 0.15 + 0.185 * k) for k in range(2, 10)}
    best = safe_plan(lay({"cue": (2.4, 0.5), "1": (2.2, 1.8), **wall}))[0]
    assert share(best, "safe") >= 0.75 * share(best, "legal")


def test_on_an_open_table_a_hit_at_medium_speed_is_hardly_safe() -> None:
    found = choose(lay({"cue": (2.0, 2.0), "1": (5.0, 2.2)}), "hit", "this", draws=80)
    straight = next(line for line in found.lines if line.kind == "straight")
    assert share(straight, "legal") > 0.9
    assert share(straight, "safe") < 0.35


def test_the_slow_shot_beats_the_hero_kick_where_both_are_legal() -> None:
    """The 1 is seen, no pot is on: under Safe something soft and straight leads every kick."""
    lines = safe_plan(lay({"cue": (2.0, 1.2), "1": (3.3, 1.6), "2": (4.6, 2.6), "3": (2.9, 0.5), "9": (5.6, 1.0)}))
    assert lines[0].kind in ("straight", "push")
    assert lines[0].stroke.speed <= 1.5
    kicks = [share(line, "safe") for line in lines if line.kind == "kick"]
    assert kicks
    assert share(lines[0], "safe") > max(kicks)


def test_a_soft_push_that_freezes_a_ball_is_listed_and_leaves_little() -> None:
    lines = safe_plan(lay({"cue": (3.0, 1.6), "1": (3.6, 0.7), "8": (2.2, 0.12), "9": (5.6, 0.12)}))
    push = next(line for line in lines if line.kind == "push")
    assert push.after.leave is not None
    assert push.after.leave.p < 0.25
    assert share(push, "safe") > 0.3


def test_a_safety_that_is_not_at_the_full_hit_is_found() -> None:
    """Met thin on its right the 1 goes behind the 8: nearly always safe. At the full hit it is three times in four."""
    best = safe_plan(lay({"cue": (3.0, 1.6), "1": (3.6, 0.7), "8": (2.2, 0.12), "9": (5.6, 0.12)}))[0]
    assert share(best, "safe") > 0.9
    assert abs(best.hit) > 0.5


def test_snooker_thin_off_the_reds_and_back_to_baulk() -> None:
    """From baulk with a loose pack: the best safety meets a red thin or soft and ends far from the next one."""
    reds = {f"red{k}": place for k, place in enumerate(((6.3, 2.0), (6.45, 1.88), (6.45, 2.12), (6.6, 2.0)), 1)}
    layout = lay({"cue": (1.2, 1.4), **reds, "blue": (4.0, 2.0), "brown": (1.65, 2.0), "black": (7.3, 2.0)}, "snooker")
    best = safe_plan(layout)[0]
    full = next(
        line
        for line in choose(layout, "hit", "this", draws=80).lines
        if line.kind == "straight" and abs(line.hit) < 0.3
    )
    assert best.target.startswith("red")
    assert share(best, "safe") > share(full, "safe")
    assert best.after.leave is not None
    assert full.after.leave is not None
    assert best.after.leave.p < full.after.leave.p + 1e-9


def test_which_side_of_the_pack() -> None:
    """With cover on one side of the table, the cue ball is left behind it: hooked more often than after a plain hit."""
    cover = {name: (2.0, 0.5 + 0.22 * k) for k, name in enumerate(("blue", "pink", "green", "brown"))}
    layout = lay({"cue": (3.2, 2.2), "red1": (4.8, 2.4), **cover, "black": (7.3, 2.0)}, "snooker")
    best, plain = safe_plan(layout)[0], choose(layout, "hit", "this", draws=80).lines[0]
    assert best.after.leave is not None
    assert plain.after.leave is not None
    assert share(best, "safe") > share(plain, "safe") + 0.2


def test_colours_in_turn_only_the_next_one_counts() -> None:
    """With the yellow on, an easy black is no danger: the same places with the black on are not safe."""
    places = {"cue": (6.5, 1.0), "yellow": (1.6, 2.6), "black": (7.4, 0.5)}
    for on, safe in (("yellow", False), ("black", True)):
        layout = lay(places, "snooker", State(on=on))
        names = [ball.id for ball in layout.object_balls()]
        rests = np.array([[layout.metres(layout.cue), *[layout.metres(layout.ball(name)) for name in names]]])
        theirs = np.array([[False, *[name == on for name in names]]])
        assert (best_pot(SNOOKER, rests, theirs, 0.1).p[0] > 0.5) == safe


def test_cover_is_named() -> None:
    """Hooked behind the 8: it is what lies before the nearest ball on."""
    rests = np.array([[(1.0, 1.0), (3.0, 1.0), (1.6, 1.0)]]) * (POOL.diamond_x, POOL.diamond_y)
    sight = sees(POOL, rests, np.array([[False, True, False]]))
    assert (sight.seen[0], sight.hider[0]) == (False, 2)


def test_what_becomes_of_a_line_adds_up() -> None:
    for line in choose(lay({"cue": (2.0, 1.0), "1": (5.0, 2.4), "9": (6.0, 3.2)}), "hit", "this", draws=100).lines:
        risk = risk_of(line)
        assert risk.potted + risk.safe + risk.left_open + risk.foul == pytest.approx(1.0)
        assert risk.in_off <= risk.foul + 1e-12
        assert risk.well == risk.potted + risk.safe


def test_points_of_a_miss_that_is_replayed() -> None:
    """Against plain counting: four points for every failure before the first success."""
    rng = np.random.default_rng(1)
    counted = np.mean([rng.geometric(1.0 - 0.3) - 1 for _ in range(40_000)]) * 4
    assert points_away(0.3, 4) == pytest.approx(counted, abs=0.06)
    assert points_away(0.0, 7) == 0.0
    assert points_away(1.0, 4) == float("inf")


def test_the_advice_names_the_goal_that_turns_out_well() -> None:
    """A near certain pot: Pot. A hidden ball far from every pocket: not Pot, and the surest hit is told besides."""
    easy = lay({"cue": (5.6, 1.4), "1": (7.2, 0.8), "9": (2.0, 2.0)})
    hard = lay({"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5), "9": (4.3, 0.25)})
    for layout, served in ((easy, "Pot"), (hard, "Safe")):
        best = {goal: choose(layout, goal, "usual", draws=40).lines[0] for goal in ("hit", "pot", "safe")}
        said = advice(best)  # type: ignore[arg-type]  # goals by their names
        assert said.startswith(f"{served} is served best")
        assert said.endswith("You decide.")
    assert advice({}) == "No goal has a line here."
    assert Risk(0.2, 0.3, 0.4, 0.1, 0.0).well == 0.5
