"""Lines over many rails, banks by tapping a pocket, the mirror view, change instead: at both widths."""

import pytest
from playwright.sync_api import Browser, Page, expect
from tests.browser.helpers import ask_by, centre, open_at, serious, settled, slide, state_of, tab

from fandle.core.table.rails import Rail
from fandle.web import address

pytestmark = pytest.mark.browser

THREE = "/?balls=cue:0.6,0.4;7:6.3,0.9;2:3.2,0.9;4:4.3,0.25&target=7&side=0.2&speed=4.4&count=3&rails=far,foot,near"
BANK = "/?balls=cue:3,2.5;7:5,1.2;2:1,3&target=7&kind=bank&speed=3"


def in_view(page: Page, selector: str, height: int) -> bool:
    box = page.locator(selector).bounding_box()
    return box is not None and box["y"] >= 0 and box["y"] + box["height"] <= height


def test_a_three_rail_kick_its_unfolded_picture_and_its_chain_on_one_screen(page: Page) -> None:
    """1280 x 800, nothing scrolled."""
    page.set_viewport_size({"width": 1280, "height": 800})
    open_at(page, THREE)
    for selector in ("#drawing", "#sum", "#mark", "#lines", "#stroke", "#note .note-keys"):
        assert in_view(page, selector, 800), selector
    tab(page, "chain")
    assert in_view(page, "#chain table", 830)
    expect(page.locator("#mirror svg")).to_have_count(0)  # only where it is asked for
    tab(page, "mirror")
    expect(page.locator("#mirror svg")).to_be_visible()
    assert page.locator("#mirror .tile").count() == 4
    assert page.locator("#mirror .joint").count() == 3
    tab(page, "after")
    expect(page.locator(".cushions")).to_contain_text("top: in")
    expect(page.locator(".seen")).to_contain_text("bottom rail")
    expect(page.locator(".seen")).to_contain_text("seen from the 7")
    assert serious(page) == []


def test_rails_are_chosen_and_the_list_follows(page: Page) -> None:
    open_at(page)
    assert page.locator("#lines button").count() == 5
    with page.expect_response(lambda r: r.url.endswith(address.ANSWER)):
        page.locator('[data-count="2"]').click()
    settled(page)
    assert state_of(page).many == "2"
    names = [button.get_attribute("data-rails") or "" for button in page.locator("#lines button").all()]
    assert names
    assert all(name.count(",") == 1 for name in names)
    second = names[1]
    ask_by(page, page.locator(f'#lines [data-rails="{second}"]').click)
    assert state_of(page).rails == tuple(Rail(name) for name in second.split(","))
    with page.expect_response(lambda r: r.url.endswith(address.LINES)):
        slide(page, "#speed", 3.5)
    settled(page)
    expect(page.locator("#ways")).not_to_have_class("ways late")
    page.reload()
    settled(page)
    assert state_of(page).rails == tuple(Rail(name) for name in second.split(","))


def test_a_bank_by_tapping_a_pocket(page: Page) -> None:
    open_at(page, BANK)
    expect(page.locator("#answer")).to_contain_text("Bottom rail, from the left")
    expect(page.locator("#answer")).to_contain_text("into the top-right corner, cut 34°")
    expect(page.locator("#task")).to_contain_text("Bank the 7")
    expect(page.locator("#moment")).to_contain_text("The 7 drops into the top-right corner")
    ask_by(page, page.locator('[data-pocket="head-near"]').click)
    assert state_of(page).pocket == "head-near"
    expect(page.locator("#pocket-out")).to_have_text("into the bottom-left corner")
    expect(page.locator("#answer")).to_contain_text("into the bottom-left corner")
    page.locator('[data-pocket="head-near"]').focus()
    ask_by(page, lambda: page.keyboard.press("Enter"))
    assert state_of(page).pocket is None
    ask_by(page, page.locator('[data-kind="kick"]').click)
    assert state_of(page).kind == "kick"
    assert page.locator('[data-pocket="head-near"]').get_attribute("tabindex") is None


def test_hold_the_mark_and_change_the_side(page: Page) -> None:
    open_at(page)
    tab(page, "adjust")
    page.locator("#held").fill("2.75")
    ask_by(page, page.locator('[data-change="side"]').click)
    expect(page.locator("#mark")).to_have_text("2.75")
    assert abs(state_of(page).stroke.side) > 0.01
    expect(page.locator("#held-out")).to_contain_text("the mark stays")
    page.locator("#undo").click()
    settled(page)
    assert state_of(page).stroke.side == pytest.approx(0.0)
    page.locator("#held").fill("0.3")
    page.locator('[data-change="up"]').click()
    expect(page.locator("#held-out")).to_contain_text("No follow or draw within the limits")
    page.locator("#held").fill("two")
    page.locator('[data-change="speed"]').click()
    expect(page.locator("#held-out")).to_contain_text("as a number")


def test_only_the_balls_involved(page: Page) -> None:
    open_at(page, THREE)
    expect(page.locator('#layer-balls [data-ball="2"]')).to_be_visible()
    page.locator("#only").click()
    expect(page.locator('#layer-balls [data-ball="2"]')).to_be_hidden()
    expect(page.locator('#layer-balls [data-ball="7"]')).to_be_visible()
    page.locator("#only").click()
    expect(page.locator('#layer-balls [data-ball="2"]')).to_be_visible()


def test_all_of_it_on_a_phone(chromium: Browser, site: str) -> None:
    page = chromium.new_page(viewport={"width": 390, "height": 844}, has_touch=True)
    page.add_init_script("localStorage.setItem('fandle-first-visit', '1')")
    open_at(page, site + THREE)
    page.locator('[data-sheet="sheet-play"]').tap()
    page.locator("#tab-mirror").tap()
    expect(page.locator("#mirror svg")).to_be_visible()
    assert page.evaluate("() => document.documentElement.scrollWidth") <= 390
    page.locator("#tab-adjust").tap()
    page.locator("#held").fill("4")
    with page.expect_response(lambda r: r.url.endswith(address.INSTEAD)):
        page.locator('[data-change="side"]').tap()
    settled(page)
    expect(page.locator("#held-out")).not_to_be_empty()
    open_at(page, site + BANK)
    ask_by(page, lambda: page.locator('[data-pocket="head-near"]').tap())
    expect(page.locator("#pocket-out")).to_have_text("into the bottom-right corner")
    assert page.evaluate("() => document.documentElement.scrollWidth") <= 390
    assert serious(page) == []
    page.close()


def test_after_a_drag_the_best_line_is_the_lists_first(page: Page) -> None:
    """All kicks over one to three rails, none chosen: the answer follows at once, the list after it, and they agree."""
    open_at(page, "/?balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7&count=all")
    settled(page)
    x, y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 120, y - 60, steps=6)
    page.mouse.up()
    expect(page.locator("#ways")).not_to_have_class("ways late")
    settled(page)
    first = page.locator("#lines button").first
    expect(first).to_have_attribute("aria-pressed", "true")
    assert first.locator(".at").inner_text() == page.locator("#mark").inner_text()
    assert "rails=" not in page.url
