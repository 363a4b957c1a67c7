"""Make the current pictures of the main views from demo data: docs/screenshots/*.png."""

import sys
import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT))

from campaign.browser import CHROMIUM, FLAGS, free_port, start_server  # noqa: E402

BLOCKED = "/?balls=cue:1.1,0.55;7:5.3,0.5;8:3.2,0.5;9:4.3,0.25&target=7&side=0.1732&rails=far"
CROWD = (
    "/?balls=cue:6.7,1.1;3:2.1,1.6;4:4.4,1.35;5:5.3,3.2;6:3.3,2.5;8:1.1,3.3;9:4.9,0.5"
    "&target=3&method=M2&frame=sight&rails=near"
)
POT = "/?balls=cue:1.7,2.6;4:6.6,1.15;8:3.9,1.9;9:5.6,3.3&target=4&pocket=foot-near&rails=far&speed=2.9"
SAFE = "/?balls=cue:2.2,2.6;2:4.6,3.7;5:5.6,1.2;7:5.9,1.5;8:2.9,3.75;9:6.6,3.6&target=2"
THREE = "/?balls=cue:0.6,0.4;7:6.3,0.9;8:3.2,0.63;9:4.3,0.4&target=7&side=0.2&speed=4.4&rails=far,foot,near"
BANK = "/?balls=cue:3,2.5;7:5,1.2;9:1,3&target=7&kind=bank&speed=3&rails=near&pocket=foot-far"
SNOOKER = (
    "/?table=snooker-12ft&game=snooker&balls=cue:1.25,1.9;yellow:1.652,1.343;green:1.652,2.657;brown:1.652,2;blue:4,2;"
    "pink:6,2;black:7.274,2;red1:6.5,2.6;red2:6.75,1.2;red3:6.3,1.5;red4:5.1,2.25&target=red4&speed=3.2&rails=far"
)
CAROM = "/?table=carom-10ft&balls=cue:2,.5;red:1.1,2.6;white:1.7,1.7&target=red&speed=3.5&side=0.3&rails=far,foot,near"
# name, address, width, height, whole page, colour scheme, what to do first
VIEWS = (
    ("table", BLOCKED, 1280, 800, False, "light", ""),
    ("table-night", BLOCKED, 1280, 800, False, "dark", "#step #step"),
    ("table-phone", BLOCKED, 390, 844, False, "light", ""),
    ("close-work", "/handbook/M20", 1280, 800, False, "light", ""),
    ("table-crowd", CROWD, 1280, 800, False, "light", ""),
    ("table-note", BLOCKED, 1280, 800, False, "light", "[data-result=short]"),
    ("two-metres", BLOCKED, 1280, 800, False, "light", "#far-open"),
    ("three-rails", THREE, 1280, 1200, False, "light", "#tab-mirror"),
    ("bank", BANK, 1280, 800, False, "light", ""),
    ("snooker", SNOOKER, 1280, 800, False, "light", ""),
    ("carom", CAROM, 1280, 800, False, "light", ""),
    ("compare", "/compare?balls=cue:1,0.3;7:5.6,0.12;8:3.2,1.5&target=7&method=M14", 1280, 800, False, "light", ""),
    ("handbook", "/handbook/M10", 1280, 800, False, "light", "#hands-start #hands-on #hands-on"),
    ("club", "/club?table=Bar%20box%20by%20the%20door", 1280, 800, False, "light", ""),
    ("pot", POT, 1280, 800, False, "light", "#tab-after"),
    ("safe", SAFE, 1280, 800, False, "light", "[data-goal=safe] #tab-after"),
    ("check", "/check?table=Damp%20nine-foot", 1280, 800, False, "light", "#shooter " * 8),
    ("practice", "/practice", 1280, 800, False, "light", "[data-part] #made #missed #made"),
    ("log", "/log", 1280, 800, False, "light", ""),
)


def main() -> None:
    """Take every picture."""
    port = free_port()
    # 127.0.0.2 stands for an address that other devices reach, so that "Another device" shows its code
    server = start_server(Path(tempfile.mkdtemp()), port, "127.0.0.2")
    try:
        with sync_playwright() as p:
            browser = p.chromium.launch(executable_path=CHROMIUM, headless=True, args=FLAGS)
            for name, address, width, height, whole, scheme, clicks in VIEWS:
                page = browser.new_page(viewport={"width": width, "height": height}, color_scheme=scheme)  # type: ignore[arg-type]  # dark or light
                page.add_init_script("localStorage.setItem('fandle-first-visit', '1')")
                page.goto(f"http://127.0.0.1:{port}{address}", wait_until="networkidle")
                for selector in clicks.split():
                    page.click(selector)
                    page.wait_for_load_state("networkidle")
                page.wait_for_timeout(900)
                target = ROOT / f"docs/screenshots/{name}.png"
                page.screenshot(path=target, full_page=whole, animations="disabled")
                page.close()
            browser.close()
    finally:
        server.terminate()


if __name__ == "__main__":
    main()
