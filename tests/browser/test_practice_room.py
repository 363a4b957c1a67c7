"""Practice in a browser: a whole session by touch, interrupted and gone on with; by keyboard; the quiz; progress."""

import re

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import serious

from fandle.web import address

pytestmark = pytest.mark.browser


def begun(page: Page) -> None:
    page.goto(address.PRACTICE_ROOM)
    expect(page.locator("#plan li b").first).to_be_visible()


def test_a_session_by_touch_is_gone_on_with_after_it_was_left(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    begun(page)
    expect(page.locator("#plan li")).to_have_count(3)
    first = page.locator("#plan [data-part]").first
    name = first.get_attribute("data-part")
    first.click()
    expect(page.locator("#keys")).to_be_visible()
    dots = page.locator(".dots i")
    before = dots.count()
    for more, key in enumerate(("#made", "#missed", "#made"), 1):
        page.locator(key).click()
        expect(dots).to_have_count(min(before + more, 10))
    expect(page.locator("#score b").first).to_have_text("1")  # the streak: one after a miss
    told = page.locator("#score").text_content()
    assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")
    assert (page.locator("#made").bounding_box() or {"height": 0})["height"] >= 60
    page.goto("/")
    page.goto(address.PRACTICE_ROOM)
    expect(page.locator(f'#plan [data-part="{name}"]')).to_have_text("Set up")
    expect(page.locator("#score")).to_have_text(told or "")
    page.locator("#plan select").nth(1).select_option(index=1)
    expect(page.locator("#plan li").nth(1)).to_contain_text("Your choice")


def test_a_session_by_keyboard(page: Page) -> None:
    begun(page)
    page.locator("#plan [data-part]").first.focus()
    page.keyboard.press("Enter")
    expect(page.locator("#keys")).to_be_visible()
    page.evaluate("() => document.activeElement.blur()")
    before = page.locator("#score .soft").first.text_content() or ""
    page.keyboard.press("m")
    expect(page.locator("#score .soft").first).not_to_have_text(before)
    made = page.locator("#score .soft").first.text_content() or ""
    page.keyboard.press("x")
    expect(page.locator("#score .soft").first).not_to_have_text(made)
    page.keyboard.press("u")
    expect(page.locator("#score .soft").first).to_have_text(made)
    page.locator("#tab-tonight").focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("#drills")).to_be_visible()
    expect(page.locator("#tab-drills")).to_be_focused()
    assert page.locator("#drills .entry").count() > 25
    page.locator('#drills [data-drill="return-3"]').focus()
    page.keyboard.press("Enter")
    expect(page.locator("#title")).to_have_text("Out and back over three rails")
    expect(page.locator("#layer-guess .goal-circle")).to_have_count(1)
    expect(page.locator("#layer-guess .contact")).to_have_count(3)
    assert serious(page) == []


def test_a_pattern_is_gone_through_shot_by_shot(page: Page) -> None:
    page.goto(f"{address.PRACTICE_ROOM}#drill=pattern-3")
    expect(page.locator("#shot-at")).to_have_text("Shot 1 of 3")
    expect(page.locator("#layer-balls .ball")).to_have_count(4)
    expect(page.locator("#shot-back")).to_be_disabled()
    first = page.locator("#shot").get_attribute("d")
    for more, balls in ((2, 3), (3, 2)):
        page.locator("#shot-on").click()
        expect(page.locator("#shot-at")).to_have_text(f"Shot {more} of 3")
        expect(page.locator("#layer-balls .ball")).to_have_count(balls)
    expect(page.locator("#shot-on")).to_be_disabled()
    assert page.locator("#shot").get_attribute("d") != first
    assert page.locator("#after").get_attribute("d")
    page.goto(f"{address.PRACTICE_ROOM}#drill=return-2")
    expect(page.locator("#title")).to_have_text("Out and back over two rails")
    expect(page.locator("#shot-keys")).to_be_hidden()
    expect(page.locator("#after")).to_have_attribute("d", "")


def test_a_round_of_banks_goes_on_by_itself_and_is_counted(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{address.PRACTICE_ROOM}#drill=bank-fifteen")
    expect(page.locator("#shot-at")).to_have_text(re.compile("of 15"))
    at = int(re.findall(r"\d+", page.locator("#shot-at").text_content() or "")[0])
    page.locator("#made").click()
    expect(page.locator("#shot-at")).to_have_text(f"Shot {at % 15 + 1} of 15")
    expect(page.locator("#score")).to_contain_text("this round")
    page.locator("#undo").click()
    expect(page.locator("#shot-at")).to_have_text(f"Shot {at} of 15")
    assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")


def ask(page: Page) -> None:
    """The next question; whatever is due."""
    page.locator("#next-question").click()
    expect(page.locator("#told")).to_be_empty()
    expect(page.locator("#question")).not_to_be_empty()
    expect(page.locator("#clock")).to_be_visible()
    expect(page.locator("#shot")).to_have_attribute("d", "")


def answer(page: Page) -> None:
    """An answer of the kind that is asked for, right or wrong."""
    if page.locator("#options button").count():
        page.locator("#options button").first.click()
    else:
        page.locator("#mark-at").fill("2.5")
        page.keyboard.press("Enter")
    expect(page.locator("#told")).to_have_class(re.compile("told (right|wrong)"))
    expect(page.locator("#shot")).not_to_have_attribute("d", "")
    expect(page.locator("#next-question")).to_be_focused()


def ask_for_a_mark(page: Page) -> None:
    """Questions until one asks for a mark on a rail: every topic comes in its turn."""
    for _ in range(16):
        ask(page)
        if page.locator("#layer-guess .asked-rail").count():
            return
        answer(page)
    raise AssertionError("no question asked for a mark")


def test_the_quiz_shows_no_line_until_it_is_answered(page: Page) -> None:
    begun(page)
    page.locator("#tab-quiz").click()
    for _ in range(8):
        ask(page)
        answer(page)


def test_a_mark_is_tapped_on_the_drawing_or_moved_by_keys(page: Page) -> None:
    begun(page)
    page.locator("#tab-quiz").click()
    ask_for_a_mark(page)
    box = page.locator("#layer-guess .asked-rail").bounding_box()
    assert box is not None
    page.mouse.click(box["x"] + 0.4 * box["width"], box["y"] + 0.4 * box["height"])
    expect(page.locator("#layer-guess .named")).to_have_count(1)
    tapped = page.locator("#mark-at").input_value()
    page.locator("#mark-at").press("ArrowUp")
    expect(page.locator("#mark-at")).to_have_value(f"{float(tapped) + 0.05:.2f}")
    page.locator("#answer-form button").click()
    expect(page.locator("#told")).to_contain_text(re.compile("The mark is|meets the"))
    expect(page.locator("#layer-guess .truth")).to_have_count(1)


def test_progress_is_plotted_with_its_words(page: Page) -> None:
    begun(page)
    page.locator("#plan [data-part]").first.click()
    expect(page.locator("#keys")).to_be_visible()
    page.locator("#made").click()
    page.locator("#tab-progress").click()
    expect(page.locator("#progress .row").first).to_be_visible()
    expect(page.locator("#progress .weeks").first).to_have_attribute("aria-label", re.compile("week of"))


def test_a_try_without_a_server_is_kept_and_sent_later(page: Page) -> None:
    begun(page)
    page.locator("#plan [data-part]").first.click()
    expect(page.locator("#keys")).to_be_visible()
    dots = page.locator(".dots i")
    before = dots.count()
    page.route("**/api/practice/tries", lambda route: route.abort())
    page.locator("#made").click()
    expect(page.locator("#toast")).to_contain_text("Kept in this browser")
    expect(dots).to_have_count(before)
    page.unroute("**/api/practice/tries")
    page.evaluate("() => window.dispatchEvent(new Event('online'))")
    expect(page.locator("#toast")).to_contain_text("is saved now")
    expect(dots).to_have_count(min(before + 1, 10))


def test_a_layout_becomes_a_drill_of_ones_own(page: Page) -> None:
    page.goto("/?table=pool-9ft&balls=cue:1.2,1.1;7:5.4,0.9;2:3.3,1&target=7&rails=far&speed=3")
    expect(page.locator("#layer-balls .ball")).to_have_count(3)
    page.locator("#layout-menu").click()
    page.locator("text=Make a drill of it").click()
    expect(page.locator("#own-form")).to_be_visible()
    page.locator("#own-title").fill("From the browser")
    page.locator("#own-wanted").fill("9")
    page.locator("#own-of").fill("5")
    page.locator("#own-form button").click()
    expect(page.locator("#own-fault")).to_contain_text("9 of the last 5 is no goal")
    expect(page.locator("#own-title")).to_have_value("From the browser")  # nothing typed is lost
    page.locator("#own-of").fill("12")
    page.locator("#own-form button").click()
    expect(page.locator("#title")).to_have_text("From the browser")
    expect(page.locator("#layer-balls .ball")).to_have_count(3)
    expect(page.locator("#score")).to_contain_text("9 of the last 12")
    assert serious(page) == []
    page.locator("#made").click()
    expect(page.locator("#drill-list .own-row .fig").first).to_have_text("1 of 1")
    page.locator("#undo").click()
    page.locator("[data-delete]").first.click()
    expect(page.locator(".own-row")).to_have_count(0)


def test_without_sums_the_drill_is_gone_through_with_hands_and_cue(page: Page) -> None:
    begun(page)
    page.locator("#no-sums").check()
    page.locator("#tab-drills").click()
    page.locator('[data-drill="natural-3"]').click()
    expect(page.locator("#task")).to_contain_text("Aim at the top rail")
    page.locator("#hands-start").click()
    expect(page.locator("#layer-hands .hand").first).to_be_attached()
    page.locator("#step-card").press("End")
    expect(page.locator(".step-do")).to_contain_text("Remember that point on the top rail")
    page.reload()
    expect(page.locator("#no-sums")).to_be_checked()
    assert "sums=false" in (page.locator("#hand-out").get_attribute("href") or "")


def test_progress_is_grouped_and_its_goal_chosen(page: Page) -> None:
    begun(page)
    page.locator("#tab-progress").click()
    kinds = page.locator("#changes .row", has_text="Log: one rail, plain")
    expect(kinds).to_be_visible()
    page.get_by_label("The log by").select_option("table")
    expect(kinds).to_have_count(0)
    page.locator("#changes").get_by_label("Goal").select_option("0.3")
    expect(page.locator("#changes .row", has_text="Goal ± 0.3").first).to_be_visible()
    page.reload()
    page.locator("#tab-progress").click()
    expect(page.get_by_label("The log by")).to_have_value("table")
