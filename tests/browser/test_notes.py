"""Noting: one tap is one attempt, words stay with their attempt, undo takes back the newest thing; banks, straight shots."""

from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect
from tests.browser.helpers import ask_by, line, open_at, settled, whole_list

pytestmark = pytest.mark.browser
BANK = "/?balls=cue:2,2;1:4.5,1.5&target=1&kind=bank&rails=foot&pocket=head-near"


def noted(page: Page) -> list[dict[str, Any]]:
    """The log, newest first."""
    rows: list[dict[str, Any]] = page.request.get("/log.json").json()["attempts"]
    return rows


def told(page: Page) -> None:
    expect(page.locator("#note-more")).to_be_visible()
    settled(page)


def test_two_taps_are_one_attempt(page: Page) -> None:
    open_at(page)
    before = len(noted(page))
    page.locator('[data-result="hit"]').dblclick()
    told(page)
    page.locator("#again").click()
    settled(page)
    assert len(noted(page)) == before + 1


def test_a_word_typed_late_stays_with_its_attempt(page: Page) -> None:
    """The next attempt is noted while the word of the last one is still on its way."""
    open_at(page)
    page.locator('[data-result="short"]').click()
    told(page)

    def slow(route: Route) -> None:
        page.wait_for_timeout(300)
        route.continue_()

    page.route("**/api/attempts/*", slow)
    page.locator("#comment").fill("first word")
    page.locator("#again").click()
    page.locator('[data-result="long"]').click()
    told(page)
    page.locator("#comment").fill("second word")
    page.locator("#again").click()
    settled(page)
    page.unroute("**/api/attempts/*")
    assert [(row["result"], row["comment"]) for row in noted(page)[:2]] == [
        ("long", "second word"),
        ("short", "first word"),
    ]


def test_undo_takes_back_the_newest_thing_a_note_too(page: Page) -> None:
    open_at(page)
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowUp"))
    moved = page.url
    before = len(noted(page))
    page.locator('[data-result="hit"]').click()
    told(page)
    page.keyboard.press("Control+z")
    expect(page.locator("#toast")).to_contain_text("taken back")
    assert len(noted(page)) == before
    assert page.url == moved  # the ball stays where it was moved to
    page.keyboard.press("Control+y")
    expect(page.locator("#toast")).to_contain_text("in the log again")
    assert len(noted(page)) == before + 1
    page.keyboard.press("Control+z")
    expect(page.locator("#toast")).to_contain_text("taken back")
    ask_by(page, lambda: page.keyboard.press("Control+z"))
    assert page.url != moved


def test_a_bank_and_a_straight_shot_are_noted(page: Page) -> None:
    open_at(page, BANK)
    expect(page.locator(".note-keys button").first).to_have_text("Pocketed")
    page.locator('[data-result="short"]').click()
    told(page)
    expect(page.locator("#crossing")).to_be_visible()
    page.locator("#again").click()
    open_at(page, "/?balls=cue:2,2;1:4.5,1.5&target=1&rails=straight")
    keys = page.locator(".note-keys button:visible")
    expect(keys).to_have_text(["Hit", "Left of it", "Right of it"])
    keys.nth(1).click()
    told(page)
    expect(page.locator("#crossing")).to_be_hidden()
    page.locator("#again").click()
    straight, bank = noted(page)[:2]
    assert (straight["kind"], straight["result"], straight["title"]) == ("straight", "left of it", "the 1 straight")
    assert (bank["kind"], bank["pocket"], bank["potted"]) == ("bank", "head-near", False)
    assert bank["title"] == "bank the 1 over the foot rail into head-near"
    page.goto("/log")
    page.get_by_role("link", name=bank["title"]).first.click()
    expect(page.locator("#answer")).to_contain_text("into the bottom-left corner")


def test_without_a_secure_context_noting_works(chromium: Browser, site: str) -> None:
    """Plain HTTP from another device: browsers then keep randomUUID back."""
    context = chromium.new_context(base_url=site)
    context.add_init_script("delete Crypto.prototype.randomUUID; localStorage.setItem('fandle-first-visit', '1')")
    page = context.new_page()
    open_at(page)
    assert page.evaluate("() => crypto.randomUUID === undefined")
    before = len(noted(page))
    page.locator('[data-result="hit"]').click()
    told(page)
    assert len(noted(page)) == before + 1
    context.close()


HOME = "/?balls=cue:3,0.6;2:7.3,0.4;11:5.15,0.5;8:5.9,3.4;14:2.6,3.5&target=2&game=eight-ball&group=low&rails=far"


def test_a_kick_to_pot_is_read_played_noted_and_undone(page: Page) -> None:
    """Tap a pocket, or any; read both windows; note made, left side, second try, where it stopped; undo."""
    open_at(page, HOME)
    ask_by(page, lambda: page.locator('[data-goal="pot"]').click())
    whole_list(page)
    ask_by(page, line(page, "near").click)
    expect(page.locator("#answer .window")).to_contain_text("to pot it")
    expect(page.locator("#answer .window")).to_contain_text("to hit it")
    assert page.locator(".pot-window").count() == 1
    keys = page.locator(".note-keys button:visible")
    assert keys.all_inner_texts() == ["Pocketed", "Hit", "Short", "Long", "Missed the rail"]
    before = noted(page)
    keys.first.click()
    told(page)
    page.locator('[data-side="left"]').click()
    page.locator("#note-rest summary").click()
    expect(page.locator('[data-flag="potted"]')).to_have_attribute("aria-pressed", "true")
    page.locator('[data-flag="try_number"]').click()
    page.locator('[data-flag="left_safe"]').click()
    page.locator("#stop-here").click()
    mark = page.locator(".stop-mark .disc").bounding_box()
    assert mark is not None
    page.mouse.move(mark["x"] + 5, mark["y"] + 5)
    page.mouse.down()
    page.mouse.move(mark["x"] + 45, mark["y"] + 25, steps=4)
    page.mouse.up()
    settled(page)
    expect(page.locator('[data-flag="try_number"]')).to_have_attribute("aria-pressed", "true")
    page.locator("#again").click()
    settled(page)
    row = noted(page)[0]
    assert len(noted(page)) == len(before) + 1
    assert (row["result"], row["potted"], row["side_hit"], row["try_number"], row["left_safe"]) == (
        "hit", True, "left", 2, True,
    )  # fmt: skip
    assert (row["kind"], row["pocket"]) == ("kick", "foot-near")
    assert 0 <= row["stopped_x"] <= 8
    page.locator("#undo").click()
    settled(page)
    assert noted(page) == before


def test_further_contacts_are_typed(page: Page) -> None:
    open_at(page, "/?balls=cue:2,0.5;7:5.6,0.12;9:4,2.2&target=7&rails=far,foot,near&side=0.35&speed=4")
    page.locator('[data-result="short"]').click()
    told(page)
    page.locator("#note-rest summary").click()
    fields = page.locator("#contacts input")
    assert fields.count() == 2
    fields.nth(0).fill("2.45")
    fields.nth(1).fill("6.2")
    page.locator("#again").click()
    settled(page)
    assert noted(page)[0]["touched"] == [{"rail": "foot", "at": 2.45}, {"rail": "near", "at": 6.2}]
