"""Close work in a browser: the contact picture, the raised cue, the finder, search and print of the Handbook."""

import re

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import serious

pytestmark = pytest.mark.browser
CURVED = "/?table=pool-9ft&game=straight&balls=cue:1.2,1.1;7:5.4,0.9;2:3.3,1.45&target=7&rails=straight&speed=2&side=0.3&up=-0.2"


def test_a_technique_is_solved_again_when_a_ball_is_moved(page: Page) -> None:
    page.goto("/handbook/M20")
    picture = page.locator("svg.moment")
    expect(picture).to_be_visible()
    expect(page.locator(".ways-tried li")).to_have_count(4)
    expect(page.locator(".moment .spin")).to_have_count(1)
    before = picture.get_attribute("aria-label") or ""
    assert "of the 7" in before
    ball = page.locator('#layer-balls [data-ball="cue"]')
    ball.focus()
    for _ in range(3):
        page.keyboard.press("ArrowLeft")
    expect(picture).not_to_have_attribute("aria-label", before)
    page.locator("#cloth").select_option("damp")
    expect(page).to_have_url(re.compile("cloth=damp"))
    assert serious(page) == []


def test_where_a_technique_does_not_work_the_picture_gives_way_to_the_reason(page: Page) -> None:
    page.goto("/handbook/M20?table=pool-9ft&balls=cue:4.6,0.75;7:6,2&target=7")
    expect(page.locator("#shown")).to_contain_text("It does not work from here")
    expect(page.locator("#moment")).to_be_hidden()


def test_the_handbook_fits_a_phone(page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    for address in ("/handbook", "/handbook/M23", "/handbook/corrections", "/handbook/disputes", "/handbook/games"):
        page.goto(address)
        expect(page.locator("h1")).to_be_visible()
        assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth"), address


def test_the_finder_and_the_search_are_used_by_keyboard(page: Page) -> None:
    page.goto("/handbook")
    page.locator('[name="rails"]').select_option("3")
    page.locator('[name="table"]').select_option("strange")
    page.locator('[name="table"]').press("Tab")
    page.locator(".finder button").press("Enter")
    expect(page.locator(".entries li")).to_have_count(1)
    expect(page.locator(".entries b")).to_contain_text("Angles")
    page.locator("text=Show all").click()
    expect(page.locator(".entries li")).to_have_count(26)
    page.locator('[name="q"]').fill("back cut")
    page.locator('[name="q"]').press("Enter")
    expect(page.locator(".entries b").first).to_contain_text("Back cut")
    assert serious(page) == []


@pytest.mark.parametrize("address", ["/handbook/M22", "/handbook/corrections", "/handbook/M3"])
def test_a_page_prints_without_its_keys(page: Page, address: str) -> None:
    page.goto(address)
    expect(page.locator("h1")).to_be_visible()
    page.emulate_media(media="print")
    for part in (".top", ".try", ".turn"):
        expect(page.locator(part).first).to_be_hidden()
    expect(page.locator("h1")).to_be_visible()


def test_the_raised_cue_bends_the_line_and_says_what_can_hurt(page: Page) -> None:
    page.goto(CURVED)
    page.locator("#tab-adjust").click()
    slider = page.locator("#elevation")
    expect(slider).to_be_visible()
    expect(page.locator("#elevation-out")).to_have_text("level")
    slider.fill("14")
    expect(page.locator("#elevation-out")).to_have_text("14°")
    expect(page.locator("#bends")).to_contain_text("softer: bends")
    expect(page.locator("#bends")).to_contain_text("harder: bends")
    expect(page.locator('[data-step="speed"][data-by="1"]')).to_have_attribute("title", re.compile("harder: bends"))
    expect(page.locator("#bends .mind")).to_contain_text("Ask the room first")
    expect(page).to_have_url(re.compile("raised=14"))
    slider.fill("40")
    slider.fill("0")
    expect(page.locator("#bends")).to_be_empty()


def test_the_moment_of_contact_stands_under_what_comes_after(page: Page) -> None:
    page.goto("/?table=pool-9ft&balls=cue:1.2,1.1;7:5.4,0.9&target=7&rails=far")
    page.locator("#tab-after").click()
    expect(page.locator("#close-up svg.moment")).to_be_visible()
    expect(page.locator("#close-up figcaption")).to_contain_text("of the 7")


def test_a_carom_players_point_tells_its_way_and_when(page: Page) -> None:
    page.goto("/?table=carom-10ft&game=three-cushion&balls=cue:2,0.8;red:5.6,0.7;white:1.2,3.2&target=red")
    row = page.locator("#lines li", has_text="natural").first
    expect(row).to_be_visible()
    row.locator("button").first.click()
    page.locator("#tab-after").click()
    expect(page.locator("#after-said")).to_contain_text("The three balls lie within")
