"""The check room in the browser: by touch on a phone, by keyboard, interrupted and gone on with, kept, and the line of
advice after a miss in the Table room."""

import pytest
from playwright.sync_api import Browser, Page, expect
from tests.browser.helpers import figure, open_at, serious, tab

from fandle.web import address

pytestmark = pytest.mark.browser
BUSY = "document.getElementById('note').disabled === false"


def ready(page: Page) -> None:
    """Wait until nothing is being worked out."""
    page.wait_for_function(f"() => {BUSY}")


def test_a_check_by_keyboard_from_the_first_shot_to_a_kept_table(page: Page) -> None:
    page.goto(f"{address.CHECK_ROOM}?table=pool-8ft")
    expect(page.locator("#aim")).to_contain_text("Aim at 3 on the top rail, medium")
    near = page.locator('.landing[data-rail="near"]')
    before = figure(near.text_content() or "")
    for _ in range(2):
        near = page.locator('.landing[data-rail="near"]')
        near.focus()
        for _ in range(5):
            page.keyboard.press("ArrowLeft")
        assert figure(page.locator('.landing[data-rail="near"]').text_content() or "") == pytest.approx(
            before - 0.5, abs=0.02
        )
        page.locator("#again").press("Enter")
        ready(page)
    expect(page.locator("#verdict")).to_contain_text("It is the table")
    expect(page.locator(".plays tbody tr").first).to_contain_text("short")
    assert page.locator("#noted li").count() == 2
    assert serious(page) == []
    page.locator("#keep").press("Enter")
    expect(page.locator("#toast")).to_contain_text("plays with these numbers")
    page.locator("#play-on").click()
    expect(page.locator("#answer")).not_to_be_empty()
    assert "checked" in page.url


def test_a_check_by_touch_on_a_phone_goes_on_after_it_was_left(chromium: Browser, site: str) -> None:
    context = chromium.new_context(base_url=site, viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    page.goto(f"{address.CHECK_ROOM}?table=pool-9ft")
    mark = page.locator('.landing[data-rail="near"] .dot')
    box = mark.bounding_box()
    assert box is not None
    cdp = context.new_cdp_session(page)
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    before = figure(page.locator('.landing[data-rail="near"]').text_content() or "")
    cdp.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [{"x": x, "y": y}]})
    for step in range(1, 5):
        cdp.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [{"x": x - 6 * step, "y": y}]})
    cdp.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    assert figure(page.locator('.landing[data-rail="near"]').text_content() or "") < before - 0.3
    page.wait_for_timeout(500)  # else the two touches count as one gesture
    page.locator("#note").tap()
    ready(page)
    expect(page.locator("#noted li")).to_have_count(1)
    expect(page.locator("#fault")).to_be_hidden()
    expect(page.locator("#verdict")).to_contain_text("One landing of each")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.goto(address.TABLE_ROOM)
    page.goto(f"{address.CHECK_ROOM}?table=pool-9ft")
    expect(page.locator("#noted li")).to_have_count(1)
    expect(page.locator("#step")).to_contain_text("Shot 2 of 7")
    context.close()


def test_the_practice_shooter_shows_what_a_hidden_table_does(page: Page) -> None:
    page.goto(f"{address.CHECK_ROOM}?table=Damp%20nine-foot")
    for _ in range(8):
        page.locator("#shooter").click()
        ready(page)
    expect(page.locator("#verdict")).to_contain_text("It is the table")
    assert page.locator("#noted li").count() == 8
    page.locator("#noted button").first.click()
    expect(page.locator("#noted li")).to_have_count(7)


def test_a_marked_miss_over_three_rails_is_carried_as_a_test_shot_and_forgotten_in_the_handbook(page: Page) -> None:
    track = "/?game=straight&balls=cue:1.2,0.5;7:5.4,0.11&target=7&rails=far,foot,near&method=M14&speed=4.2&side=0.35"
    open_at(page, track)
    page.locator('#note [data-result="short"]').click()
    expect(page.locator("#miss")).to_be_visible()
    expect(page.locator("#miss button", has_text="Carry it")).to_have_count(0)  # its landing is not marked yet
    page.locator("#crossed").fill("5.8")
    page.locator("#miss button", has_text="Carry it").click()
    expect(page.locator("#miss")).to_contain_text("Carried on this table: ")
    page.goto("/handbook/M14")
    expect(page.locator("#carried")).to_contain_text("by your test shot")
    page.locator("#forget").click()
    expect(page.locator("#carried")).to_have_text("Nothing is carried on this table.")


def test_a_miss_gets_one_line_of_advice_under_the_note_keys(page: Page) -> None:
    open_at(page, "/?game=straight&balls=cue:1.1,0.55;7:5.3,0.5&target=7&rails=far")
    page.locator('#note [data-result="short"]').click()
    expect(page.locator("#miss")).to_be_visible()
    page.locator("#crossed").fill("3.6")
    expect(page.locator("#miss")).to_contain_text("Next: aim at")
    page.locator('#note [data-result="hit"]').click()
    expect(page.locator("#miss")).to_be_hidden()
    tab(page, "count")
