"""After the hit on the page: zones painted on the cloth, the next ball, one thing changed, the three goals side by side."""

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import ask_by, centre, open_at, serious, settled, state_of, tab, whole_list

from fandle.core.choice.position import Next

pytestmark = pytest.mark.browser

OPEN = "/?balls=cue:2.5,1.5;2:5.8,2.6;3:3.2,3.3;9:6,0.6&target=2&goal=pot"
SAFE = "/?balls=cue:2.5,1.2;1:5,2.2;9:6.5,3;4:6,1;7:3,3.4&target=1&goal=safe"


def cloth(page: Page, x: float, y: float) -> tuple[float, float]:
    """A place of the bed on screen."""
    ends = {}
    for name in ("head-near", "foot-far"):
        box = page.locator(f'#drawing [data-pocket="{name}"]').bounding_box()
        assert box is not None
        ends[name] = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    (x0, y0), (x1, y1) = ends["head-near"], ends["foot-far"]
    return x0 + (x1 - x0) * x / 8, y0 + (y1 - y0) * y / 4


def order(page: Page) -> list[str]:
    whole_list(page)
    rows = page.locator("#lines > ol button")
    return [f"{row.get_attribute('data-key')} {row.locator('.room-text').inner_text()}" for row in rows.all()]


def test_a_zone_is_painted_the_order_changes_and_undo_takes_it_back(page: Page) -> None:
    open_at(page, SAFE)
    before = order(page)
    page.mouse.click(*cloth(page, 1.2, 3.2))
    expect(page.locator("#ball-menu")).to_contain_text("Leave it here")
    ask_by(page, page.get_by_role("button", name="Leave it here").first.click)
    expect(page.locator("#layer-zones .zone")).to_have_count(1)
    zone = state_of(page).then.zones[0]
    assert (zone.x, zone.y) == (pytest.approx(1.2, abs=0.1), pytest.approx(3.2, abs=0.1))
    assert order(page) != before
    ask_by(page, page.locator("#undo").click)
    expect(page.locator("#layer-zones .zone")).to_have_count(0)
    assert state_of(page).then.zones == ()


def test_a_zone_is_moved_sized_and_taken_off_by_keys_and_dragged(page: Page) -> None:
    open_at(page, SAFE + "&stay-off=4,2,0.5")
    mark = page.locator("#layer-zones .zone.away")
    expect(mark).to_have_count(1)
    mark.focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    assert state_of(page).then.away[0].x == pytest.approx(4.1)
    page.locator("#layer-zones .zone.away").focus()
    ask_by(page, lambda: page.keyboard.press("+"))
    assert state_of(page).then.away[0].r == pytest.approx(0.6)
    x, y = cloth(page, 4.1, 2.0)
    to_x, to_y = cloth(page, 3.1, 2.5)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(to_x, to_y, steps=4)
    ask_by(page, page.mouse.up)
    moved = state_of(page).then.away[0]
    assert (moved.x, moved.y) == (pytest.approx(3.1, abs=0.05), pytest.approx(2.5, abs=0.05))
    page.locator("#layer-zones .zone.away").focus()
    ask_by(page, lambda: page.keyboard.press("Delete"))
    expect(page.locator("#layer-zones .zone")).to_have_count(0)
    assert serious(page) == []


def test_a_ball_is_dragged_out_of_a_zone_and_no_menu_opens_on_it(page: Page) -> None:
    open_at(page, SAFE + "&stop=5,2.2,1")
    x, y = centre(page, "1")
    to_x, to_y = cloth(page, 5.5, 2.9)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(to_x, to_y, steps=4)
    ask_by(page, page.mouse.up)
    assert state_of(page).layout.ball("1").x == pytest.approx(5.5, abs=0.05)
    assert state_of(page).then.zones[0].x == 5.0
    expect(page.locator("#ball-menu")).to_be_hidden()


def test_the_next_ball_is_chosen_and_its_line_drawn(page: Page) -> None:
    open_at(page, OPEN)
    whole_list(page)
    tab(page, "after")
    ask_by(page, lambda: page.locator("#next-ball").select_option("3"))
    whole_list(page)
    assert state_of(page).then.next == Next("3")
    expect(page.locator("#lines > ol button").first).to_contain_text("then the 3")
    expect(page.locator("#after-said")).to_contain_text("is next")
    assert page.locator("#ahead").get_attribute("d")
    ask_by(page, lambda: page.locator("#next-pocket").select_option("side-far"))
    assert state_of(page).then.next == Next("3", "side-far")
    ask_by(page, lambda: page.locator("#next-ball").select_option(""))
    assert state_of(page).then.next is None


def test_one_thing_changed_is_listed_and_taken(page: Page) -> None:
    open_at(page, "/?game=straight&balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7&rails=far")
    tab(page, "after")
    expect(page.locator(".vary tbody tr").first).to_contain_text("as it is")
    harder = page.locator(".vary").get_by_role("button", name="harder", exact=True)
    speed = state_of(page).stroke.speed
    ask_by(page, harder.click)
    assert state_of(page).stroke.speed == pytest.approx(speed * 1.25, rel=0.02)
    settled(page)
    assert serious(page) == []


def test_hit_pot_or_safe_side_by_side(page: Page) -> None:
    open_at(page, OPEN)
    tab(page, "goals")
    page.locator("#goals-start").click()
    expect(page.locator("#goals-start")).to_have_text("Stop")
    expect(page.locator("#goals-say")).to_contain_text("You decide.", timeout=60_000)
    assert page.locator("#goals-out section").count() == 3
    expect(page.locator("#goals-out")).to_contain_text("foul")
    ask_by(page, page.locator("#goals-out section").nth(2).get_by_role("button").first.click)
    assert state_of(page).goal == "safe"
    assert serious(page) == []


def test_the_comparison_is_stopped(page: Page) -> None:
    open_at(page, OPEN)
    tab(page, "goals")
    page.locator("#goals-start").click()
    page.locator("#goals-start").click()
    expect(page.locator("#goals-start")).to_have_text("Compare the three")
    expect(page.locator("#goals-say")).to_be_empty()
