"""A real server on a free port and a real Chromium."""

from collections.abc import Iterator

import pytest
from campaign.browser import CHROMIUM, FLAGS, free_port, start_server
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

expect.set_options(timeout=40_000)  # ms: three browsers and three servers share two cores


@pytest.fixture(scope="session")
def site(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """Address of a running demo server."""
    port = free_port()
    process = start_server(tmp_path_factory.mktemp("home"), port)
    yield f"http://127.0.0.1:{port}"
    process.terminate()
    process.wait(10)


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    """Debian's Chromium, headless."""
    with sync_playwright() as p:
        browser = p.chromium.launch(executable_path=CHROMIUM, headless=True, args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def browsing(chromium: Browser, site: str) -> Iterator[BrowserContext]:
    """One visitor for all pages of a worker: what was fetched once is in its cache, which saves a third of the time."""
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, base_url=site, locale="en-US")
    context.set_default_timeout(60_000)
    context.add_init_script(
        "localStorage.getItem('fandle-first-visit') ?? localStorage.setItem('fandle-first-visit', '1')"
    )
    yield context
    context.close()


@pytest.fixture
def page(browsing: BrowserContext, site: str) -> Iterator[Page]:
    """A fresh page at 1280x800, nothing kept in it, that fails the test on any console error or foreign request."""
    browsing.clear_cookies()
    page = browsing.new_page()
    page.goto("/static/icon.svg")
    page.evaluate("() => { localStorage.clear(); sessionStorage.clear(); }")
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on(
        "console",
        lambda m: (
            faults.append(f"{m.text} {m.location.get('url', '')}")
            if m.type == "error" and not any(code in m.text for code in ("422", "409", "ERR_FAILED"))
            else None
        ),
    )
    page.on("request", lambda r: faults.append(r.url) if not r.url.startswith((site, "data:", "blob:")) else None)
    yield page
    page.close()
    assert faults == []
