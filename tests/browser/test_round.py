"""The whole round, set up, read, shoot, say what happened, next attempt: by mouse, by finger, by keyboard."""

import json
import urllib.request
from typing import Any, Literal

import pytest
from playwright.sync_api import Browser, Page, expect
from tests.browser.helpers import (
    BLOCKED,
    ask_by,
    centre,
    choose,
    figure,
    line,
    open_at,
    serious,
    settled,
    slide,
    state_of,
    tab,
)

pytestmark = pytest.mark.browser


def noted(site: str) -> list[dict[str, Any]]:
    """Every attempt the server keeps, newest first."""
    with urllib.request.urlopen(f"{site}/log.json", timeout=10) as reply:
        rows: list[dict[str, Any]] = json.load(reply)["attempts"]
    return rows


def told(page: Page) -> None:
    expect(page.locator("#note-more")).to_be_visible()
    expect(page.locator("#noted")).to_contain_text("Noted")
    settled(page)


def test_by_mouse(page: Page, site: str) -> None:
    open_at(page)
    before = len(noted(site))
    page.locator('[data-result="short"]').click()
    told(page)
    x, y = centre(page, "7")
    page.mouse.move(x, y)  # the mark begins at the target
    page.mouse.down()
    page.mouse.move(x - 30, y, steps=5)
    page.mouse.up()
    expect(page.locator("#crossed-out")).to_contain_text("short")
    page.locator('[data-side="left"]').click()
    page.locator("#comment").fill("thin")
    page.locator("#again").click()
    expect(page.locator("#note-more")).to_be_hidden()
    settled(page)
    first = noted(site)[0]
    assert (first["result"], first["side_hit"], first["comment"]) == ("short", "left", "thin")
    assert first["off"] == pytest.approx(-30 / 88, abs=0.08)
    page.locator('[data-result="hit"]').click()
    told(page)
    assert len(noted(site)) == before + 2
    assert noted(site)[0]["set_up"] == first["set_up"]
    expect(page.locator("#tally")).to_contain_text("here")


def test_by_keyboard_alone(page: Page, site: str) -> None:
    """Tab to the cue ball, move it, add side, note, say more, again: focus always visible, order sensible."""
    open_at(page)
    before = len(noted(site))
    visited = []
    for _ in range(60):
        page.keyboard.press("Tab")
        focus = page.evaluate(
            "() => { const e = document.activeElement; const s = getComputedStyle(e);"
            " const ring = e.querySelector?.('.ring'); return {id: e.id || e.dataset.ball || e.dataset.result || e.textContent.trim(),"
            " seen: s.outlineStyle !== 'none' || s.boxShadow !== 'none' || (ring && getComputedStyle(ring).stroke !== 'none')}; }"
        )
        assert focus["seen"], focus
        visited.append(focus["id"])
        if focus["id"] == "height":
            break
    wanted = ["Skip to the content", "far-open", "menu", "other-frame", "tip", "speed", "side", "height"]
    places = [visited.index(name) for name in wanted]
    assert places == sorted(places)
    page.locator('#drawing [data-ball="cue"]').focus()
    ask_by(page, lambda: page.keyboard.press("ArrowUp"))
    page.locator("#tip").focus()
    ask_by(page, lambda: page.keyboard.press("ArrowRight"))
    expect(page.locator("#answer")).to_contain_text("¼ tip right")
    page.keyboard.press("1")  # a bare digit notes nothing
    page.keyboard.press("n")
    page.keyboard.press("Enter")
    told(page)
    page.locator("#crossed").focus()
    page.keyboard.press("ArrowRight")
    page.locator("#comment").focus()
    page.keyboard.type("good")
    page.keyboard.press("Enter")
    expect(page.locator("#note-more")).to_be_hidden()
    page.keyboard.press("n")
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    told(page)
    rows = noted(site)
    assert len(rows) == before + 2
    assert [row["result"] for row in rows[:2]] == ["short", "hit"]
    assert rows[1]["comment"] == "good"


def test_by_finger_on_a_phone(chromium: Browser, site: str) -> None:
    context = chromium.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True, base_url=site
    )
    page = context.new_page()
    open_at(page)
    page.locator("#first-done").tap()
    answer, keys = page.locator("#answer").bounding_box(), page.locator(".phone-keys").bounding_box()
    drawing = page.locator("#drawing").bounding_box()
    assert answer
    assert keys
    assert drawing
    assert answer["y"] + answer["height"] <= drawing["y"] + 1
    assert drawing["y"] + drawing["height"] <= keys["y"] + 1
    assert keys["y"] + keys["height"] <= 844
    page.locator('[data-sheet="note"]').tap()
    small = page.evaluate(
        "() => [...document.querySelectorAll('button.btn, .lines button, select, input[type=range]')]"
        ".filter(e => e.offsetParent && e.getBoundingClientRect().height < 44).map(e => e.id || e.textContent)"
    )
    assert small == []
    page.locator('[data-result="long"]').tap()
    told(page)
    page.locator('[data-side="right"]').tap()
    settled(page)
    page.locator("#again").tap()
    page.locator('[data-result="hit"]').tap()
    told(page)
    rows = noted(site)
    assert [(row["result"], row["side_hit"]) for row in rows[:2]] == [("hit", ""), ("long", "right")]
    context.close()


def test_a_note_is_taken_back_and_put_back(page: Page, site: str) -> None:
    open_at(page)
    page.locator('[data-result="hit"]').click()
    told(page)
    uid = noted(site)[0]["uid"]
    page.locator("#unnote").click()
    expect(page.locator("#toast")).to_contain_text("taken back")
    assert uid not in {row["uid"] for row in noted(site)}
    page.locator("#toast button").click()
    settled(page)
    assert uid in {row["uid"] for row in noted(site)}


def test_a_note_survives_a_server_that_does_not_answer(page: Page, site: str) -> None:
    """Kept in the browser, sent later under its own name: once."""
    open_at(page)
    before = len(noted(site))
    page.route("**/api/attempts", lambda route: route.abort())
    page.locator('[data-result="long"]').click()
    expect(page.locator("#toast")).to_contain_text("Kept in this browser")
    page.unroute("**/api/attempts")
    page.reload()
    expect(page.locator("#toast")).to_contain_text("is saved now")
    page.reload()
    settled(page)
    assert [row["result"] for row in noted(site)[: len(noted(site)) - before]] == ["long"]


def test_two_tabs_do_not_overwrite_each_others_notes(page: Page, site: str) -> None:
    other = page.context.new_page()
    before = len(noted(site))
    for each in (page, other):
        open_at(each)
    for each, result in ((page, "hit"), (other, "long")):
        each.locator(f'[data-result="{result}"]').click()
        told(each)
    page.locator("#comment").fill("from the first tab")
    page.locator("#again").click()
    other.locator('[data-side="left"]').click()
    settled(page)
    settled(other)
    rows = noted(site)
    assert len(rows) == before + 2
    assert [(r["result"], r["comment"], r["side_hit"]) for r in rows[:2]] == [
        ("long", "", "left"),
        ("hit", "from the first tab", ""),
    ]


def test_the_log_deletes_with_a_way_back_filters_and_reopens(page: Page, site: str) -> None:
    open_at(page)
    page.locator('[data-result="missed the rail"]').click()
    told(page)
    page.goto("/log")
    row = page.locator("tr[data-uid]").first
    uid = row.get_attribute("data-uid")
    row.locator(".delete").click()
    expect(page.locator("#toast")).to_contain_text("deleted")
    assert uid not in {r["uid"] for r in noted(site)}
    page.locator("#toast button").click()
    expect(page.locator(f'tr[data-uid="{uid}"]')).to_be_visible()
    page.locator("#result").select_option("missed the rail")
    page.wait_for_url("**result=missed*")
    assert set(page.locator("tr[data-uid] td:nth-child(6)").all_inner_texts()) == {"missed the rail"}
    page.locator("tr[data-uid] a").first.click()
    expect(page.locator("#mark")).to_be_visible()


def kinds(page: Page) -> dict[str, Any]:
    """Every kind of change a page offers."""
    box = page.get_by_label("ball 2, from the left")

    def typed() -> None:
        tab(page, "balls")
        box.fill("3.4")
        box.press("Enter")

    def arrow() -> None:
        page.locator('#drawing [data-ball="7"]').focus()
        page.keyboard.press("ArrowLeft")

    def menu(text: str) -> Any:
        def choose() -> None:
            page.locator("#layout-menu").click()
            page.get_by_text(text).click()

        return choose

    def below(name: str, act: Any) -> Any:
        def there() -> None:
            tab(page, name)
            act()

        return there

    return {
        "typed": typed,
        "arrow": arrow,
        "speed": lambda: page.locator("#speed").fill("3.2"),
        "side": lambda: page.locator("#side").fill("0.4"),
        "height": lambda: page.locator("#height").fill("-0.4"),
        "rail": lambda: line(page, "near").click(),
        "method": below("count", lambda: page.locator("#system").select_option("M2")),
        "frame": page.locator("#other-frame").click,
        "cue": below("adjust", lambda: page.locator("#cue").select_option("house")),
        "target": below("balls", page.get_by_label("hit ball 2").check),
        "add": below("balls", page.locator('#tray [data-add="1"]').click),
        "remove": below("balls", page.get_by_label("take ball 2 off").click),
        "flip": menu("Flip top to bottom"),
        "end": menu("Flip end to end"),
        "swap": menu("Swap cue ball and target"),
        "clear": menu("Clear all but"),
    }


@pytest.mark.parametrize(
    "group",
    [
        ("typed", "speed", "method", "flip"),
        ("arrow", "side", "frame", "end"),
        ("rail", "height", "cue", "swap"),
        ("target", "add", "remove", "clear"),
    ],
    ids="-".join,
)
def test_undo_and_redo_after_each_kind_of_change(page: Page, group: tuple[str, ...]) -> None:
    open_at(page)
    slide(page, "#side", 0.2)
    page.wait_for_timeout(800)  # changes of one kind that come at once are one step
    before = page.url
    for kind in group:
        ask_by(page, kinds(page)[kind])
        expect(page).not_to_have_url(before)
        after = page.url
        page.locator("#undo").focus()
        ask_by(page, lambda: page.keyboard.press("Control+z"))
        expect(page).to_have_url(before)
        ask_by(page, page.locator("#redo").click)
        expect(page).to_have_url(after)
        ask_by(page, page.locator("#undo").click)
        expect(page).to_have_url(before)


def test_a_drag_is_one_step_and_undo_survives_a_reload(page: Page) -> None:
    open_at(page)
    slide(page, "#side", 0.2)
    before = page.url
    x, y = centre(page, "cue")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 40, y - 40, steps=12)
    page.mouse.up()
    settled(page)
    page.reload()
    ask_by(page, page.locator("#undo").click)
    expect(page).to_have_url(before)


def test_flips_keep_the_line(page: Page) -> None:
    """The flipped layout shows the mirrored line: the same size of window, side on the other hand."""
    open_at(page)
    slide(page, "#side", 0.5)
    window = page.locator(".window").inner_text()
    ask_by(page, kinds(page)["flip"])
    expect(page.locator("#answer")).to_contain_text("Bottom rail, from the left")
    expect(page.locator("#answer")).to_contain_text("½ tip left")
    expect(page.locator("#answer")).to_contain_text("running")
    assert page.locator(".window").inner_text() == window


def test_layouts_are_saved_under_a_name_and_reopened(page: Page) -> None:
    open_at(page)
    page.locator("#save-now").click()  # without a name it asks for one
    page.locator("#layout-name").fill("Tuesday trouble")
    page.locator("#naming-form button[type=submit]").click()
    expect(page.locator("#toast")).to_contain_text("Saved")
    choose(page, "#layout-menu", "Save as…")
    page.locator("#layout-name").fill("Tuesday trouble")
    page.keyboard.press("Enter")
    expect(page.locator("#naming-fault")).to_contain_text("choose another name")
    assert page.locator("#layout-name").input_value() == "Tuesday trouble"
    page.locator("#naming-cancel").click()
    page.goto("/")
    page.locator("#open-menu").click()
    page.get_by_text("Tuesday trouble").click()
    expect(page.locator("#mark")).to_be_visible()
    assert state_of(page).layout.target == "7" or "target" not in page.url


def test_positions_by_tape(page: Page) -> None:
    """mm and inches from two noses, read and typed: 5.3 diamonds are 1683 mm on this table."""
    open_at(page)
    tab(page, "balls")
    page.locator("#units").select_option("mm")
    box = page.get_by_label("ball 7, from the left")
    assert box.input_value() == "1683"
    box.fill("1700")
    ask_by(page, lambda: box.press("Enter"))
    assert state_of(page).layout.ball("7").x == pytest.approx(1700 / 317.5, abs=1e-4)
    assert state_of(page).layout.ball("7").y == 0.5
    page.locator("#units").select_option("inches")
    assert figure(page.get_by_label("ball 7, from the bottom").input_value()) == 6.25
    page.reload()
    expect(page.locator("#units")).to_have_value("inches")


def test_the_shot_is_played_stepped_and_skipped(page: Page) -> None:
    open_at(page)
    page.locator("#step").click()
    expect(page.locator("#moment")).to_contain_text("top rail, in")
    page.locator("#step").click()
    expect(page.locator("#moment")).to_contain_text("rolling")
    page.locator("#step").click()
    expect(page.locator("#moment")).to_contain_text("hits the 7")
    runner = page.locator("#layer-film .runner:not(.other)")
    assert float(runner.get_attribute("cx") or 0) == pytest.approx(
        float(page.locator("#ghost").get_attribute("cx") or 1), abs=0.1
    )
    page.locator("#skip").click()
    expect(page.locator("#moment")).to_contain_text("Hits the 7")
    end = runner.get_attribute("cx")
    page.locator("#slow").click()
    page.keyboard.press("p")
    page.wait_for_timeout(400)
    expect(page.locator("#play")).to_have_text("Pause")
    assert runner.get_attribute("cx") != end
    page.keyboard.press("p")
    expect(page.locator("#play")).to_have_text("Play it")


def test_reduced_motion_is_respected(page: Page) -> None:
    page.emulate_media(reduced_motion="reduce")
    open_at(page)
    seen = []
    for _ in range(3):  # from moment to moment, nothing moves
        page.locator("#play").click()
        expect(page.locator("#play")).to_have_text("Play it")
        seen.append(page.locator("#moment").inner_text())
    assert seen[0].startswith("top rail, in")
    assert seen[2].startswith("hits the 7")


def test_two_metre_view(page: Page) -> None:
    open_at(page)
    page.keyboard.press("r")
    far = page.locator("#far")
    expect(far).to_be_visible()
    assert far.locator(".far-mark").inner_text() == page.locator("#mark").inner_text()
    assert far.locator(".far-mark").evaluate("e => parseFloat(getComputedStyle(e).fontSize)") > 250
    page.keyboard.press("Escape")
    expect(far).to_be_hidden()


def test_first_visit_is_shown_once_and_words_explain_themselves(chromium: Browser, site: str) -> None:
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, base_url=site)
    page = context.new_page()
    open_at(page)
    expect(page.locator("#first-visit li")).to_have_count(3)
    page.locator("#first-done").click()
    page.reload()
    expect(page.locator("#first-visit")).to_be_hidden()
    page.locator("#tab-chain").click()
    page.locator('#chain [data-term="cushion"]').click()
    expect(page.locator("#explain")).to_contain_text("rubber and cloth")
    page.locator("#explain button").click()
    expect(page.locator("#explain")).to_be_hidden()
    terms = set(page.evaluate("() => [...document.querySelectorAll('[data-term]')].map(e => e.dataset.term)"))
    words = set(json.loads(page.locator("#room").get_attribute("data-words") or "{}"))
    assert terms <= words
    page.keyboard.press("?")
    expect(page.locator("#help")).to_contain_text("undo")
    page.locator("#tip-mm").fill("11")
    page.locator("#tip-mm").press("Tab")
    settled(page)
    assert page.locator("#side").get_attribute("max") != "1.4434"
    page.locator("#tip-mm").fill("13")
    page.locator("#tip-mm").press("Tab")
    settled(page)
    context.close()


@pytest.mark.parametrize("width", [1280, 390])
@pytest.mark.parametrize("room", [BLOCKED, "/log"])
def test_no_serious_fault_in_any_room(page: Page, width: int, room: str) -> None:
    page.set_viewport_size({"width": width, "height": 844})
    page.goto(room)
    grounds = set()
    schemes: tuple[Literal["light"], Literal["dark"]] = ("light", "dark")
    for scheme in schemes:
        page.emulate_media(color_scheme=scheme, reduced_motion="reduce")
        page.wait_for_function("(scheme) => matchMedia(`(prefers-color-scheme: ${scheme})`).matches", arg=scheme)
        settled(page)
        assert page.evaluate("() => document.documentElement.scrollWidth") <= width
        assert serious(page) == []
        grounds.add(page.evaluate("() => getComputedStyle(document.body).backgroundColor"))
    assert len(grounds) == 2  # both were looked at


@pytest.mark.parametrize("width", [390, 1000, 1280])
def test_the_longest_words_stay_within_the_page(page: Page, width: int) -> None:
    """A stroke that fits no fraction, a note open: nothing reaches past the right edge."""
    page.set_viewport_size({"width": width, "height": 800})
    open_at(page, BLOCKED + "&side=-0.293&up=0.381&speed=2.9")
    if width < 992:
        page.locator('[data-sheet="note"]').click()
    page.locator('[data-result="short"]').click()
    told(page)
    outside = page.evaluate(
        "() => [...document.querySelectorAll('main *:not(svg *)')].filter(e => e.offsetParent && !e.closest('.scroll')"
        " && e.getBoundingClientRect().right > innerWidth + 0.5).map(e => e.id || e.className || e.tagName)"
    )
    assert outside == []
    assert page.evaluate("() => getComputedStyle(document.body).overflowX") == "visible"
    assert page.evaluate("() => document.documentElement.scrollWidth") <= width


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_no_serious_fault_with_dialogs_open(page: Page, scheme: Any) -> None:
    page.emulate_media(color_scheme=scheme)
    open_at(page)
    page.locator('[data-result="hit"]').click()
    told(page)
    assert serious(page) == []
    for key, dialog in (("?", "#help"), ("r", "#far")):
        page.locator("#play").focus()
        page.keyboard.press(key)
        expect(page.locator(dialog)).to_be_visible()
        assert serious(page) == []
        page.keyboard.press("Escape")
    page.locator("#layout-menu").click()
    assert serious(page) == []
    page.get_by_text("Save as…", exact=True).click()
    assert serious(page) == []


def luminance(rgb: list[float]) -> float:
    """WCAG 2 relative luminance (published: W3C WCAG 2.2)."""
    linear = [v / 12.92 if v <= 0.04045 else ((v + 0.055) / 1.055) ** 2.4 for v in (c / 255 for c in rgb)]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(page: Page, selector: str, what: str, ground: str) -> float:
    """Contrast of an element's computed colour against the computed fill of its ground."""
    pick = "([s, w]) => getComputedStyle(document.querySelector(s))[w].match(/[\\d.]+/g).slice(0, 3).map(Number)"
    a = luminance(page.evaluate(pick, [selector, what]))
    b = luminance(page.evaluate(pick, [ground, "fill"]))
    return (max(a, b) + 0.05) / (min(a, b) + 0.05)


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_lines_and_numbers_on_the_cloth_can_be_seen(page: Page, scheme: Any) -> None:
    """WCAG 2.2 AA from the computed colours: 4.5 for small text, 3 for large text and lines."""
    page.emulate_media(color_scheme=scheme)
    open_at(page)
    page.wait_for_timeout(150)
    for selector, what, ground, least in (
        ("#shot", "stroke", ".bed", 3.0),
        ("#natural", "stroke", ".bed", 3.0),
        (".count-text", "fill", ".cap", 4.5),
        (".sight", "stroke", ".cap", 3.0),
        (".mark-point", "fill", ".cap", 3.0),
        (".ball .disc", "stroke", ".bed", 3.0),
        (".ball.target text", "fill", ".ball.target .disc", 4.5),
        ('[data-ball="2"] text', "fill", '[data-ball="2"] .disc', 4.5),
    ):
        assert contrast(page, selector, what, ground) >= least, selector


def test_night_by_hand_is_kept(page: Page) -> None:
    open_at(page)
    for _ in range(3):
        if page.locator("#theme").text_content() == "Theme: night":
            break
        page.locator("#menu").click()
        page.locator("#theme").click()
    page.reload()
    assert page.evaluate("() => document.documentElement.dataset.theme") == "night"
