"""The rooms as a player meets them: what is on the first screen, what stays put, what is kept, what a finger reaches."""

import json
import math
import random
import re

import pytest
from playwright.sync_api import Browser, Page, ViewportSize, expect
from tests.browser.helpers import BLOCKED, ask_by, centre, line, open_at, serious, settled, state_of, tab

from fandle.core.table.standards import standard_table
from fandle.formats.tables import table_json, table_of_json
from fandle.web import address
from fandle.web.table.link import packed, unpacked

pytestmark = pytest.mark.browser
ROOMS = (BLOCKED, "/compare", "/handbook", "/handbook/M3", "/log", "/club", "/devices")
PHONE: ViewportSize = {"width": 390, "height": 844}
# everything beside the drawing that must stay where it is
OUTSIDE = "#layout-title, .title-row, #stage, #ways, #lines, #answer, #stroke, #tip, #speed, #side, #note, .note-keys, #film, .tabs, .phone-keys"


def boxes(page: Page) -> dict[str, list[float]]:
    """Place and size of everything outside the drawing."""
    found: dict[str, list[float]] = page.evaluate(
        "(all) => Object.fromEntries([...document.querySelectorAll(all)].filter((e) => e.offsetParent ?? e.getClientRects().length)"
        ".map((e) => { const b = e.getBoundingClientRect(); return [e.id || e.className, [b.x, b.y, b.width, b.height]]; }))",
        OUTSIDE,
    )
    return found


def test_at_1280_by_800_the_whole_decision_stands_on_one_screen(page: Page) -> None:
    page.set_viewport_size({"width": 1280, "height": 800})
    for url in (
        BLOCKED,
        BLOCKED + "&side=-0.293&up=0.381&speed=2.9&count=3",
        "/?balls=cue:3,2.5;7:5,1.2;2:1,3&target=7&kind=bank",
    ):
        open_at(page, url)
        settled(page)
        for what in (
            "#layout-title",
            "#task",
            "#drawing",
            "#lines",
            "#mark",
            ".window",
            "#stroke",
            ".note-keys",
            "#play",
            ".tabs",
        ):
            box = page.locator(what).bounding_box()
            assert box is not None, what
            assert box["y"] + box["height"] <= 800, (url, what)


@pytest.mark.parametrize("width", [1280, 390])
def test_nothing_outside_the_drawing_moves_while_a_ball_is_dragged(page: Page, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 844})
    open_at(page, BLOCKED + "&side=0.17")
    settled(page)
    before, rng = boxes(page), random.Random(4)
    x, y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    for _ in range(12):
        page.mouse.move(x + rng.uniform(-90, 25), y + rng.uniform(-90, 15), steps=3)
        page.wait_for_timeout(40)
        during = boxes(page)
        moved = {
            name: (before[name], during[name])
            for name in before
            if during.get(name) != before[name] and name != "lines"
        }
        assert moved == {}
    page.mouse.up()


def test_a_fault_lies_over_the_cloth_and_dims_what_no_longer_holds(page: Page) -> None:
    open_at(page)
    settled(page)
    before = boxes(page)
    x, y = centre(page, "2")
    to_x, to_y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(to_x, to_y, steps=6)
    page.mouse.up()
    expect(page.locator("#fault")).to_contain_text("overlap")
    assert boxes(page) == before
    fault, stage = page.locator("#fault").bounding_box(), page.locator("#stage").bounding_box()
    assert fault is not None
    assert stage is not None
    assert stage["y"] < fault["y"]
    assert fault["y"] + fault["height"] < stage["y"] + stage["height"]
    assert float(page.locator("#answer").evaluate("e => getComputedStyle(e).opacity")) < 0.6
    assert page.locator("#note").get_attribute("inert") == ""
    page.keyboard.press("Control+z")
    expect(page.locator("#fault")).to_be_hidden()
    assert page.locator("#note").get_attribute("inert") is None


@pytest.mark.parametrize("room", ROOMS)
def test_nothing_is_wider_than_the_screen(page: Page, room: str) -> None:
    page.goto(room)
    settled(page)
    for width in (1280, 640, 390, 320):
        page.set_viewport_size({"width": width, "height": 800})
        page.wait_for_timeout(60)
        assert page.evaluate("() => document.documentElement.scrollWidth") <= width, width
    assert page.locator("h1").count() == 1
    page.keyboard.press("Tab")
    assert page.evaluate("() => document.activeElement.className") == "skip"


def test_the_list_of_lines_is_reached_within_ten_tabs(page: Page) -> None:
    open_at(page)
    settled(page)
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    for _ in range(9):
        page.keyboard.press("Tab")
        if page.evaluate("() => document.activeElement.dataset.rails"):
            return
    pytest.fail("the list is further away")


def test_targets_on_a_phone_are_as_large_as_a_thumb(chromium: Browser, site: str) -> None:
    context = chromium.new_context(viewport=PHONE, has_touch=True, is_mobile=True, base_url=site)
    context.add_init_script("localStorage.setItem('fandle-first-visit', '1')")
    page = context.new_page()
    open_at(page)
    small = (
        "() => [...document.querySelectorAll('button, a, select, input, summary, label[for=open]')].filter((e) => e.getClientRects().length && "
        "!e.closest('.visually-hidden, .skip') && !e.matches('.visually-hidden, .skip, input[type=radio], p a, p .term')).filter((e) => { const b = e.getBoundingClientRect(); "
        "return b.height < 43.5 || b.width < 26; }).map((e) => e.id || e.className + ' ' + e.textContent.trim())"
    )
    for sheet in ("sheet-lines", "stroke", "sheet-play", "note"):
        page.locator(f'[data-sheet="{sheet}"]').tap()
        settled(page)
        assert page.evaluate(small) == [], sheet
        if sheet != "stroke":
            assert serious(page) == []
        drawing = page.locator("#drawing").bounding_box()
        assert drawing is not None
        assert drawing["height"] > 180  # the table stays in sight
    context.close()


def test_a_phone_turned_lays_the_table_down_and_names_its_rails_anew(chromium: Browser, site: str) -> None:
    context = chromium.new_context(viewport=PHONE, has_touch=True, is_mobile=True, base_url=site, locale="en-US")
    page = context.new_page()
    open_at(page)
    settled(page)
    expect(page.locator("#answer")).to_contain_text("Left rail, from the bottom")
    cue, ball = centre(page, "cue"), centre(page, "7")
    assert cue[1] > ball[1]  # the head, where one stands, is below
    page.set_viewport_size({"width": 844, "height": 390})
    expect(page.locator("#answer")).to_contain_text("Top rail, from the left")
    cue, ball = centre(page, "cue"), centre(page, "7")
    assert cue[0] < ball[0]
    context.close()


def test_twenty_two_balls_are_told_apart_by_the_nearest(chromium: Browser, site: str) -> None:
    """Snooker on a phone: balls of nine pixels; the finger takes the nearest one."""
    context = chromium.new_context(viewport=PHONE, has_touch=True, base_url=site)
    page = context.new_page()
    open_at(page, "/?table=snooker-12ft&game=snooker&balls=cue:1.4,1.9;red1:6.5,2&target=red1")
    page.locator('[data-sheet="sheet-play"]').tap()
    page.locator("#tab-balls").tap()
    ask_by(page, page.locator('[data-edit="rack"]').tap)
    page.locator('[data-sheet="sheet-play"]').tap()
    assert page.locator("#layer-balls .ball").count() == 22
    x, y = centre(page, "red8")
    page.touchscreen.tap(x + 1.5, y + 1.0)
    expect(page.locator('#drawing [data-ball="red8"]')).to_have_class("ball tint-red chosen")
    context.close()


def test_a_ball_is_hit_removed_spotted_and_put_back_from_its_menu_and_the_tray(page: Page) -> None:
    open_at(page)
    settled(page)
    page.mouse.click(*centre(page, "2"))
    ask_by(page, page.get_by_role("button", name="Hit this").click)
    assert state_of(page).layout.target == "2"
    page.locator('#drawing [data-ball="7"]').focus()
    page.keyboard.press("Enter")
    ask_by(page, page.get_by_role("button", name="On its spot").click)
    assert (state_of(page).layout.ball("7").x, state_of(page).layout.ball("7").y) == (6.0, 2.0)
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("Delete"))
    assert [ball.id for ball in state_of(page).layout.balls] == ["cue", "2"]
    tab(page, "balls")
    ask_by(page, page.locator('#tray [data-add="13"]').click)
    assert [ball.id for ball in state_of(page).layout.balls] == ["cue", "2", "13"]
    ask_by(page, page.locator('[data-edit="scatter"]').click)
    assert len(state_of(page).layout.balls) == 16
    page.mouse.click(*centre(page, "cue"))
    page.keyboard.press("Escape")
    expect(page.locator("#ball-menu")).to_be_hidden()


def test_several_balls_are_picked_and_moved_together(page: Page) -> None:
    open_at(page)
    settled(page)
    before = state_of(page).layout
    page.keyboard.down("Shift")
    for ball in ("2", "7"):
        page.mouse.click(*centre(page, ball))
    page.keyboard.up("Shift")
    expect(page.locator("#layer-balls .picked")).to_have_count(2)
    x, y = centre(page, "2")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y - 60, steps=5)
    page.mouse.up()
    settled(page)
    after = state_of(page).layout
    steps = [(after.ball(b).x - before.ball(b).x, after.ball(b).y - before.ball(b).y) for b in ("2", "7")]
    assert steps[0] == pytest.approx(steps[1], abs=1e-3)
    assert steps[0][1] > 0.4
    assert after.cue == before.cue
    ask_by(page, lambda: page.keyboard.press("Control+z"))
    assert state_of(page).layout.balls == before.balls


def test_the_layout_follows_into_every_room_and_comes_back(page: Page) -> None:
    open_at(page)
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    balls = state_of(page).layout.balls
    page.get_by_role("link", name="Compare", exact=True).click()
    page.wait_for_url("**/compare?**")
    assert state_of(page).layout.balls == balls
    for room in ("Handbook", "Log", "Tables"):
        page.get_by_role("link", name=room, exact=True).click()
        settled(page)
    page.wait_for_url("**/club**")
    page.goto("/handbook/M3")
    page.locator("#on-mine").click()
    page.wait_for_url("**/handbook/M3?**")
    assert state_of(page).layout.balls == balls
    page.get_by_role("link", name="Table", exact=True).click()
    page.wait_for_url("**/?**")
    assert state_of(page).layout.balls == balls


@pytest.mark.parametrize("room", ["Compare", "Handbook", "Log", "Tables"])
def test_every_rooms_header_leads_to_a_table_the_layouts_and_the_large_view(page: Page, room: str) -> None:
    open_at(page)
    settled(page)
    page.get_by_role("link", name=room, exact=True).click()
    settled(page)
    page.locator("#far-open").click()
    expect(page.locator("#far .far-mark")).to_be_visible()
    page.go_back()
    page.locator("#menu").click()
    page.locator("#menu-open").click()
    expect(page.locator("#find-layout")).to_be_visible()
    page.go_back()
    page.locator("#header-table").select_option("Bar box by the door")
    page.wait_for_url("**/?table=Bar**")
    assert "cue:1.1,0.55" in page.url


def test_a_link_carries_its_own_table_to_a_club_that_has_it_not(page: Page) -> None:
    own = {**table_json(standard_table("pool-9ft")), "name": "Cellar nine-foot", "cushion_friction": 0.17}
    link = "/?table=Cellar%20nine-foot&balls=cue:1.1,0.55;7:5.3,0.5&target=7&rails=far&speed=3.3&own="
    page.goto(link + packed(table_of_json(own)))
    expect(page.locator(".visiting")).to_contain_text("It is used here and not kept.")
    settled(page)
    assert unpacked(page.url.partition("own=")[2]).cushion_friction == 0.17
    assert page.request.get("/table.json?name=Cellar%20nine-foot").status == 422  # nothing of it is in the club
    page.reload()
    settled(page)
    assert unpacked(page.url.partition("own=")[2]).cushion_friction == 0.17  # the address still holds it
    page.locator(".visiting button").click()
    page.wait_for_function("() => !location.search.includes('own=') && document.querySelector('#mark')")
    settled(page)
    assert "table=Cellar%20nine-foot&" in page.url
    assert "speed=3.3" in page.url
    expect(page.locator(".visiting")).to_have_count(0)
    there = page.request.get("/table.json?name=Cellar%20nine-foot").json()
    assert there["cushion_friction"] == 0.17
    page.goto("/?table=x&own=broken")
    expect(page.locator("#fault")).to_contain_text("the table in this link is damaged")


def test_copied_links_hold_the_table_and_open_by_pasting(page: Page) -> None:
    open_at(page)
    link = page.evaluate(
        "async (q) => (await (await fetch('/api/link', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: q})).json()).href",
        json.dumps(
            {
                "layout": {"table": "Damp nine-foot", "game": "nine-ball", "balls": [{"id": "cue", "x": 2, "y": 2}]},
                "query": "table=Damp nine-foot&balls=cue:2,2",
            }
        ),
    )
    assert "own=" in link
    page.evaluate(
        "(text) => { const data = new DataTransfer(); data.setData('text/plain', text);"
        " document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data })); }",
        f"https://elsewhere.example{BLOCKED.replace('7:5.3', '7:6.1')}",
    )
    page.wait_for_url("**7:6.1**")


def test_a_key_pressed_before_its_script_is_there_is_not_lost(page: Page) -> None:
    page.add_init_script(
        "document.addEventListener('DOMContentLoaded', () => document.getElementById('only')?.click(), { once: true })"
    )
    open_at(page)
    expect(page.locator("#only")).to_have_attribute("aria-pressed", "true")


POT = "/?balls=cue:2.1,1.2;7:6.5,2.9;8:4.2,2.05&target=7"


def test_a_tapped_pocket_is_where_the_ball_is_to_go(page: Page) -> None:
    open_at(page, POT)
    settled(page)
    hit = page.locator("#mark").inner_text()
    ask_by(page, lambda: page.locator('#drawing [data-pocket="foot-far"]').click())
    expect(page.locator('[data-goal="pot"]')).to_have_attribute("aria-pressed", "true")
    expect(page.locator("#pocket-out")).to_have_text("the top-right corner")
    expect(page.locator("#answer")).to_contain_text("mm in all to pot it")
    expect(page.locator("#answer")).to_contain_text("mm to hit it")
    expect(page.locator("#film")).to_contain_text("The 7 drops into the top-right corner")
    expect(page.locator("#task")).to_contain_text("Pot the 7")
    assert page.locator(".pot-window").count() == page.locator(".mark-window").count() == 1
    assert page.locator("#mark").inner_text() != hit
    assert (page.locator("#hit-out").inner_text()) != "full"
    first = page.locator("#lines [data-rails]").first
    expect(first).to_contain_text("into the top-right corner")
    ask_by(page, lambda: page.locator('[data-goal="pot"]').click())
    expect(page.locator("#pocket-out")).to_have_text("any pocket")
    ask_by(page, lambda: page.locator("#undo").click())
    expect(page.locator("#pocket-out")).to_have_text("the top-right corner")
    ask_by(page, lambda: page.locator("#undo").click())
    expect(page.locator('[data-goal="hit"]')).to_have_attribute("aria-pressed", "true")
    expect(page.locator("#mark")).to_have_text(hit)


def test_on_a_phone_a_list_that_comes_late_calls_the_rails_as_the_table_stands(chromium: Browser, site: str) -> None:
    context = chromium.new_context(viewport=PHONE, has_touch=True, is_mobile=True, base_url=site)
    context.add_init_script("localStorage.setItem('fandle-first-visit', '1')")
    page = context.new_page()
    open_at(page, f"{POT}&pocket=foot-far")
    settled(page)
    page.locator("[data-sheet=sheet-lines]").tap()
    chosen = page.locator("#lines [aria-pressed=true]")
    expect(chosen).to_contain_text("Right rail")
    expect(chosen).to_contain_text("into the top-left corner")
    context.close()


def test_a_ball_dragged_too_far_into_a_pocket_hangs_in_its_mouth(page: Page) -> None:
    open_at(page, POT)
    settled(page)
    x, y = centre(page, "7")
    box = page.locator('#drawing [data-pocket="foot-far"]').bounding_box()
    assert box is not None
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, steps=12)
    page.mouse.up()
    settled(page)
    expect(page.locator("#fault")).to_be_hidden()
    ball = state_of(page).layout.ball("7")
    assert ball.x > 7.8
    assert ball.y > 3.8
    expect(page.locator("#answer")).to_contain_text("direct")
    shown = centre(page, "7")
    assert math.hypot(shown[0] - box["x"] - box["width"] / 2, shown[1] - box["y"] - box["height"] / 2) > 3


def test_a_file_dropped_anywhere_opens_and_a_bad_one_says_what_to_do(page: Page) -> None:
    open_at(page)
    settled(page)
    drop = """text => {
      const data = new DataTransfer();
      data.items.add(new File([text], 'far away.fandle.json', { type: 'application/json' }));
      document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    }"""
    balls = '[{"id": "cue", "x": 2, "y": 1}, {"id": "5", "x": 6, "y": 3}]'
    file = '{"format": "fandle-layout/1", "table": "%s", "game": "nine-ball", "balls": %s, "target": "5"}'
    page.evaluate(drop, file % ("pool-9ft", balls.replace('"x": 6', '"x": 9')))
    expect(page.locator("#fault")).to_contain_text("Far away.fandle.json")
    page.evaluate(drop, file % (state_of(page).table.name, balls))
    page.wait_for_url("**5:6,3**")
    assert [ball.id for ball in state_of(page).layout.balls] == ["cue", "5"]


def test_a_layout_is_renamed_saved_again_and_deleted_with_a_way_back(page: Page) -> None:
    open_at(page)
    page.locator("#save-now").click()
    page.locator("#layout-name").fill("Corner case")
    page.keyboard.press("Enter")
    expect(page.locator("#layout-title")).to_have_text("Corner case")
    page.locator('#drawing [data-ball="7"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    expect(page.locator("#layout-title")).to_have_text("Corner case (changed)")
    page.locator("#save-now").click()
    expect(page.locator("#toast")).to_contain_text("is saved")
    page.locator("#open-menu").click()
    first = page.locator("#saved li").first
    expect(first).to_contain_text("Corner case")  # one's own come first
    first.locator("[data-rename]").click()
    page.keyboard.type("Corner pocket")
    page.keyboard.press("Enter")
    expect(page.locator("#layout-title")).to_have_text("Corner pocket")
    page.locator("#find-layout").fill("pocket")
    expect(page.locator("#saved li:visible")).not_to_have_count(0)
    page.locator("#find-layout").fill("")
    with page.expect_navigation():
        page.locator('#saved li[data-name="Corner pocket"] a').click()
    expect(page.locator("#mark")).to_be_visible()
    settled(page)
    assert state_of(page).layout.ball("7").x == pytest.approx(5.4)  # as it was saved again
    page.locator("#open-menu").click()
    page.locator('#saved li[data-name="Corner pocket"] [data-delete]').click()
    expect(page.locator("#toast")).to_contain_text("is deleted")
    page.locator("#toast button").click()
    settled(page)
    page.reload()
    settled(page)
    page.locator("#open-menu").click()
    expect(page.locator('#saved li[data-name="Corner pocket"]')).to_be_visible()


def test_step_by_step_withholds_the_mark_and_tells_how_near_one_came(page: Page) -> None:
    open_at(page)
    settled(page)
    mark = page.locator("#mark").inner_text()
    page.locator("#steps-start").click()
    expect(page.locator("#by-steps")).to_be_visible()
    assert mark not in page.locator("main").inner_text()
    assert page.locator("#mark-label").count() == 0
    for _ in range(12):
        if page.locator("#steps-again").count():
            break
        if page.locator("#guess").count():
            page.locator("#guess").fill("3.1")
        page.locator("#steps-next").click()
    expect(page.locator("#by-steps")).to_contain_text(f"{mark} from the left")
    expect(page.locator("#by-steps")).to_contain_text("You committed to 3.10")
    expect(page.locator("#mark")).to_have_text(mark)
    page.locator("#steps-end").click()
    expect(page.locator("#by-steps")).to_be_hidden()


@pytest.mark.parametrize(("locale", "word"), [("en-US", "English"), ("en-GB", "Side")])
def test_english_follows_the_browser_and_the_setting(chromium: Browser, site: str, locale: str, word: str) -> None:
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, base_url=site, locale=locale)
    page = context.new_page()
    open_at(page)
    expect(page.locator("label[for=side]")).to_have_text(word)
    page.locator("#menu").click()
    page.locator("#help-open").click()
    page.locator("#english").select_option("uk" if word == "English" else "us")
    page.wait_for_load_state()
    expect(page.locator("label[for=side]")).to_have_text("Side" if word == "English" else "English")
    expect(page.locator("#answer")).to_contain_text("Top cushion" if word == "English" else "Top rail")
    context.close()


def test_a_line_under_the_pointer_shows_its_path(page: Page) -> None:
    open_at(page)
    settled(page)
    line(page, "near").hover()
    assert (page.locator("#other-path").get_attribute("d") or "").startswith("M")
    page.mouse.move(400, 400)
    assert page.locator("#other-path").get_attribute("d") == ""


def test_the_log_room_speaks_of_what_is_filtered_in_the_readers_own_time(chromium: Browser, site: str) -> None:
    context = chromium.new_context(base_url=site, timezone_id="Asia/Tokyo", locale="en-GB")
    page = context.new_page()
    page.goto("/log")
    first = page.locator("tr[data-uid] time").first
    stamp = first.get_attribute("datetime") or ""
    hour = (int(stamp[11:13]) + 9) % 24
    expect(first).to_contain_text(f"{hour:02}:{stamp[14:16]}")
    whole = page.locator(".log-head .big strong").inner_text()
    page.get_by_role("link", name="only these").first.click()
    expect(page.locator(".log-head .big strong")).not_to_have_text(whole)
    made = int(page.locator(".log-head .big strong").inner_text().split(" of ")[1])
    assert made == int(page.locator(".groups tr.chosen .fig").first.inner_text().split(" of ")[1])
    href = page.get_by_role("link", name="as JSON").get_attribute("href") or ""
    assert len(page.request.get(href).json()["attempts"]) == made
    context.close()


def test_at_twice_the_size_nothing_is_scrolled_sideways_and_colours_may_be_forced(page: Page) -> None:
    page.set_viewport_size({"width": 640, "height": 400})  # 1280 x 800 at 200 %
    page.emulate_media(forced_colors="active")
    open_at(page)
    assert page.evaluate("() => document.documentElement.scrollWidth") <= 640
    assert page.locator("#mark").is_visible()
    assert page.locator("#mark").inner_text() == address.number(float(page.locator("#mark").inner_text())).ljust(4, "0")


def test_a_printed_page_is_one_page_with_positions_by_tape(page: Page) -> None:
    open_at(page)
    settled(page)
    pdf = page.pdf(format="A4", print_background=True)
    assert len(re.findall(rb"/Type\s*/Page\b", pdf)) == 1
    page.emulate_media(media="print")
    page.evaluate("() => window.dispatchEvent(new Event('beforeprint'))")
    expect(page.locator("#print-sheet")).to_contain_text(
        "Cue ball: 349 mm (13.8 in) from the head, 175 mm (6.9 in) from the near rail"
    )
    expect(page.locator("#mark")).to_be_visible()
    expect(page.locator(".top")).to_be_hidden()


def test_two_fingers_magnify_and_a_double_tap_shows_the_whole_again(chromium: Browser, site: str) -> None:
    context = chromium.new_context(viewport=PHONE, has_touch=True, is_mobile=True, base_url=site)
    context.add_init_script("localStorage.setItem('fandle-first-visit', '1')")
    page = context.new_page()
    open_at(page)
    settled(page)
    session = page.context.new_cdp_session(page)
    before = page.locator("#drawing").get_attribute("viewBox")
    balls = state_of(page).layout.balls

    def touch(kind: str, *points: tuple[float, float]) -> None:
        session.send(
            "Input.dispatchTouchEvent",
            {"type": kind, "touchPoints": [{"x": x, "y": y, "id": k} for k, (x, y) in enumerate(points)]},
        )

    touch("touchStart", (180, 400))
    touch("touchStart", (180, 400), (210, 430))
    for step in range(1, 6):
        touch("touchMove", (180 - 8 * step, 400 - 8 * step), (210 + 8 * step, 430 + 8 * step))
    touch("touchEnd")
    wide = float((page.locator("#drawing").get_attribute("viewBox") or "").split()[2])
    assert wide < 0.5 * float((before or "").split()[2])
    assert state_of(page).layout.balls == balls  # nothing was dragged
    page.locator("#drawing").dblclick(position={"x": 195, "y": 200})
    assert page.locator("#drawing").get_attribute("viewBox") == before
    context.close()


@pytest.mark.parametrize("room", ROOMS)
def test_a_rooms_own_scripts_and_styles_are_small(page: Page, room: str) -> None:
    """At most 120 kB on the wire, beside Bootstrap and the fonts."""
    page.goto(room)
    settled(page)
    size = page.evaluate(
        "() => performance.getEntriesByType('resource').filter((e) => /static.*(js|css)$/.test(e.name) && !e.name.includes('vendor')).reduce((sum, e) => sum + e.encodedBodySize, 0)"
    )
    assert 1000 < size <= 120_000
