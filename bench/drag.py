"""A drag in the browser at a quarter of the CPU's speed: does every frame get drawn, and when is the answer there?

Starts a demo server and Chromium with the page throttled by 4, drags a ball for some seconds, and
reads the page's own clock. Control: the same page with nothing dragged. Run: make bench-drag
"""

import itertools
import statistics
import tempfile
from pathlib import Path

from campaign.browser import CHROMIUM, FLAGS, free_port, start_server
from playwright.sync_api import CDPSession, Page, sync_playwright

SLOWDOWN = 4
SECONDS = 4.0
STEPS = 240  # pointer moves of a drag: sixty a second
LAYOUT = "balls=cue:1.1,0.55;7:5.3,0.5;2:3.2,0.5&target=7"
VIEWS = (
    ("one rail", f"/?{LAYOUT}&rails=far"),
    ("three rails, mirror view", f"/?{LAYOUT}&rails=far,foot,near&count=3&side=0.2&speed=4.4"),
    ("all rails, best first", f"/?{LAYOUT}&count=all"),
    ("bank", "/?balls=cue:3,2.5;7:5,1.2;2:1,3&target=7&kind=bank&speed=3"),
)
WATCH = """() => {
  window.frames = []; window.moved = null; window.drawn = [];
  const tick = (now) => { window.frames.push(now); window.watching = requestAnimationFrame(tick); };
  window.watching = requestAnimationFrame(tick);
  document.addEventListener('pointerup', () => { window.moved = performance.now(); }, { capture: true, once: true });
  const note = new MutationObserver(() => window.drawn.push(performance.now()));
  note.observe(document.getElementById('answer'), { childList: true });
}"""


def frames(page: Page) -> list[float]:
    """Milliseconds between the frames that were drawn since WATCH."""
    page.evaluate("() => cancelAnimationFrame(window.watching)")
    at: list[float] = page.evaluate("() => window.frames")
    return [b - a for a, b in itertools.pairwise(at)]


def told(gaps: list[float], usual: float) -> str:
    """Gaps between frames, and how many frames were left out."""
    lost = sum(round(gap / usual) - 1 for gap in gaps)
    return f"{statistics.median(gaps):7.1f}{max(gaps):9.1f}{lost:7d} of {len(gaps) + lost}"


def drag(page: Page, session: CDPSession) -> None:
    """Pull the target about with the mouse, sixty moves a second."""
    box = page.locator('#drawing [data-ball="7"] .disc').bounding_box()
    if box is None:
        raise RuntimeError("the target is not drawn")
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for k in range(STEPS):
        way = k / STEPS
        at = {"x": x - 90 * (1 - abs(2 * way - 1)), "y": y - 60 * way}
        session.send("Input.dispatchMouseEvent", {"type": "mouseMoved", "button": "left", "buttons": 1, **at})
        page.wait_for_timeout(1000 * SECONDS / STEPS - 2)
    page.mouse.up()


def main() -> None:
    """Print the table."""
    home, port = Path(tempfile.mkdtemp()), free_port()
    server = start_server(home, port)
    try:
        with sync_playwright() as p:
            browser = p.chromium.launch(executable_path=CHROMIUM, headless=True, args=FLAGS)
            print(f"{'ms between frames, CPU / 4':<28} median     most   lost          answer after the end, ms")
            for name, url in VIEWS:
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                page.goto(f"http://127.0.0.1:{port}{url}")
                page.wait_for_timeout(1500)
                session = page.context.new_cdp_session(page)
                session.send("Emulation.setCPUThrottlingRate", {"rate": SLOWDOWN})
                page.evaluate(WATCH)
                page.wait_for_timeout(1000)
                still = frames(page)
                usual = statistics.median(still)
                page.evaluate(WATCH)
                drag(page, session)
                page.wait_for_timeout(1500)
                gaps = frames(page)
                end, drawn = page.evaluate("() => [window.moved, window.drawn]")
                later = [at - end for at in drawn if at > end]
                print(f"{name + ', still':<28}{told(still, usual)}")
                after = ", ".join(f"{ms:.0f}" for ms in later[:4])
                print(f"{name:<28}{told(gaps, usual)}{after:>22}", flush=True)
                page.close()
            browser.close()
    finally:
        server.terminate()


if __name__ == "__main__":
    main()
