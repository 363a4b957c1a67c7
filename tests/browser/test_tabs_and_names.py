"""Two tabs on one record, a pupil's file, a nickname for one's own, and lists that come in parts."""

from dataclasses import replace
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import ask_by, open_at, settled
from tests.demo import demo_practice

from fandle.formats.log import json_parts
from fandle.web import address

pytestmark = pytest.mark.browser
LAYOUT = {
    "table": "pool-9ft", "game": "nine-ball", "target": "1",
    "balls": [{"id": "cue", "x": 2, "y": 1}, {"id": "1", "x": 5, "y": 1}],
}  # fmt: skip


def test_the_later_of_two_tabs_is_told_and_nothing_is_written_over(page: Page) -> None:
    open_at(page)
    page.locator("#save-now").click()
    page.locator("#layout-name").fill("In two tabs")
    page.keyboard.press("Enter")
    expect(page.locator("#layout-title")).to_have_text("In two tabs")
    settled(page)
    other = page.context.new_page()
    other.goto(page.url)
    settled(other)
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    page.locator("#save-now").click()
    expect(page.locator("#toast")).to_contain_text("is saved")
    other.locator("#save-now").click()
    expect(other.locator("#fault")).to_contain_text("was changed elsewhere meanwhile: nothing is saved over it")
    other.close()
    page.locator("#toast button").click()  # the change is taken back: that follows what was saved
    settled(page)
    expect(page.locator("#fault")).to_be_hidden()


def test_a_file_of_another_me_is_asked_whose_it_is(page: Page, tmp_path: Path) -> None:
    rows = [replace(row, uid=f"pupil-{n:06d}", player="Me") for n, row in enumerate(demo_practice()[:3])]
    (tmp_path / "log.json").write_text("".join(json_parts(rows)))
    page.goto("/log")
    before = page.request.get(address.LOG_JSON).json()["attempts"]
    page.locator("#import").set_input_files(tmp_path / "log.json")
    dialog = page.locator("dialog[open]")
    expect(dialog).to_contain_text("Whose file is this?")
    dialog.get_by_role("button", name="Cancel").click()
    assert len(page.request.get(address.LOG_JSON).json()["attempts"]) == len(before)
    page.locator("#import").set_input_files(tmp_path / "log.json")
    dialog.get_by_role("textbox").fill("Anna")
    with page.expect_navigation():
        dialog.get_by_role("button", name="Take it in").click()
    after = page.request.get(address.LOG_JSON).json()["attempts"]
    assert {row["player"] for row in after if row["uid"].startswith("pupil-")} == {"Anna"}


def test_a_nickname_is_asked_for_once_before_a_file_is_handed_on(page: Page) -> None:
    page.goto("/log")
    page.locator(".exports a").first.click()
    dialog = page.locator("dialog[open]")
    expect(dialog).to_contain_text("What do others call you?")
    with page.expect_download() as found:
        dialog.get_by_role("button", name="Leave it at").click()
    assert found.value.suggested_filename == "fandle-log.csv"
    page.goto("/practice")
    page.locator("#tab-progress").click()
    with page.expect_download() as found:
        page.locator("#my-results").click()
    assert found.value.suggested_filename == "practice.fandle.json"


def test_long_lists_come_in_parts_and_are_searched_on_the_server(page: Page) -> None:
    kept = [
        page.request.post(address.LAYOUTS, data={"name": f"One of many {n}", "layout": LAYOUT}).json()
        for n in range(60)
    ]
    open_at(page)
    page.locator("#open-menu").click()
    rows = page.locator("#saved li")
    expect(rows.first).to_contain_text("One of many 59")
    first = rows.count()
    page.locator("#more-layouts").click()
    expect(page.locator('#saved li[data-name="One of many 3"]')).to_have_count(1)
    assert rows.count() > first
    page.locator("#find-layout").fill("many 17")
    expect(rows).to_have_count(1)
    expect(rows).to_contain_text("One of many 17")
    for each in kept:
        page.request.delete(f"{address.LAYOUTS}/{each['id']}")
