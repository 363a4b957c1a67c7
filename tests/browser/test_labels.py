"""Words and figures on the drawing: clear of pockets, balls and each other, and inside, on every table, lying and upright."""

import json
import random

import pytest
from campaign import scenes
from playwright.sync_api import Page
from tests.amount import amount
from tests.browser.helpers import open_at, settled, state_of

from fandle.core.table.standards import STANDARDS
from fandle.formats.files import layout_json
from fandle.web import address
from fandle.web.noted import plain

pytestmark = pytest.mark.browser
LAYOUTS = amount(2, 20)  # of each table and size
SIZES = {"wide": (1280, 800), "phone": (390, 844)}

# Boxes of labels on screen; a pocket or a ball is a circle. Half a pixel may touch: boxes are of the type, not of the ink.
OVERLAPS = """() => {
  const box = (e) => { const b = e.getBoundingClientRect(); const h = b.height * 0.2; return [b.left + 1, b.top + h, b.right - 1, b.bottom - h]; };
  const labels = [...document.querySelectorAll('#layer-labels text')].map((e) => [e.textContent, box(e)]);
  const round = [...document.querySelectorAll('.pocket, .ball .disc')].map((e) => { const b = e.getBoundingClientRect();
    return [(b.left + b.right) / 2, (b.top + b.bottom) / 2, b.width / 2 - 0.5]; });
  const sheet = document.querySelector('#drawing').getBoundingClientRect();
  const found = [];
  labels.forEach(([text, [l, t, r, b]], k) => {
    if (l < sheet.left - 1 || t < sheet.top - 1 || r > sheet.right + 1 || b > sheet.bottom + 1) found.push(`${text} leaves the drawing`);
    for (const [x, y, radius] of round) {
      const [dx, dy] = [x - Math.min(Math.max(x, l), r), y - Math.min(Math.max(y, t), b)];
      if (dx * dx + dy * dy < radius * radius) found.push(`${text} on a pocket or ball`);
    }
    for (const [other, [l2, t2, r2, b2]] of labels.slice(k + 1)) if (l < r2 && l2 < r && t < b2 && t2 < b) found.push(`${text} on ${other}`);
  });
  return [labels.length, found, document.querySelectorAll('#mark-label').length, Boolean(document.querySelector('#mark'))];
}"""

KICK = "() => document.querySelector('#lines button:not(.off):not([data-rails=straight])')?.click()"


@pytest.mark.proof
@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("name", STANDARDS)
def test_no_label_lies_on_a_pocket_a_ball_or_another(page: Page, name: str, size: str) -> None:
    width, height = SIZES[size]
    page.set_viewport_size({"width": width, "height": height})
    rng, table = random.Random(7), STANDARDS[name]
    open_at(page, f"/?{address.write(plain(scenes.layout(rng, table)))}")
    seen, faults = 0, []
    for _ in range(LAYOUTS):
        file = layout_json(scenes.layout(rng, table, 12), by_name=True)
        page.evaluate(
            "(text) => { const data = new DataTransfer(); data.setData('text/plain', text);"
            " document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data })); }",
            json.dumps(file),
        )
        page.wait_for_timeout(30)
        settled(page)
        assert state_of(page).layout.cue.x == pytest.approx(file["balls"][0]["x"], abs=1e-3)
        page.evaluate(KICK)  # an open ball is shot at straight: few labels
        page.wait_for_timeout(30)
        settled(page)
        labels, found, marked, solved = page.evaluate(OVERLAPS)
        seen += labels
        faults += [(page.url, fault) for fault in found]
        assert bool(marked) == solved, page.url
    assert faults == []
    assert seen > LAYOUTS  # a carom line that meets a ball first has few
