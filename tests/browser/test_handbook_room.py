"""Handbook: the live example is dragged, steps with hands and cue are gone through by keyboard, a map is drawn."""

import re

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import centre, serious, settled

pytestmark = pytest.mark.browser


def test_a_player_finds_a_page_and_tries_the_system(page: Page) -> None:
    page.goto("/")
    page.get_by_role("navigation", name="Rooms").get_by_role("link", name="Handbook").click()
    page.get_by_role("link", name="Corner numbers").click()
    expect(page.locator("h1")).to_contain_text("Corner numbers")
    settled(page)
    expect(page.locator("#shown .step").last).to_contain_text("−")
    before, curves = page.locator("#shown").inner_text(), page.locator("#plot-cloth").inner_html()
    x, y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 50, y, steps=5)
    page.mouse.up()
    settled(page)
    assert page.locator("#shown").inner_text() != before
    expect(page.locator("#plot-cloth svg")).to_be_visible()
    page.wait_for_function("old => document.querySelector('#plot-cloth').innerHTML !== old", arg=curves)
    assert "7:" in page.url
    page.get_by_role("link", name="Play it in the Table room").click()
    page.wait_for_url("**/?table=**method=M14**")


@pytest.mark.parametrize("method", ["M10", "M11", "M14", "M18"])
def test_another_cloth_lands_elsewhere(page: Page, method: str) -> None:
    page.goto(f"/handbook/{method}")
    settled(page)
    landing = page.locator("#shown div").first
    seen = {landing.inner_text()}
    for cloth in ("new", "damp"):
        page.select_option("#cloth", cloth)
        settled(page)
        assert f"cloth={cloth}" in page.url
        seen.add(landing.inner_text())
    assert len(seen) == 3
    page.reload()
    settled(page)
    expect(page.locator("#cloth")).to_have_value("damp")
    assert landing.inner_text() in seen


@pytest.mark.parametrize("method", ["M3", "M6", "M7", "M8", "M9", "M10"])
def test_hands_and_cue_are_gone_through_by_keyboard(page: Page, method: str) -> None:
    page.goto(f"/handbook/{method}")
    settled(page)
    shape = page.locator("#drawing").get_attribute("viewBox")
    page.locator("#hands-start").focus()
    page.keyboard.press("Enter")
    card = page.locator("#step-card")
    expect(card).to_be_focused()
    steps = int(page.locator(".step-number small").inner_text().removeprefix(" of ").strip().removeprefix("of "))
    told, drawn = [], []
    for k in range(1, steps + 1):
        expect(page.locator(".step-number")).to_contain_text(f"{k} of {steps}")
        told.append(page.locator(".step-do").inner_text())
        drawn.append(page.locator("#layer-hands .hand").count())
        assert page.locator("#layer-hands .hand.now").count() >= 1
        page.keyboard.press("ArrowRight")
    assert len(set(told)) == steps
    assert drawn == sorted(drawn)
    assert "Remember that point" in told[-1]
    expect(page.locator("#layer-hands .hand-mark.now")).to_have_count(1)
    page.keyboard.press("Home")
    expect(page.locator(".step-do")).to_have_text(told[0])
    page.keyboard.press("Tab")  # the keys beneath: Back is off at the first step, so Next
    page.keyboard.press("Enter")
    expect(page.locator(".step-do")).to_have_text(told[1])
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".step-do")).to_have_text(told[0])
    page.keyboard.press("Escape")
    expect(page.locator("#layer-hands .hand")).to_have_count(0)
    expect(page.locator("#hands-start")).to_be_focused()
    assert page.locator("#drawing").get_attribute("viewBox") == shape


def test_steps_follow_a_moved_ball(page: Page) -> None:
    page.goto("/handbook/M8")
    settled(page)
    page.locator("#hands-start").click()
    page.locator("#hands-on").click()
    told = page.locator(".step-do").inner_text()
    page.locator('[data-ball="7"]').focus()
    page.keyboard.press("ArrowDown")
    settled(page)
    expect(page.locator(".step-number")).to_contain_text("2 of 5")
    assert page.locator(".step-do").inner_text() != told  # another span


def test_what_lies_outside_the_table_is_drawn_whole(page: Page) -> None:
    """The image beyond the rail is inside the drawing, on a laptop and on a phone."""
    for width in (1280, 390):
        page.set_viewport_size({"width": width, "height": 844})
        page.goto("/handbook/M9")
        settled(page)
        page.locator("#hands-start").click()
        page.locator("#hands-on").click()
        image, sheet = page.locator("#layer-hands .hand-ghost").bounding_box(), page.locator("#drawing").bounding_box()
        assert image is not None
        assert sheet is not None
        assert image["y"] >= sheet["y"] - 1
        assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")


def test_a_map_is_drawn_stopped_and_taken_away(page: Page) -> None:
    page.goto("/handbook/M3")
    settled(page)
    page.locator("#map").click()
    expect(page.locator("#map-says")).to_contain_text("of the table")
    drawn = [
        len(page.locator(f"#layer-holds .holds-{kind}").get_attribute("d") or "") for kind in ("hit", "thin", "miss")
    ]
    assert all(length > 1000 for length in drawn)
    expect(page.locator("#map-before")).to_be_hidden()  # it was not checked
    page.locator("#map").click()
    expect(page.locator("#layer-holds path")).to_have_count(0)
    # stopped before it is done
    during = page.evaluate(
        """() => {
          const [key, bar] = ['map', 'map-progress'].map((id) => document.getElementById(id));
          key.click();
          const seen = [key.textContent, bar.hidden];
          key.click();
          return seen;
        }"""
    )
    assert during == ["Stop", False]
    settled(page)
    expect(page.locator("#layer-holds path")).to_have_count(0)
    expect(page.locator("#map-progress")).to_be_hidden()
    expect(page.locator("#map-says")).to_be_empty()


def test_a_map_in_the_compare_room_goes_with_its_system(page: Page) -> None:
    page.goto("/compare?balls=cue:1,0.3;7:5.6,0.12&target=7&method=M14")
    page.locator("#map").click()
    expect(page.locator("#map-says")).to_contain_text("of the table")
    page.locator('#systems [data-method="M10"]').click()
    expect(page.locator("#layer-holds path")).to_have_count(0)
    page.get_by_role("link", name="Its page in the Handbook").click()
    expect(page.locator("h1")).to_contain_text("Midpoint and corner")
    assert "cue:1,0.3" in page.url


def test_pictures_say_which_system_works_where(page: Page) -> None:
    page.goto("/compare")
    page.locator("#prefer").click()
    expect(page.locator("#pictures figure")).to_have_count(3)
    expect(page.locator("#pictures figcaption").first).to_have_text("Over one rail")
    assert page.locator("#pictures .piece").count() > 3
    expect(page.locator("#pictures li a").first).to_have_attribute("href", re.compile("/handbook/M"))
    page.locator("#prefer").click()
    expect(page.locator("#pictures figure")).to_have_count(0)


def test_a_system_over_three_rails_shows_the_tables_own_numbers(page: Page) -> None:
    page.goto("/handbook/M14")
    expect(page.locator("#own-marks tbody tr")).to_have_count(13)
    here = (
        page.locator("#own-marks tbody tr", has=page.locator("th", has_text=re.compile("^50$"))).locator("td b").first
    )
    first = here.text_content()
    expect(page.locator("#drawing .count-text.table")).to_contain_text("here")
    page.locator("#cloth").select_option("damp")
    expect(here).not_to_have_text(first or "")
    page.goto("/handbook/M3")
    settled(page)
    expect(page.locator("#own-marks")).to_be_hidden()


@pytest.mark.parametrize("scheme", ["light", "dark"])
@pytest.mark.parametrize("width", [390, 1280])
def test_it_fits_and_is_accessible(page: Page, width: int, scheme: str) -> None:
    page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    page.set_viewport_size({"width": width, "height": 844})
    for where in ("/handbook", "/handbook/M8"):
        page.goto(where)
        settled(page)
        if where.endswith("M8"):
            page.locator("#hands-start").click()
        assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth"), where
        assert serious(page) == [], where
