"""Compare: systems side by side, one tap draws the numbers, a ball is dragged, a favourite is chosen."""

import pytest
from playwright.sync_api import Page, expect
from tests.browser.helpers import centre, open_at, serious, settled

pytestmark = pytest.mark.browser

CORNER = "/compare?balls=cue:1,0.3;7:5.6,0.12;2:3.2,1.5&target=7&method=M14"


def test_one_tap_draws_a_systems_numbers_and_its_sum(page: Page) -> None:
    page.goto(CORNER)
    expect(page.locator("#shown h2")).to_have_text("Corner numbers")
    expect(page.locator("#shown .step").last).to_have_text("46.8 − 24 = 22.8")
    labels = page.locator("#layer-labels .count-text").all_text_contents()
    assert {"46.8", "24", "22.8", "50"} <= set(labels)
    line = page.locator("#shot").get_attribute("d")
    page.locator('#systems [data-method="M2"]').click()
    expect(page.locator("#shown h2")).to_have_text("Doubling count")
    assert page.locator("#shot").get_attribute("d") != line
    page.wait_for_url(lambda url: "method=M2" in url)
    expect(page.locator("#twin")).to_contain_text("mirror")


def test_a_dragged_ball_is_counted_anew_and_goes_along_to_the_table_room(page: Page) -> None:
    page.goto(CORNER)
    before = page.locator("#systems").inner_text()
    x, y = centre(page, "7")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 60, y - 8, steps=4)
    page.mouse.up()
    settled(page)
    assert page.locator("#systems").inner_text() != before
    page.get_by_role("link", name="Play it in the Table room").click()
    page.wait_for_url("**/?table=**")
    settled(page)
    expect(page.locator("#answer")).not_to_be_empty()
    page.get_by_role("link", name="Compare").click()
    page.wait_for_url("**/compare?**")
    expect(page.locator("#systems button").first).to_be_visible()


def test_a_favourite_leads_in_the_table_room(page: Page) -> None:
    page.goto(CORNER)
    page.locator("#favour").click()
    expect(page.locator("#toast")).to_contain_text("leads in the Table room")
    open_at(page, "/")
    expect(page.locator(".stands-in")).to_contain_text("Corner numbers does not work here")
    open_at(page, CORNER.replace("/compare", "/").replace("&method=M14", "&rails=far,foot,near&count=3"))
    expect(page.locator("#system")).to_have_value("M14")
    page.request.put("/api/preferences", data={"system": "M3"})


@pytest.mark.parametrize("width", [390, 1280])
def test_it_fits_and_is_accessible(page: Page, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 844})
    page.goto(CORNER)
    expect(page.locator("#systems button").first).to_be_visible()
    assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")
    assert serious(page) == []
    page.locator("#shut summary").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#shut li").first).to_be_visible()
