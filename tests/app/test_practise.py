"""Every drill on every standard table: its line, played again, does what the drill says, or the drill says why not."""

import math
from dataclasses import replace

import pytest
from tests.amount import WHOLE

from fandle.app import sequences
from fandle.app.practise import drill, drills
from fandle.core.errors import BadInputError
from fandle.core.lines.pot import solve_pot
from fandle.core.lines.solution import Aim
from fandle.core.practice.drill import POTS, Drill, layout_of
from fandle.core.practice.drilled import Drilled
from fandle.core.practice.drills import BY_NAME, DRILLS, drill_named
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import play
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of, speed_word
from fandle.core.table.standards import STANDARDS

CAROM = {"point-natural", "point-rail-first"}
NOT_THERE = {  # what the methods themselves rule out
    "pool-9ft": CAROM,
    "pool-8ft": CAROM,
    "pool-7ft": CAROM,
    "snooker-12ft": {"corner-20", "corner-25", "corner-30", *CAROM},  # no sights
    "carom-10ft": {drill.name for drill in DRILLS if drill.play in POTS},  # no pockets
}
HOME_MADE = replace(conditioned(STANDARDS["pool-8ft"], "damp", "dead"), name="In the barn")


def does(each: Drill, table: Table) -> bool:
    """Play a drill's line again and look for ourselves; False where it says why it cannot be played."""
    found = drill(each, table)
    if found.why_not:
        assert found.stroke is None or found.layout is None
        return False
    assert found.layout is not None
    assert found.stroke is not None
    shot = play(found.layout, found.stroke, found.direction)
    rails, first, down = [], None, []
    mover = found.layout.target if each.play in ("bank", "round") else "cue"
    for event in shot.events:
        if event.kind == "ball" and first is None:
            first = event.other if event.ball == "cue" else event.ball
            if each.play in ("kick", "own-number"):
                break
        if event.kind == "rail" and event.ball == mover and (each.play not in POTS or first):
            rails.append((event.rail, event.rail.along(event.x, event.y) if event.rail else 0.0))
    down = [ball for ball, _ in shot.potted]
    assert [rail for rail, _ in rails] == [contact.rail for contact in found.route]
    assert [at for _, at in rails] == pytest.approx([contact.at for contact in found.route], abs=1e-6)
    if found.layout.target:
        assert shot.first_ball == found.layout.target
    if each.play in POTS:
        assert found.layout.target in down
    if each.rails and each.play != "own-number":
        assert tuple(rail for rail, _ in rails)[: len(each.rails)] == each.rails
    if each.play in ("route", "pot-return"):
        assert len(rails) == each.route
    rest = shot.rest["cue"]
    assert rest is not None
    if each.stop:
        assert found.ends is not None
        x, y = (rest[0] - found.ends.x) * table.diamond_x, (rest[1] - found.ends.y) * table.diamond_y
        assert 1000 * math.hypot(x, y) <= found.ends.radius_mm
    return True


@pytest.mark.proof
@pytest.mark.parametrize("name", list(STANDARDS) if WHOLE else ["pool-9ft", "snooker-12ft", "carom-10ft"])
def test_every_drill_does_what_it_says(name: str) -> None:
    table = STANDARDS[name]
    done = {each.name for each in DRILLS if does(each, table)}
    assert {each.name for each in DRILLS} - done == NOT_THERE.get(name, set())


def test_on_a_home_made_table_it_does_or_says_why_not() -> None:
    done = [each.name for each in DRILLS if does(each, HOME_MADE)]
    assert len(done) > 0.7 * len(DRILLS)
    assert all(found.why_not for found in drills(HOME_MADE) if found.drill.name not in done)


def test_the_plain_route_over_far_two_is_the_players_own() -> None:
    """From the centre spot over far 2 at 2.4 m/s: head 2.35, near 1.85, back to the centre (common practice)."""
    found = drill(BY_NAME["return-3"], STANDARDS["pool-9ft"])
    assert found.stroke is not None
    assert found.stroke.speed == pytest.approx(2.4, abs=0.02)
    assert [(str(contact.rail), round(contact.at, 2)) for contact in found.route] == [
        ("far", pytest.approx(2.09, abs=0.03)), ("head", pytest.approx(2.35, abs=0.03)),
        ("near", pytest.approx(1.85, abs=0.03)),
    ]  # fmt: skip
    assert found.ends is not None
    assert (found.ends.x, found.ends.y) == (4.0, 2.0)


def test_a_rung_changes_one_thing_and_its_mark_with_it() -> None:
    """Harder and reverse are short: the mark goes further along; running is long: it comes nearer (trade.md §4)."""
    marks = {
        name: drill(BY_NAME[f"kick-{name}"], STANDARDS["pool-9ft"]).route[0].at
        for name in ("medium", "firm", "running", "reverse", "thin-left", "thin-right")
    }
    assert marks["firm"] > marks["medium"] + 0.1
    assert marks["running"] < marks["medium"] - 0.2
    assert marks["reverse"] > marks["medium"] + 0.1
    assert marks["thin-left"] != marks["thin-right"]


def test_natural_lines_go_half_as_far_on_the_far_rail() -> None:
    """M3: n along is n/2 on the far rail, nearly, at its stroke."""
    for n in (1, 2, 3, 4, 5, 6):
        found = drill(BY_NAME[f"natural-{n}"], STANDARDS["pool-9ft"])
        assert found.layout is not None
        assert found.route[0].at - found.layout.cue.x == pytest.approx(n / 2, abs=0.12)


POCKETED = [name for name, table in STANDARDS.items() if table.pockets is not None]


@pytest.mark.parametrize("name", POCKETED)
def test_a_medium_stroke_brings_the_cue_ball_back_after_a_pot(name: str) -> None:
    """Over one, two and three rails, of a back cut, by draw over none; and it stops dead where that is asked."""
    table = STANDARDS[name]
    for key, rails in [("return-1", 1), ("return-2", 2), ("return-3", 3), ("back-cut", 3), ("draw", 0), ("stop", 0)]:
        found = drill(BY_NAME[f"pot-{key}"], table)
        assert found.layout is not None
        assert found.stroke is not None
        shot = play(found.layout, found.stroke, found.direction)
        rest, met = shot.rest["cue"], moment_of(found.layout, shot)
        assert speed_word(lengths_of(table, found.stroke.speed)) == "medium"
        assert len(found.route) == rails
        assert rest is not None
        assert met is not None
        home = found.layout.metres(found.layout.cue) if key != "stop" else met.cue
        away = math.dist((rest[0] * table.diamond_x, rest[1] * table.diamond_y), home) / table.diamond_x
        assert away <= (0.25 if key == "stop" else 0.75)


def test_a_back_cut_is_one() -> None:
    """The cue ball lies between the ball and the pocket, along the rail behind the ball (common practice)."""
    for each in BY_NAME["pot-back-cut"].places:
        pocket = {"side-far": 4.0}[each.pocket]
        assert min(pocket, each.target[0]) < each.cue[0] < max(pocket, each.target[0])


@pytest.mark.parametrize("name", POCKETED)
def test_a_pattern_is_played_through_from_where_each_shot_leaves_all_balls(name: str) -> None:
    found = drill(BY_NAME["pattern-3"], STANDARDS[name])
    shots = [found, *found.then]
    assert [shot.layout.target for shot in shots if shot.layout] == [b.id for b in found.layout.object_balls()]
    for now, following in zip(shots, [*shots[1:], None], strict=True):
        assert now.layout is not None
        assert now.stroke is not None
        shot = play(now.layout, now.stroke, now.direction)
        assert shot.potted == ((now.layout.target, now.into),)
        if following is None or following.layout is None:
            continue
        left = {ball: rest for ball, rest in shot.rest.items() if rest is not None}
        assert {ball.id: (ball.x, ball.y) for ball in following.layout.balls} == left
        assert now.ends is not None
        assert (now.ends.x, now.ends.y) == left["cue"]


def narrowest(found: Drilled) -> float:
    """The narrowest pot of a pattern, degrees."""
    rooms = []
    for each in (found, *found.then):
        assert each.layout is not None
        assert each.stroke is not None
        answer = solve_pot(each.layout, (), each.stroke, pocket=each.into or "any", with_chain=False)
        assert isinstance(answer, Aim)
        assert answer.best.pot is not None
        rooms.append(answer.best.pot.window_deg)
    return min(rooms)


def test_a_pattern_is_chosen_as_a_whole(monkeypatch: pytest.MonkeyPatch) -> None:
    """Taking the widest pot each time, with no look ahead, leaves a narrower one somewhere."""
    tables = [STANDARDS[name] for name in POCKETED]
    layouts = [layout_of(BY_NAME["pattern-3"], table) for table in tables]
    planned = [narrowest(sequences.pattern(BY_NAME["pattern-3"], layout)) for layout in layouts]
    monkeypatch.setattr(sequences, "KEPT", 1)
    monkeypatch.setattr(sequences, "_ease", lambda layout, name: math.inf)
    greedy = [narrowest(sequences.pattern(BY_NAME["pattern-3"], layout)) for layout in layouts]
    assert all(whole >= one for whole, one in zip(planned, greedy, strict=True))
    assert any(whole > 1.2 * one for whole, one in zip(planned, greedy, strict=True))


@pytest.mark.parametrize("name", POCKETED)
def test_a_round_is_fifteen_banks_with_ball_in_hand(name: str) -> None:
    found = drill(BY_NAME["bank-fifteen"], STANDARDS[name])
    shots = [found, *found.then]
    assert len(shots) == found.drill.out_of == 15
    for k, each in enumerate(shots):
        assert each.layout is not None
        assert each.stroke is not None
        assert len(each.layout.object_balls()) == 15 - k
        shot = play(each.layout, each.stroke, each.direction)
        assert shot.potted == ((each.layout.target, each.into),)
        over = [ev.rail for ev in shot.events if ev.kind == "rail" and ev.ball == each.layout.target]
        assert len(over) >= 1
        assert shot.first_ball == each.layout.target


def test_the_goal_of_a_way_there_and_back_is_a_streak() -> None:
    assert [BY_NAME[f"return-{n}"].goal for n in (1, 2, 3, 4)] == ["8 in a row"] * 4
    assert BY_NAME["bank-fifteen"].goal == "8 of a round of 15"


def test_an_unknown_drill_is_refused() -> None:
    with pytest.raises(BadInputError, match="unknown drill 'nothing'"):
        drill_named("nothing")
