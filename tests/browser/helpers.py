"""What the browser tests do again and again."""

import json
import re
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs, urlsplit

from playwright.sync_api import Locator, Page, expect

from fandle.app.situation import Situation
from fandle.formats.files import layout_json
from fandle.web import address

AXE = Path(__file__).parent / "vendor/axe-core/axe.min.js"
BLOCKED = "/?game=straight&balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7&rails=far"


def state_of(page: Page) -> Situation:
    """The state that the page's address holds."""
    query = {name: values[0] for name, values in parse_qs(urlsplit(page.url).query).items()}
    return address.read(query)


def layout_file(page: Page, folder: Path) -> Path:
    """The layout in the address, as a file for the command line."""
    path = folder / "page.fandle.json"
    path.write_text(json.dumps(layout_json(state_of(page).layout)))
    return path


def open_at(page: Page, url: str = BLOCKED) -> None:
    """Open an address and wait until the page has drawn its answer."""
    page.goto(url)
    expect(page.locator("#answer")).not_to_be_empty()


def settled(page: Page) -> None:
    """Wait until no question is under way; the page counts them itself."""
    page.wait_for_function("() => (document.documentElement.dataset.asking ?? '0') === '0'", timeout=60_000)


def ask_by(page: Page, act: Any) -> dict[str, Any]:
    """Do something that asks the server, and wait for the last reply to be drawn."""
    with page.expect_response(lambda r: r.url.endswith(address.ANSWER), timeout=60_000) as reply:
        act()
    settled(page)
    data: dict[str, Any] = reply.value.json()
    return data


def tab(page: Page, name: str) -> None:
    """Open one of the tabs below the drawing: count, chain, after, mirror, balls, adjust."""
    page.locator(f"#tab-{name}").click()


def choose(page: Page, menu: str, text: str) -> None:
    """An entry of a menu by its words."""
    page.locator(menu).click()
    page.get_by_text(text, exact=True).click()


def centre(page: Page, ball: str) -> tuple[float, float]:
    """Middle of a ball's disc on screen."""
    box = page.locator(f'#drawing [data-ball="{ball}"] .disc').bounding_box()
    if box is None:
        raise AssertionError(f"ball {ball} is not drawn")
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def line(page: Page, rails: str) -> Locator:
    """The likeliest row of the list over these rails, out of its fold."""
    page.evaluate("() => document.querySelectorAll('#lines details').forEach((fold) => { fold.open = true; })")
    return page.locator(f'#lines [data-rails="{rails}"]').first


def whole_list(page: Page) -> None:
    """Wait until the plan is told to its end."""
    settled(page)
    expect(page.locator("#planning")).not_to_have_class("planning on", timeout=60_000)


def slide(page: Page, control: str, value: float) -> dict[str, Any]:
    """Move a slider as a hand would leave it."""
    return ask_by(page, lambda: page.locator(control).fill(str(value)))


def serious(page: Page) -> list[str]:
    """Serious and critical faults axe-core finds on the page as it stands."""
    settled(page)  # what is dimmed for the moment between a question and its answer is no fault
    page.evaluate(AXE.read_text("utf-8"))
    found = page.evaluate("() => axe.run(document, {resultTypes: ['violations']})")
    return [
        f"{v['id']}: {node['target']} {node.get('failureSummary', '')}"
        for v in found["violations"]
        if v["impact"] in ("serious", "critical")
        for node in v["nodes"]
    ]


def figure(text: str) -> float:
    """A printed number, proper minus and all."""
    found = re.search(r"[−-]?\d+(?:\.\d+)?", text)
    if found is None:
        raise AssertionError(f"no number in {text!r}")
    return float(found[0].replace("−", "-"))
