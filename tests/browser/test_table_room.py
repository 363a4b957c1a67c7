"""The Table room in a real browser: what a player does, and that the page says what Python computed."""

import json
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect
from tests.browser.helpers import (
    BLOCKED,
    ask_by,
    centre,
    figure,
    layout_file,
    line,
    open_at,
    serious,
    settled,
    slide,
    state_of,
    tab,
    whole_list,
)
from tests.conftest import fandle

from fandle.web import address

pytestmark = pytest.mark.browser


def printed_chain(page: Page) -> list[float]:
    return [figure(text) for text in page.locator("#chain .fig").all_text_contents()]


def test_dragging_the_cue_ball_gives_what_the_command_line_gives(page: Page, tmp_path: Path) -> None:
    """Aim, chain and steps on the page equal `fandle aim / count --json` for the layout in the address."""
    open_at(page)
    slide(page, "#side", 0.5)
    x, y = centre(page, "cue")
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(1, 9):
        page.mouse.move(x + 9 * step, y - 6 * step)
    page.mouse.up()
    settled(page)
    state = state_of(page)
    assert state.layout.cue.x > 1.8
    path, s = layout_file(page, tmp_path), state.stroke
    stroke = ["--speed", str(s.speed), f"--side={s.side}", f"--up={s.up}"]
    aim = json.loads(fandle("aim", str(path), "--rails", "far", *stroke, "--json").stdout)
    count = json.loads(fandle("count", str(path), "--method", "M3", "--rails", "far", "--json").stdout)
    assert page.locator("#mark").inner_text() == f"{aim['corrected']['nose']:.2f}"
    assert figure(page.locator("#other-frame b").inner_text()) == round(aim["corrected"]["sight"], 2)
    chain = printed_chain(page)
    assert chain[0] == round(aim["mirror"]["nose"], 2)
    assert chain[-1] == round(aim["corrected"]["nose"], 2)
    shifts = {link["link"]: link["shift"] for link in aim["chain"] if abs(link["shift"]) >= 0.005}
    assert len(chain) == len(shifts) + 2
    assert chain[1:-1] == pytest.approx(list(shifts.values()), abs=0.011)
    assert page.locator("#sum").inner_text() == count["steps"][-1]


def test_target_mark_and_side_as_a_newcomer_does_it(page: Page) -> None:
    """Move the target, read the mark in both frames, add half a tip of running side, see mark and chain change."""
    open_at(page)
    x, y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y - 40, steps=6)
    page.mouse.up()
    settled(page)
    before = page.locator("#mark").inner_text()
    assert state_of(page).layout.ball("7").x > 5.8
    expect(page.locator("#answer")).to_contain_text("on the diamonds")
    slide(page, "#side", 0.5)
    expect(page.locator("#mark")).not_to_have_text(before)
    expect(page.locator("#answer")).to_contain_text("½ tip right")
    expect(page.locator("#answer")).to_contain_text("running")
    expect(page.locator("#chain")).to_contain_text("½ tip running")


def test_either_frame_can_be_printed_large(page: Page) -> None:
    open_at(page)
    nose, sight = page.locator("#mark").inner_text(), page.locator("#other-frame b").inner_text()
    ask_by(page, page.locator("#other-frame").click)
    expect(page.locator("#mark")).to_have_text(sight)
    expect(page.locator("#answer")).to_contain_text("on the diamonds")
    expect(page.locator("#other-frame b")).to_have_text(nose)


def test_rails_are_offered_and_refused_with_their_reason(page: Page) -> None:
    open_at(page)
    whole_list(page)
    assert page.locator("#lines > ol button").count() == 5  # the rest is behind "more"
    line(page, "straight")
    ask_by(page, page.locator('#lines .shut [data-rails="straight"]').first.click)
    expect(page.locator("#answer")).to_contain_text("no line")
    expect(page.locator("#answer")).to_contain_text("The 2 is in the way")
    assert page.locator("#shot").get_attribute("d") == ""
    ask_by(page, line(page, "far").click)
    assert page.locator("#mark").count() == 1


def test_the_count_is_drawn_where_it_is_counted(page: Page) -> None:
    open_at(page)
    numbers = page.locator("#layer-labels text.count-text:is(.aim, .cue, .zero)")
    assert sorted(numbers.all_text_contents()) == ["0", "2.1", "4.2"]
    ask_by(page, lambda: page.locator("#system").select_option("M2"))
    expect(page.locator("#count")).to_contain_text("every diamond counts two")
    assert sorted(numbers.all_text_contents()) == ["0", "4.78", "4.78"]


def test_keyboard_alone(page: Page) -> None:
    """Arrow keys move a ball one segment, with Shift a hundredth; focus is kept and visible."""
    open_at(page)
    page.locator('#drawing [data-ball="cue"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    assert state_of(page).layout.cue.x == pytest.approx(1.2)
    ask_by(page, lambda: page.keyboard.press("Shift+ArrowUp"))
    assert state_of(page).layout.cue.y == pytest.approx(0.56)
    assert page.evaluate("() => document.activeElement.dataset.ball") == "cue"
    ring = page.locator('#drawing [data-ball="cue"] .ring')
    assert ring.evaluate("e => getComputedStyle(e).stroke") != "none"
    whole_list(page)
    line(page, "near").focus()
    ask_by(page, lambda: page.keyboard.press("Enter"))
    assert page.evaluate("() => document.activeElement.dataset.rails") == "near"


def test_balls_are_typed_added_targeted_and_taken_off(page: Page) -> None:
    open_at(page)
    tab(page, "balls")
    box = page.get_by_label("ball 7, from the left")
    box.fill("6,15")
    ask_by(page, lambda: box.press("Enter"))
    assert state_of(page).layout.ball("7").x == 6.15
    ask_by(page, page.locator('#tray [data-add="1"]').click)
    assert [b.id for b in state_of(page).layout.balls] == ["cue", "7", "2", "1"]
    ask_by(page, page.get_by_label("hit ball 1").check)
    expect(page.locator("#task")).to_contain_text("the 1")
    ask_by(page, page.get_by_label("take ball 1 off").click)
    assert state_of(page).layout.target == "7"
    assert page.locator('#drawing [data-ball="1"]').count() == 0


def test_impossible_places_are_told_and_nothing_is_lost(page: Page) -> None:
    open_at(page)
    before = page.url
    tab(page, "balls")
    box = page.get_by_label("ball 2, from the left")
    box.fill("5.25")
    ask_by(page, lambda: box.press("Enter"))
    expect(page.locator("#fault")).to_contain_text("Balls 7 and 2 overlap")
    assert page.url == before
    assert box.input_value() == "5.25"
    expect(page.locator('#drawing [data-ball="2"]')).to_have_class("ball chosen wrong")
    box.fill("3.2")
    ask_by(page, lambda: box.press("Enter"))
    expect(page.locator("#fault")).to_be_hidden()
    box.fill("many")
    box.press("Enter")
    assert box.get_attribute("aria-invalid") == "true"


def test_late_replies_are_dropped(page: Page) -> None:
    """The first question is held back; its reply must not overwrite what was asked later."""
    open_at(page)
    held: list[Route] = []
    page.route("**" + address.ANSWER, lambda route: held.append(route) if not held else route.continue_())
    page.locator("#side").fill("0.5")
    page.locator("#side").fill("-0.5")
    page.wait_for_timeout(100)
    held[0].continue_()
    expect(page.locator("#answer")).to_contain_text("½ tip left")
    assert state_of(page).stroke.side < 0


def test_reload_and_a_copied_link_keep_everything(page: Page) -> None:
    open_at(page)
    slide(page, "#side", 0.25)
    slide(page, "#speed", 3)
    ask_by(page, lambda: page.locator("#system").select_option("M2"))
    mark, address_before = page.locator("#mark").inner_text(), page.url
    page.reload()
    assert page.url == address_before
    assert page.locator("#mark").inner_text() == mark
    expect(page.locator("#system")).to_have_value("M2")
    assert float(page.locator("#speed").input_value()) == pytest.approx(3.0, abs=0.03)


def test_leaving_and_returning_finds_the_table_as_it_was(page: Page) -> None:
    """Off to the Handbook and back by the browser's own key: the same address, mark and balls; undo still undoes."""
    open_at(page)
    slide(page, "#side", 0.25)
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    mark, address_before = page.locator("#mark").inner_text(), page.url
    page.get_by_role("link", name="Handbook", exact=True).click()
    page.wait_for_url("**/handbook")
    page.go_back()
    settled(page)
    assert page.url == address_before
    assert page.locator("#mark").inner_text() == mark
    assert state_of(page).stroke.side > 0
    ask_by(page, lambda: page.keyboard.press("Control+z"))
    assert page.url != address_before


def test_the_tip_can_be_dragged_and_stops_at_the_miscue_limit(page: Page) -> None:
    open_at(page)
    box = page.locator("#tip").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 53, y - 20, steps=4)
    page.mouse.up()
    settled(page)
    s = state_of(page).stroke
    assert s.side > 0 < s.up
    assert (s.side**2 + s.up**2) ** 0.5 == pytest.approx(0.5, abs=0.01)
    expect(page.locator("#fault")).to_be_hidden()


def test_files_go_out_and_come_in(page: Page, tmp_path: Path) -> None:
    open_at(page)
    with page.expect_download() as download:
        page.locator("#layout-menu").click()
        page.locator("#save").click()
    path = tmp_path / "kept.fandle.json"
    download.value.save_as(path)
    data = json.loads(path.read_text())
    assert data["target"] == "7"
    data["target"] = "2"
    path.write_text(json.dumps(data))
    ask_by(page, lambda: page.locator("#open").set_input_files(path))
    assert state_of(page).layout.target == "2"
    path.write_text("{")
    page.locator("#open").set_input_files(path)
    expect(page.locator("#fault")).to_contain_text("not JSON")


def test_demo_layouts_open_from_the_menu(page: Page) -> None:
    open_at(page, "/")
    page.locator("#open-menu").click()
    page.get_by_text("Frozen nine").click()
    page.wait_for_url("**target=9*")
    expect(page.locator("#mark")).to_have_count(1)
    assert state_of(page).layout.target == "9"


@pytest.mark.parametrize("width", [390, 1280])
def test_no_serious_accessibility_fault_and_no_sideways_scroll(page: Page, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 844})
    open_at(page)
    assert page.evaluate("() => document.documentElement.scrollWidth") <= width
    assert serious(page) == []


def test_on_a_phone_the_answer_comes_first_and_a_finger_drags(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    open_at(page)
    tops = [page.locator(i).bounding_box() for i in ("#answer", "#drawing", ".phone-keys")]
    order = [box["y"] for box in tops if box]
    assert len(order) == 3
    assert order == sorted(order)
    x, y = centre(page, "7")
    session = page.context.new_cdp_session(page)

    def touch(kind: str, *points: tuple[float, float]) -> None:
        session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": [{"x": a, "y": b} for a, b in points]})

    touch("touchStart", (x + 10, y))  # beside the disc: the grip is as wide as a thumb
    for step in range(1, 6):
        touch("touchMove", (x + 10 - 6 * step, y - 4 * step))
    lens = page.locator("#loupe").bounding_box()  # above the finger, inside the drawing
    assert lens is not None
    assert lens["y"] + lens["height"] < y - 20
    assert 0 <= lens["x"] <= 390 - lens["width"]
    touch("touchEnd")
    expect(page.locator("#loupe")).to_be_hidden()
    settled(page)
    assert state_of(page).layout.ball("7").y > 0.75  # the table stands: to the left is towards the far rail
    assert state_of(page).layout.ball("7").x > 5.4


def test_the_page_stays_within_its_own_server(page: Page) -> None:
    """Fonts, styles and scripts all come with the application (the fixture counts foreign requests)."""
    open_at(page, BLOCKED)
    assert page.evaluate("() => document.fonts.check('600 16px \"Plex Condensed\"')")
    assert page.evaluate(
        "() => performance.getEntriesByType('resource').every(e => e.name.startsWith(location.origin))"
    )
