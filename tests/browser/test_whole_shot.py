"""The Table room shows the whole shot: a combination, a rail-first hit, a break; every ball's path and end."""

import json
import math
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import ask_by, layout_file, line, open_at, settled, slide, state_of, tab, whole_list
from tests.conftest import fandle
from tests.core.crowd import break_shot

from fandle.core.table.rails import rails_name
from fandle.web import address

pytestmark = pytest.mark.browser

COMBINATION = "/?balls=cue:5.2,1.4;4:6.2,2.45;8:6.55,2.95;2:3.2,0.5&target=4&rails=straight&hit=-0.1&speed=2.2"
RAIL_FIRST = "/?balls=cue:3.2,0.9;7:5.2,0.16;2:4.4,0.62;5:6.6,3.2&target=7&rails=near&speed=2.4"


def break_url() -> str:
    balls = ";".join(f"{b.id}:{b.x:.4f},{b.y:.4f}" for b in break_shot().balls[1:])
    return f"/?game=eight-ball&balls=cue:2,2.1;{balls}&target=1&speed=8&rails=straight"


def rests(page: Page) -> dict[str, tuple[float, float]]:
    """Where the page says balls stop, by id, in drawing millimetres."""
    found = {}
    for mark in page.locator("#layer-rests .rest").all():
        place = (mark.get_attribute("transform") or "").removeprefix("translate(").removesuffix(")").split()
        found[mark.get_attribute("data-rest") or ""] = (float(place[0]), float(place[1]))
    return found


def check_against_the_command_line(page: Page, folder: Path) -> dict[str, object]:
    """Every ball the page moves stops where `fandle simulate` says; the others are not drawn."""
    state = state_of(page)
    table, s = state.layout.table, state.stroke
    direction = page.evaluate(
        "async (q) => (await (await fetch(q[0], {method: 'POST', headers: {'Content-Type': 'application/json'}, "
        "body: q[1]})).json()).chosen.answer.direction",
        [address.ANSWER, json.dumps(_question(page))],
    )
    stroke = ["--speed", repr(s.speed), f"--side={s.side}", f"--up={s.up}", f"--direction={direction!r}"]
    answer = json.loads(fandle("simulate", str(layout_file(page, folder)), *stroke, "--json").stdout)
    drawn = rests(page)
    for ball, place in answer["rest"].items():
        before = state.layout.ball(ball)
        moved = place is None or math.dist((place["x"], place["y"]), (before.x, before.y)) > 1e-9
        if place is None or not moved:
            assert ball not in drawn
        else:
            at = place["x"] * table.diamond_x * 1000, (4 - place["y"]) * table.diamond_y * 1000
            assert drawn[ball] == pytest.approx(at, abs=0.02)
    return dict(answer)


def _question(page: Page) -> dict[str, object]:
    state = state_of(page)
    balls = [{"id": b.id, "x": b.x, "y": b.y} for b in state.layout.balls]
    scene = {"table": "pool-9ft", "game": state.layout.game, "balls": balls, "target": state.layout.target}
    s = state.stroke
    return {
        "layout": scene, "speed": s.speed, "side": s.side, "up": s.up, "hit": state.hit,
        "rails": rails_name(state.rails or ()),
    }  # fmt: skip


def test_a_combination(page: Page, tmp_path: Path) -> None:
    """Thickness is set by hand; the struck ball drives another, whose path and end are drawn."""
    open_at(page, COMBINATION)
    answer = check_against_the_command_line(page, tmp_path)
    kinds = [(ev["ball"], ev["other"]) for ev in answer["events"] if ev["kind"] == "ball"]  # type: ignore[attr-defined]
    assert kinds[:2] == [("cue", "4"), ("4", "8")]
    assert set(rests(page)) == {"cue", "4", "8"}
    expect(page.locator("#moment")).to_contain_text("Hits the 4 90% full")
    expect(page.locator("#layer-labels .blow")).to_contain_text("90%")
    before = page.locator("#after").get_attribute("d")
    tab(page, "adjust")
    slide(page, "#hit", 0.3)
    assert state_of(page).hit == pytest.approx(0.3)
    expect(page.locator("#hit-out")).to_have_text("70% full, to its right")
    assert page.locator("#after").get_attribute("d") != before
    page.locator("#undo").click()
    settled(page)
    assert state_of(page).hit == pytest.approx(-0.1)


def test_a_rail_first_hit(page: Page, tmp_path: Path) -> None:
    open_at(page, RAIL_FIRST)
    answer = check_against_the_command_line(page, tmp_path)
    events = answer["events"]
    assert [ev["kind"] for ev in events[:2]] == ["rail", "ball"]
    assert (events[0]["rail"], events[1]["other"]) == ("near", "7")
    assert events[1]["t"] - events[0]["t"] < 0.25
    expect(page.locator("#moment")).to_contain_text("Hits the 7")


def test_a_break(page: Page, tmp_path: Path) -> None:
    open_at(page, break_url())
    check_against_the_command_line(page, tmp_path)
    assert len(rests(page)) > 10
    expect(page.locator("#task")).to_contain_text("Shoot the 1")
    expect(page.locator("#count")).to_contain_text("a straight shot needs no count")
    expect(page.locator(".note-keys button:visible")).to_have_text(["Hit", "Left of it", "Right of it"])
    page.locator("#step").click()
    page.locator("#skip").click()
    assert page.locator("#layer-film .runner").count() == 16
    expect(page.locator("#drawing")).to_have_class("drawing running-film")


def test_straight_is_one_of_the_lines(page: Page) -> None:
    """Blocked, it says by whom; the ball moved away, it is offered; chosen, the address keeps it."""
    open_at(page)
    whole_list(page)
    line(page, "straight")
    expect(page.locator('#lines .shut [data-rails="straight"]')).to_contain_text("The 2 is in the way")
    tab(page, "balls")
    box = page.get_by_label("ball 2, from the bottom")
    box.fill("3.5")
    ask_by(page, lambda: box.press("Tab"))
    whole_list(page)
    straight = page.locator('#lines > ol [data-rails="straight"]').first
    ask_by(page, straight.click)
    assert state_of(page).rails == ()
    expect(page.locator("#answer")).to_contain_text("Straight")
    expect(page.locator("#answer")).to_contain_text("of cue in all")
    page.reload()
    expect(straight).to_have_attribute("aria-pressed", "true")


def test_a_pot_is_told_and_the_ball_is_gone(page: Page) -> None:
    open_at(page, "/?balls=cue:6,2;9:7.2,3.2&target=9&rails=straight&speed=2.2&up=-0.2")
    expect(page.locator("#moment")).to_contain_text("The 9 drops into the top-right corner")
    assert "9" not in rests(page)


def test_links_of_the_first_versions_still_open(page: Page) -> None:
    open_at(page, "/?balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7&rail=far")
    expect(page.locator("#answer")).to_contain_text("Top rail, from the left")
    page.locator("#drawing").wait_for()
    assert state_of(page).rails is not None
