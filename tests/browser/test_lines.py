"""Lines over many rails, banks by tapping a pocket, the mirror view, change instead: at both widths."""

import pytest
from playwright.sync_api import Browser, Page, expect
from tests.browser.helpers import (
    BLOCKED,
    ask_by,
    centre,
    figure,
    open_at,
    serious,
    settled,
    slide,
    state_of,
    tab,
    whole_list,
)

from fandle.core.table.rails import Rail
from fandle.web import address

pytestmark = pytest.mark.browser

THREE = (
    "/?game=straight&balls=cue:0.6,0.4;7:6.3,0.9;2:3.2,0.9;4:4.3,0.25&target=7&side=0.2&speed=4.4&rails=far,foot,near"
)
BANK = "/?game=straight&balls=cue:3,2.5;7:5,1.2;2:1,3&target=7&kind=bank&speed=3"


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


def test_a_line_is_chosen_and_stays_chosen(page: Page) -> None:
    """Clicked, a row gives its rails and its stroke; another stroke, or a moved ball, leaves the line as it is."""
    open_at(page, BLOCKED.replace("&rails=far", ""))
    whole_list(page)
    rows = page.locator("#lines > ol button")
    assert rows.count() == 5
    shares = [figure(rows.nth(k).locator(".room-text").inner_text()) for k in range(5)]
    assert shares == sorted(shares, reverse=True)
    second = rows.nth(1)
    rails, mark = second.get_attribute("data-rails") or "", second.locator(".at").inner_text()
    ask_by(page, second.click)
    assert state_of(page).rails == tuple(Rail(name) for name in rails.split(","))
    expect(page.locator("#mark")).to_have_text(mark)
    expect(page.locator("#gain")).to_contain_text("with this stroke")
    slide(page, "#speed", 3.5)
    assert state_of(page).rails == tuple(Rail(name) for name in rails.split(","))
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowLeft"))
    whole_list(page)
    page.reload()
    settled(page)
    assert state_of(page).rails == tuple(Rail(name) for name in rails.split(","))


def test_the_stroke_that_raises_the_chance_is_one_tap(page: Page) -> None:
    open_at(page, BLOCKED.replace("rails=far", "rails=head,far"))
    whole_list(page)
    expect(page.locator("#take-stroke")).to_contain_text("%")
    before = figure(page.locator("#gain b").inner_text())
    ask_by(page, page.locator("#take-stroke").click)
    whole_list(page)
    assert figure(page.locator("#gain b").inner_text()) > before
    assert state_of(page).rails == (Rail.HEAD, Rail.FAR)


def test_a_plan_can_be_stopped_and_late_replies_are_dropped(page: Page) -> None:
    """While it works a bar fills and a key stops it; what is known stays. A moved ball begins it anew."""
    page.add_init_script(
        "const ask = window.fetch; window.fetch = (url, how) => (window.holdPlans && String(url).endsWith('/api/plan')"
        " ? new Promise((_, no) => how.signal.addEventListener('abort', () => no(how.signal.reason))) : ask(url, how));"
    )
    open_at(page, BLOCKED.replace("&rails=far", ""))
    whole_list(page)
    page.evaluate("() => { window.holdPlans = true; }")
    page.locator('#drawing [data-ball="7"]').focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("#planning")).to_have_class("planning on")
    before = page.locator("#lines > ol button").count()
    page.locator("#planning button").click()
    expect(page.locator("#planning")).not_to_have_class("planning on")
    settled(page)
    assert page.locator("#lines > ol button").count() == before > 0
    page.evaluate("() => { window.holdPlans = false; }")
    page.locator('#drawing [data-ball="7"]').focus()
    for _ in range(4):
        page.keyboard.press("ArrowLeft")
    whole_list(page)
    assert page.locator("#lines > ol button").count() == 5


def test_the_game_decides_what_is_on(page: Page) -> None:
    """In nine-ball the 7 is not on beside the 2; one tap makes it straight pool, and the address keeps the game."""
    open_at(page, "/?balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7")
    settled(page)
    expect(page.locator("#not-on")).to_contain_text("the 2 is")
    expect(page.locator("#lines > ol button").first).to_contain_text("the 2")
    ask_by(page, page.locator("#not-on button").click)
    expect(page.locator("#not-on")).to_be_hidden()
    assert state_of(page).layout.game == "straight"
    ask_by(page, lambda: page.locator("#game").select_option("eight-ball|low||"))
    assert state_of(page).layout.state.group == "low"
    page.reload()
    settled(page)
    expect(page.locator("#game")).to_have_value("eight-ball|low||")
    assert serious(page) == []


def test_how_steady_one_is_changes_the_chances(page: Page) -> None:
    open_at(page, BLOCKED)
    whole_list(page)
    club = figure(page.locator("#gain b").inner_text())
    page.locator(".top [data-bs-toggle=dropdown]").click()
    page.locator("#help-open").click()
    ask_by(page, page.locator('#steady [data-by="strong"]').click)
    expect(page.locator("#steady-out")).to_contain_text("0.05° of cue")
    page.locator("#help form button").last.click()
    whole_list(page)
    assert figure(page.locator("#gain b").inner_text()) > club
    page.locator(".top [data-bs-toggle=dropdown]").click()
    page.locator("#help-open").click()
    ask_by(page, page.locator('#steady [data-by="club"]').click)


def test_a_bank_by_tapping_a_pocket(page: Page) -> None:
    open_at(page, BANK)
    expect(page.locator("#answer")).to_contain_text("Right rail, from the bottom")
    expect(page.locator("#answer")).to_contain_text("into the bottom-left corner, cut 32°")
    expect(page.locator("#task")).to_contain_text("Bank the 7")
    expect(page.locator("#moment")).to_contain_text("The 7 drops into the bottom-left corner")
    ask_by(page, page.locator('[data-pocket="head-near"]').click)
    assert state_of(page).called == "head-near"
    expect(page.locator("#pocket-out")).to_have_text("the bottom-left corner")
    page.locator('[data-pocket="head-near"]').focus()
    ask_by(page, lambda: page.keyboard.press("Enter"))
    expect(page.locator("#pocket-out")).to_have_text("any pocket")
    ask_by(page, page.locator('[data-goal="hit"]').click)
    assert (state_of(page).goal, state_of(page).kind) == ("hit", "kick")
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
    expect(page.locator("#pocket-out")).to_have_text("the bottom-right corner")
    assert page.evaluate("() => document.documentElement.scrollWidth") <= 390
    assert serious(page) == []
    page.close()


def test_after_a_drag_the_best_line_at_this_stroke_is_drawn(page: Page) -> None:
    """None chosen: the answer follows the drag at once, the list after it, and the best of its first rows is drawn."""
    open_at(page, BLOCKED.replace("&rails=far", ""))
    settled(page)
    x, y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 120, y - 60, steps=6)
    page.mouse.up()
    whole_list(page)
    chosen = page.locator("#lines [aria-pressed=true]")
    assert chosen.count() == 1
    here = figure(page.locator("#gain b").inner_text())
    assert 0 < here <= figure(chosen.locator(".room-text").inner_text()) + 1
    assert "rails=" not in page.url


def test_a_safe_leave_is_listed_with_what_the_opponent_gets(page: Page) -> None:
    """The goal Safe: the share, what is left, and where the balls stop, drawn for the chosen line."""
    open_at(page, "/?balls=cue:2.5,1.2;1:5,2.2;9:6.5,3;4:6,1;7:3,3.4&target=1&goal=safe")
    whole_list(page)
    first = page.locator("#lines > ol button").first
    expect(first).to_contain_text("leaves the 1")
    ask_by(page, first.click)
    whole_list(page)
    expect(page.locator('#layer-ends [data-end="cue"], #layer-ends [data-end="1"]')).to_have_count(2)
    assert state_of(page).goal == "safe"
    ask_by(page, page.locator('[data-goal="hit"]').click)
    assert state_of(page).goal == "hit"
    assert serious(page) == []


def test_lines_that_there_was_no_room_for_are_asked_for_by_unfolding_them(page: Page) -> None:
    """The fold counts them, and unfolded it holds every one."""
    open_at(page, "/?table=pool-7ft&game=nine-ball&balls=cue:4.9746,1.5882;1:0.7918,3.6433;8:4.9173,0.3777&target=1")
    whole_list(page)
    fold = page.locator("#lines details.more")
    counted, listed = figure(fold.locator("summary").inner_text()), fold.locator("button").count()
    assert counted > listed
    fold.locator("summary").click()
    expect(fold.locator("button").nth(listed)).to_be_visible()
    whole_list(page)
    assert abs(fold.locator("button").count() - counted) <= 2  # one of 0.2° may be a line or none
    assert figure(fold.locator("summary").inner_text()) == fold.locator("button").count()
