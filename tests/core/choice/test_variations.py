"""One thing changed: each change with its own mark; the punched and the rolled bank; inside side. Signs first."""

import math

import pytest
from tests.core.choice.test_plan import POOL, lay

from fandle.app.position import vary
from fandle.app.situation import Situation
from fandle.core.choice.named import SAYS, slides_into_rail, stroke_name, stroke_says
from fandle.core.choice.stretch import Key
from fandle.core.choice.variations import Variation
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.solution import Aim
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed

KICK = lay({"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5)}, target="7")
BANK = lay({"cue": (3.0, 2.8), "7": (4.6, 1.6)}, "straight", target="7")


def by_name(asked: Situation) -> dict[str, Variation]:
    return {one.name: one for one in finish(vary(asked))}


def test_every_change_of_a_kick_has_its_own_mark() -> None:
    """Over one rail, counted from the head: harder comes short and is aimed further along, running nearer."""
    found = by_name(Situation(KICK, Stroke(default_speed(POOL)), (Rail.FAR,)))
    mark = {name: one.best.corrected.nose for name, one in found.items()}
    assert next(iter(found)) == "as it is"
    assert mark["harder"] > mark["as it is"]
    assert mark["more running"] < mark["as it is"] < mark["more reverse"]
    assert mark["harder, same mark"] == pytest.approx(mark["as it is"], abs=0.01)
    assert found["harder, same mark"].stroke.side != 0.0
    assert found["thinner"].best.hit != found["as it is"].best.hit
    assert found["as it is"].moved == (0.0, 0.0)
    assert any(math.hypot(*one.moved) > 0.1 for one in found.values())


def test_each_change_is_played_as_it_is_told() -> None:
    for one in finish(vary(Situation(KICK, Stroke(3.0), (Rail.FAR,)))):
        assert play(KICK, one.stroke, one.best.direction).first_ball == "7", one.name


def test_no_line_no_changes() -> None:
    walled = lay({"cue": (1.1, 0.55), "7": (5.3, 0.5), "8": (3.2, 0.5)}, target="7")
    assert finish(vary(Situation(walled, Stroke(3.0), ()))) == []


def test_a_punched_bank_comes_off_shorter_than_a_rolled_one() -> None:
    """M25: the same direction of the object ball into the rail, once sliding, once rolling (common practice)."""
    far = []
    for speed, up, slides in ((6.0, 0.0, True), (2.3, 0.3, False)):
        stroke = Stroke(speed, up=up)
        aim = solve_bank(BANK, (Rail.NEAR,), stroke, pocket="foot-far", with_chain=False)
        assert isinstance(aim, Aim)
        shot = play(BANK, stroke, aim.best.direction)
        assert slides_into_rail(shot, "7") == slides
        assert stroke_name(Key("bank", "7", (Rail.NEAR,), "foot-far"), stroke, 0.0, shot) == (
            "punch" if slides else "rolled"
        )
        far.append(aim.best.corrected.nose)
    punched, rolled = far
    assert punched > rolled + 0.1  # counted from the head, towards the pocket


def test_inside_side_is_reverse_on_the_first_cushion() -> None:
    """M26, a cut to the left near the foot rail: with inside side the cue ball comes off it steeper (common practice).

    What it does at the second cushion depends on the way: round the table it stays reverse.
    """
    layout = lay({"cue": (4.5, 1.0), "1": (6.5, 1.6)}, "straight", target="1")
    (x, y), (gx, gy) = layout.metres(layout.cue), layout.metres(layout.ball("1"))
    at = math.atan2(gy - y, gx - x) - math.asin(1.2 * POOL.ball_radius / math.hypot(gx - x, gy - y))
    turned = {}
    for side in (0.0, -0.3, 0.3):
        shot = play(layout, Stroke(4.0, side=side), at)
        contact = next(event.t for event in shot.events if event.kind == "ball")
        rail = next(ev for ev in shot.events if ev.kind == "rail" and ev.ball == "cue" and ev.t > contact)
        assert (shot.first_ball, rail.rail) == ("1", Rail.FOOT)
        turned[side] = (rail.out_deg or 0.0) - (rail.in_deg or 0.0)
    assert turned[-0.3] > turned[0.0] + 3.0 > turned[0.3] + 3.0
    key = Key("straight", "1", (), "foot-far")
    for side, name in ((-0.3, "inside side"), (0.3, "outside side"), (0.0, "")):
        assert stroke_name(key, Stroke(4.0, side=side), 0.6, shot) == name
        assert (name == "") == (stroke_says(name) == "")
    assert set(SAYS) == {"punch", "rolled", "inside side", "outside side"}
