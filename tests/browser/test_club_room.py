"""Five tables drawn and used; a table made, changed, played on, sent out and taken in; cues."""

import json
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import ask_by, centre, open_at, serious, settled, tab

from fandle.core.table.standards import STANDARDS

pytestmark = pytest.mark.browser

LAYOUTS = {
    "pool-9ft": "balls=cue:1.5,1;7:5.5,1.2;2:3.5,1.1&target=7",
    "pool-8ft": "balls=cue:1.5,1;7:5.5,1.2;2:3.5,1.1&target=7",
    "pool-7ft": "game=eight-ball&balls=cue:1.5,1;7:5.5,1.2;2:3.5,1.1&target=7",
    "snooker-12ft": "game=snooker&balls=cue:2.5,1;black:6.6,1.2;yellow:1.652,1.343;red1:4.1,1.1;red2:7.2,2.8&target=black",
    "carom-10ft": "game=three-cushion&balls=cue:1.5,1;red:5.5,1.2;white:3.5,1.1&target=red",
}


@pytest.mark.parametrize(
    ("name", "width"), [*((name, 1280) for name in STANDARDS), ("pool-9ft", 390), ("snooker-12ft", 390)]
)
def test_every_table_is_drawn_and_used(page: Page, name: str, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 844})
    open_at(page, f"/?table={name}&{LAYOUTS[name]}&rails=far&speed=3.5")
    table = STANDARDS[name]
    assert page.locator("#drawing .pocket").count() == (6 if table.pockets else 0)
    assert page.locator("#drawing .cushion").count() == (6 if table.pockets else 4)
    assert page.locator("#drawing .the-d").count() == (1 if name.startswith("snooker") else 0)
    assert page.locator('[data-goal="pot"]').count() == (1 if table.pockets else 0)
    assert page.locator("#units option").first.inner_text() == table.marks
    before = page.locator("#mark").inner_text()
    target = LAYOUTS[name].rsplit("=", 1)[1]
    page.locator(f'#drawing [data-ball="{target}"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowLeft"))
    expect(page.locator("#mark")).not_to_have_text(before)
    if name.startswith("snooker"):
        expect(page.locator("#answer .measured")).to_contain_text("mm")
        expect(page.locator("#drawing").get_by_text("Bk", exact=True).first).to_be_visible()
        assert page.locator('#drawing [data-ball="yellow"]').get_attribute("class").split().count("tint-yellow") == 1
        assert "diamond" not in (page.locator("#count").text_content() or "")
    box = page.locator("#drawing").bounding_box()
    assert box is not None
    assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")
    assert serious(page) == []


def test_a_layout_is_moved_to_another_table(page: Page) -> None:
    open_at(page)
    page.locator("#table-choice").select_option("snooker-12ft")
    page.wait_for_url("**table=snooker-12ft**target=red**")
    settled(page)
    expect(page.locator("#task")).to_contain_text("red")
    page.locator("#table-choice").select_option("Bar box by the door")
    page.wait_for_url("**Bar%20box**")
    settled(page)
    open_at(page, f"{page.url}&rails=far")
    x, _ = centre(page, "cue")
    assert x > 0
    expect(page.locator("#chain")).to_contain_text("the rubber gives")
    expect(page.locator("#chain .give")).to_contain_text("shorter")


def test_a_table_is_made_changed_played_on_and_taken_off(page: Page, tmp_path: Path) -> None:
    page.goto("/club?table=pool-8ft")
    assert page.locator("#table-form input[name=ball_radius]").is_disabled()
    page.locator("#duplicate").click()
    page.wait_for_url("**My%20Pool**")
    curve = page.locator("#plot-here").get_attribute("d")
    ask = page.expect_response(lambda r: r.url.endswith("/api/club/preview"))
    with ask:
        page.locator("#rubber").select_option("soft")
    settled(page)
    page.locator("#all-numbers summary").click()
    expect(page.locator('input[name="cushion_compression"]')).to_have_value("2.5")
    assert page.locator("#plot-here").get_attribute("d") != curve
    expect(page.locator("#told")).to_contain_text("the rubber gives")
    with page.expect_response(lambda r: r.url.endswith("/api/club/preview")):
        page.locator('input[name="cloth_rolling"]').fill("9")
    settled(page)
    expect(page.locator("#table-fault")).to_contain_text("outside 0.001 to 0.05")
    page.locator('input[name="cloth_rolling"]').fill("0.012")
    settled(page)
    expect(page.locator("#table-fault")).to_be_hidden()
    assert serious(page) == []
    page.locator("#name").fill("The <odd> & one")
    page.wait_for_url("**odd**")
    expect(page.locator("#title")).to_have_text("The <odd> & one")
    expect(page.locator("#saved-state")).to_have_text("All changes are saved.")
    page.reload()
    expect(page.locator('input[name="cloth_rolling"]')).to_have_value("0.0120")
    expect(page.locator("#rubber")).to_have_value("soft")

    with page.expect_download() as download:
        page.locator("#save-table").click()
    path = tmp_path / "odd.table.json"
    download.value.save_as(path)
    assert json.loads(path.read_text())["cushion_compression"] == 0.0025

    page.get_by_role("link", name="Play on it").click()
    page.wait_for_url("**table=The**")
    settled(page)
    mark = page.locator("#mark").inner_text()
    page.goto("/club?table=" + "The%20%3Codd%3E%20%26%20one")
    page.locator("#remove").click()
    expect(page.locator("#toast")).to_contain_text("off the list")
    with page.expect_navigation(url="**odd**"):
        page.locator("#toast button").click()
    page.get_by_role("link", name="Play on it").click()
    page.wait_for_url("**table=The**")
    settled(page)
    expect(page.locator("#mark")).to_have_text(mark)


def test_a_table_file_is_brought_and_a_wrong_one_refused(page: Page, tmp_path: Path) -> None:
    page.goto("/club")
    wrong = tmp_path / "wrong.json"
    wrong.write_text("{")
    page.locator("#open-table").set_input_files(wrong)
    expect(page.locator("#table-fault")).to_contain_text("not JSON")
    file = page.request.get("/table.json?name=pool-7ft").json()
    (tmp_path / "own.json").write_text(json.dumps({**file, "name": "From next door", "cushion_friction": 0.17}))
    page.locator("#open-table").set_input_files(tmp_path / "own.json")
    page.wait_for_url("**From%20next%20door**")
    expect(page.locator('input[name="cushion_friction"]')).to_have_value("0.170")


def test_a_cue_is_added_changed_and_played_with(page: Page) -> None:
    page.goto("/club")
    page.get_by_text("Add a cue").click()
    page.locator("#cue-name").fill("Walnut")
    page.locator("#cue-ratio").fill("14")
    with page.expect_navigation():
        page.get_by_role("button", name="Save", exact=True).click()
    row = page.locator(".cues tr", has_text="Walnut")
    expect(row).to_contain_text("3.7°")
    row.get_by_role("button", name="change").click()
    page.locator("#cue-tip").fill("11")
    with page.expect_navigation():
        page.get_by_role("button", name="Save", exact=True).click()
    expect(row).to_contain_text("11 mm")
    open_at(page, "/?balls=cue:1.1,0.55;7:5.3,0.5&target=7&rails=far&side=0.3")
    tab(page, "adjust")
    ask_by(page, lambda: page.locator("#cue").select_option("Walnut"))
    expect(page.locator("#chain")).to_contain_text("squirt and swerve")
    assert "cue=Walnut" in page.url


@pytest.mark.parametrize("width", [390, 1280])
def test_the_club_room_fits_and_is_accessible(page: Page, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 844})
    for query in ("?table=snooker-12ft", "?table=Damp%20nine-foot"):
        page.goto(f"/club{query}")
        expect(page.locator("#told p").first).to_be_visible()
        assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")
        assert serious(page) == []


def test_edits_save_themselves_and_are_taken_back_one_by_one(page: Page) -> None:
    page.goto("/club?table=pool-9ft")
    page.locator("#duplicate").click()
    page.wait_for_url("**My%20Back-room**")
    made = page.url
    page.locator("#all-numbers summary").click()
    saved, rolling = page.locator("#saved-state"), page.locator('input[name="cloth_rolling"]')

    def change(value: str) -> None:
        with page.expect_response(lambda r: r.request.method == "PUT") as reply:
            rolling.fill(value)
        assert reply.value.status == 200
        expect(saved).to_have_text("All changes are saved.")

    change("0.013")
    change("0.015")
    page.locator("#undo-table").click()
    expect(rolling).to_have_value("0.013")
    page.locator("#title").click()
    page.keyboard.press("Control+z")
    expect(rolling).to_have_value("0.01")
    settled(page)
    page.reload()
    assert float(rolling.input_value()) == 0.01
    page.locator("#all-numbers summary").click()
    rolling.fill("9")
    expect(saved).to_contain_text("Not saved")
    page.locator("#undo-table").click()
    expect(page.locator("#table-fault")).to_be_hidden()
    rolling.fill("0.02")
    page.locator("#play-on").click()  # at once: the change is saved before the page is left
    page.wait_for_url("**/?table=My**")
    page.goto(made)
    assert float(rolling.input_value()) == 0.02
    page.locator("#remove").click()
    expect(page.locator("#toast")).to_contain_text("its log is kept")


def test_a_cue_is_found_by_two_shots_and_made_ones_own(page: Page) -> None:
    """Both marks dragged, and moved by keys; the ratio goes into the form; what is mine begins the Table room."""
    page.goto("/club")
    page.locator("#cue-details > summary").click()
    page.locator("#squirt-test summary").click()
    says, ratio = page.locator("#squirt-test output"), page.locator("#cue-ratio")
    right = page.locator('[data-shot="right"]')
    box = right.locator(".disc").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 12, steps=4)  # further off the line: more squirt
    page.mouse.up()
    expect(says).to_contain_text("of squirt with the most side")
    settled(page)
    more = float(ratio.input_value())
    for _ in range(5):
        right.press("ArrowDown")
    settled(page)
    expect(ratio).not_to_have_value(str(more))
    assert float(ratio.input_value()) > more
    page.locator("#cue-name").fill("Tested cue")
    with page.expect_navigation():
        page.get_by_role("button", name="Save", exact=True).click()
    with page.expect_navigation():
        page.locator('[data-mine="Tested cue"]').click()
    expect(page.locator(".mine")).to_have_text("my cue")
    page.goto("/")
    settled(page)
    expect(page.locator("#cue")).to_have_value("Tested cue")
    with page.expect_response(lambda r: r.url.endswith("/api/preferences")):
        page.locator("#tab-adjust").click()
        page.locator("#cue").select_option("house")
    page.goto("/")
    expect(page.locator("#cue")).to_have_value("house")
