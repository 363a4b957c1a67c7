"""Every drill on every standard table: its line, played again, does what the drill says, or the drill says why not."""

import math
from dataclasses import replace

import pytest

from fandle.core.errors import BadInputError
from fandle.core.practice.drills import BY_NAME, DRILLS, Drill, drill_named
from fandle.core.shot.play import play
from fandle.core.table.condition import conditioned
from fandle.core.table.model import Table
from fandle.core.table.standards import STANDARDS
from fandle.service.practise import drill, drills

CAROM = {"point-natural", "point-rail-first"}
NOT_THERE = {  # what the methods themselves rule out
    "pool-9ft": CAROM,
    "pool-8ft": CAROM,
    "pool-7ft": CAROM,
    "snooker-12ft": {"corner-20", "corner-25", "corner-30", *CAROM},  # no sights
    "carom-10ft": {"pot-return-1", "pot-return-2", "bank-side", "bank-corner", "pattern-3"},  # no pockets
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
    mover = found.layout.target if each.play == "bank" else "cue"
    for event in shot.events:
        if event.kind == "ball" and first is None:
            first = event.other if event.ball == "cue" else event.ball
            if each.play in ("kick", "own-number"):
                break
        if event.kind == "rail" and event.ball == mover and (each.play != "pot" or first):
            rails.append((event.rail, event.rail.along(event.x, event.y) if event.rail else 0.0))
    down = [ball for ball, _ in shot.potted]
    assert [rail for rail, _ in rails] == [contact.rail for contact in found.route]
    assert [at for _, at in rails] == pytest.approx([contact.at for contact in found.route], abs=1e-6)
    if found.layout.target:
        assert shot.first_ball == found.layout.target
    if each.play in ("pot", "bank"):
        assert found.layout.target in down
    if each.rails and each.play != "own-number":
        assert tuple(rail for rail, _ in rails)[: len(each.rails)] == each.rails
    if each.route:
        assert len(rails) == each.route
    rest = shot.rest["cue"]
    assert rest is not None
    if each.stop:
        assert found.ends is not None
        x, y = (rest[0] - found.ends.x) * table.diamond_x, (rest[1] - found.ends.y) * table.diamond_y
        assert 1000 * math.hypot(x, y) <= found.ends.radius_mm
    return True


@pytest.mark.parametrize("name", list(STANDARDS))
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


def test_an_unknown_drill_is_refused() -> None:
    with pytest.raises(BadInputError, match="unknown drill 'nothing'"):
        drill_named("nothing")
