"""A player's own drill: any layout's line, solved again on the table it is played on; and measured without sums."""

from dataclasses import replace

import pytest

from fandle.app.own_drills import drill_of, hands
from fandle.app.practise import drill
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing
from fandle.core.practice.drill import Drill
from fandle.core.practice.drills import BY_NAME
from fandle.core.practice.own import Counts
from fandle.core.practice.tonight import tonight
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.systems.halving import METHOD as HALVING
from fandle.core.systems.registry import count
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS
from fandle.formats.practice import OwnDrillFile

POOL = STANDARDS["pool-9ft"]
LAYOUT = Layout(POOL, "nine-ball", (Ball("cue", 1.2, 1.1), Ball("7", 5.4, 0.9), Ball("2", 3.3, 1.0)), "7")
PLAIN = Counts()
STROKE = Stroke(3.0, 0.12, 0.05)


def own(asked: Situation, title: str = "My kick", counts: Counts = PLAIN) -> Drill:
    return finish(drill_of(asked, title, "from the league night", counts))


def test_the_line_is_the_situations_own_and_hits_its_ball() -> None:
    made = own(Situation(LAYOUT, STROKE, (Rail.FAR,)))
    found = drill(made, POOL)
    assert found.layout is not None
    assert found.stroke is not None
    assert (found.stroke.speed, found.stroke.side, found.stroke.up) == pytest.approx((3.0, 0.12, 0.05), abs=1e-6)
    assert [ball.id for ball in found.layout.balls] == ["cue", "7", "2"]
    assert play(found.layout, found.stroke, found.direction).first_ball == "7"
    assert [contact.rail for contact in found.route] == [Rail.FAR]
    assert made.wanted == "the 7 is hit over the far rail"
    assert made.goal == "7 of the last 10"


def test_without_a_rail_chosen_the_best_line_is_drilled() -> None:
    blocked = replace(LAYOUT, balls=(Ball("cue", 1.2, 1.0), Ball("7", 5.4, 1.0), Ball("2", 3.3, 1.0)))
    made = own(Situation(blocked, STROKE))
    assert made.rails
    assert not drill(made, POOL).why_not


@pytest.mark.parametrize("name", ["pool-7ft", "snooker-12ft", "carom-10ft"])
def test_it_goes_with_the_player_to_another_table(name: str) -> None:
    made = own(Situation(LAYOUT, STROKE, (Rail.FAR,)))
    found = drill(made, STANDARDS[name])
    assert found.layout is not None
    assert found.stroke is not None
    assert not found.why_not
    assert play(found.layout, found.stroke, found.direction).first_ball == found.layout.target


def test_a_pot_says_why_not_where_there_are_no_pockets() -> None:
    straight = Layout(POOL, "nine-ball", (Ball("cue", 4.0, 2.0), Ball("7", 6.4, 3.1)), "7")
    made = own(Situation(straight, STROKE, (), pocket="foot-far"), counts=Counts(stop=True))
    found = drill(made, POOL)
    assert found.ends is not None
    assert "stops in the circle" in made.wanted
    assert drill(made, STANDARDS["carom-10ft"]).why_not == "this table has no pockets"


def test_another_line_is_another_drill_and_the_same_is_the_same_on_every_machine() -> None:
    asked = Situation(LAYOUT, STROKE, (Rail.FAR,))
    made = own(asked)
    assert made.name.startswith("own-my-kick-")
    assert own(asked).name == made.name
    assert OwnDrillFile.model_validate_json(OwnDrillFile.of(made).model_dump_json()).drill() == made
    others = [
        replace(asked, stroke=Stroke(3.1, 0.12, 0.05)), replace(asked, hit=0.3), replace(asked, rails=(Rail.NEAR,)),
        replace(asked, layout=replace(LAYOUT, balls=(Ball("cue", 1.3, 1.1), *LAYOUT.balls[1:]))),
    ]  # fmt: skip
    assert len({own(each).name for each in others} | {made.name}) == 5


def test_what_cannot_be_drilled_is_refused_with_what_to_do() -> None:
    asked = Situation(LAYOUT, STROKE, (Rail.FAR,))
    with pytest.raises(BadInputError, match="a title of 1 to 60 letters"):
        own(asked, "  ")
    with pytest.raises(BadInputError, match="8 of the last 5 is no goal"):
        own(asked, counts=Counts(wanted_hits=8, out_of=5))
    with pytest.raises(BadInputError, match="no target: name the ball"):
        own(replace(asked, layout=replace(LAYOUT, target=None)))
    shut = replace(LAYOUT, balls=(Ball("cue", 1.2, 1.0), Ball("7", 5.4, 1.0), Ball("2", 3.3, 1.0)))
    with pytest.raises(BadInputError, match="choose another line on the Table first"):
        own(replace(asked, layout=shut, rails=()))


def test_a_new_drill_of_ones_own_is_the_new_thing_of_the_evening() -> None:
    made = own(Situation(LAYOUT, STROKE, (Rail.FAR,)))
    plan = tonight([], {}, 20, [made, *BY_NAME.values()])
    assert plan.parts[0].drill == made
    assert plan.parts[0].why == "new"


def test_without_sums_the_last_step_is_the_mark_of_a_system_that_lands() -> None:
    found = drill(BY_NAME["natural-3"], POOL)
    assert found.layout is not None
    steps = hands(found)
    assert len(steps) > 1
    assert "Remember that point on the far rail" in steps[-1].do
    ((x, _),) = steps[-1].things[0].points
    aimed = crossing(POOL, Rail.FAR, found.layout.metres(found.layout.cue), found.direction, 0.0)
    assert x == pytest.approx(aimed, abs=0.3)
    assert count(HALVING, found.layout, (Rail.FAR,)).method == HALVING
    assert hands(drill(BY_NAME["return-3"], POOL)) == ()
