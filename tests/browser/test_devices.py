"""A phone in the room gets in by the code on the screen, and not without. Real servers, a real browser."""

import re
import signal
import subprocess
import sys
from collections.abc import Iterator

import pytest
from campaign.browser import free_port, wait_for_server
from playwright.sync_api import Browser, Page, ViewportSize, expect
from tests.browser.helpers import open_at, serious

pytestmark = pytest.mark.browser
PHONE: ViewportSize = {"width": 390, "height": 844}


@pytest.fixture(scope="module")
def beyond(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[str, str]]:
    """(address on this machine, address for others) of a server that lets devices in.

    127.0.0.2 stands for the machine's address in the room: it is not one of the names that need no pass.
    """
    port = free_port()
    command = [sys.executable, "-m", "fandle.cli", "serve", "--demo", "--host", "127.0.0.2", "--port", str(port)]
    home = str(tmp_path_factory.mktemp("home"))
    process = subprocess.Popen(
        command, env={"FANDLE_HOME": home, "PATH": "/usr/bin:/bin", "COLUMNS": "200"}, text=True, stdout=subprocess.PIPE
    )
    wait_for_server(process, port)
    yield f"http://127.0.0.1:{port}", f"http://127.0.0.2:{port}"
    process.send_signal(signal.SIGINT)
    process.wait(10)
    assert process.stdout
    printed = process.stdout.read()
    process.stdout.close()
    assert f"http://127.0.0.2:{port}/pass?code=" in printed
    assert "\u2588" in printed or "\u2580" in printed  # the code to scan, drawn in the terminal


def phone(chromium: Browser, site: str) -> Page:
    context = chromium.new_context(viewport=PHONE, has_touch=True, is_mobile=True, base_url=site)
    context.add_init_script("localStorage.setItem('fandle-first-visit', '1')")
    return context.new_page()


def test_a_phone_comes_in_by_the_code_on_the_screen_and_not_without(chromium: Browser, beyond: tuple[str, str]) -> None:
    here, outside = beyond
    page = phone(chromium, outside)
    page.goto("/log")
    expect(page.locator("h1")).to_have_text("Fandle")
    expect(page.locator("#code")).to_be_visible()
    assert page.evaluate("() => document.documentElement.scrollWidth <= innerWidth")
    assert page.request.get("/log.json").status == 401
    page.locator("#code").fill("aaaaaaaaaa")
    page.get_by_role("button", name="Come in").tap()
    expect(page.locator(".fault")).to_contain_text("not the pass")

    screen = chromium.new_page(base_url=here)
    screen.goto("/club")
    screen.get_by_role("link", name="Another device").click()
    assert serious(screen) == []
    code = screen.locator("#pass").inner_text()
    expect(screen.locator(".let-in img")).to_have_attribute("src", re.compile("^data:image/svg"))
    page.goto("/pass")
    page.locator("#code").fill(code)
    page.locator("#name").fill("Back pocket")
    page.get_by_role("button", name="Come in").tap()
    page.wait_for_url(f"{outside}/")
    open_at(page)
    page.locator('[data-sheet="note"]').tap()
    page.locator('[data-result="hit"]').tap()
    expect(page.locator("#note-more")).to_be_visible()
    again = page.context.new_page()
    again.goto("/log")
    expect(again.locator("table.rows tbody tr").first).to_contain_text("hit")

    screen.reload()
    assert screen.locator("#pass").inner_text() != code
    expect(screen.locator(".rows input")).to_have_value("Back pocket")
    screen.get_by_role("button", name="Send away").click()
    expect(screen.locator("#toast")).to_contain_text("Back pocket is out")
    again.reload()
    expect(again.locator("#code")).to_be_visible()
    page.context.close()
    screen.close()
