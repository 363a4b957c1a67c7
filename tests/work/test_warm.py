"""Nobody waits for the compiler: after warming, every verb and every page answers without compiling anything."""

import json
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from tests.conftest import CONTRACT_LAYOUT
from tests.web.conftest import local_client

from fandle.core.physics import kernel_folder
from fandle.core.physics import warm as kernels
from fandle.web.app import create_app
from fandle.web.settings import Settings
from fandle.work.progress import ABOUT
from fandle.work.warm import Warming, main

EVERYTHING = """
import contextlib, io, json, sys, tempfile
from pathlib import Path
from numba.core import event
compiled = []
class Watch(event.Listener):
    def on_start(self, e): compiled.append(str(e.data["dispatcher"]))
    def on_end(self, e): pass
event.register("numba:compile", Watch())
from fandle.cli import main
from fandle.web.app import create_app
from fandle.web.settings import Settings
from starlette.testclient import TestClient
path = sys.argv[1]
verbs = [
    ["simulate", path, "--aim", "far:3@nose", "--cue", "house", "--elevation", "3"], ["aim", path, "--rails", "far"],
    ["aim", path, "--rails", "far,foot,near", "--cue", "slim"], ["aim", path, "--rails", "straight"],
    ["aim", path, "--rails", "foot", "--kind", "bank", "--target", "2"],
    ["aim", path, "--rails", "far", "--hold", "far:3@nose", "--change", "side"],
    ["count", path, "--all"], ["count", path, "--method", "M15"],
    ["count", path, "--method", "M3", "--kind", "bank", "--target", "2"], ["table", "pool-7ft", "--cloth", "worn"],
]
app = create_app(Settings(Path(tempfile.mkdtemp()), demo=True))
layout = json.loads(Path(path).read_text())
with TestClient(app, base_url="http://127.0.0.1", client=("127.0.0.1", 50000)) as client:
    before = set(sys.modules)
    for page in ("/", "/compare", "/handbook", "/handbook/M15", "/club", "/log"):
        assert client.get(page).status_code == 200, page
    asked = [
        ("/api/answer", {"layout": layout}), ("/api/answer", {"layout": layout, "rails": "straight"}),
        ("/api/answer", {"layout": layout, "kind": "bank", "speed": 3}),
        ("/api/plan", {"layout": layout, "draws": 20}), ("/api/plan", {"layout": layout, "goal": "pot", "draws": 20}),
        ("/api/instead", {"question": {"layout": layout, "rails": "far"}, "mark": 3, "change": "side"}),
        ("/api/compare", {"layout": layout}), ("/api/handbook/M3/drift", {"layout": layout}),
        ("/api/map", {"example": {"layout": layout}, "method": "M3"}),
        ("/api/prefer", {"example": {"layout": layout}}),
        ("/api/club/preview", {"base": "pool-9ft", "rubber": "soft"}),
    ]
    for url, body in asked:
        reply = client.post(url, json=body)
        assert reply.status_code == 200, (url, reply.text)
    late = sorted(name for name in set(sys.modules) - before if name.startswith(("scipy", "numba", "numpy", "fandle")))
for verb in verbs:
    with contextlib.redirect_stdout(io.StringIO()), contextlib.suppress(SystemExit):
        main([*verb, "--json"])
print(json.dumps({"compiled": compiled, "late": late}))
"""


def test_every_verb_and_every_page_in_a_fresh_process_compiles_nothing_and_loads_nothing_late(tmp_path: Path) -> None:
    Warming().run()
    path = tmp_path / "layout.fandle.json"
    path.write_text(json.dumps(CONTRACT_LAYOUT))
    done = subprocess.run(
        [sys.executable, "-c", EVERYTHING, str(path)], capture_output=True, text=True, timeout=300, check=False
    )
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout) == {"compiled": [], "late": []}


def slowly(_: object) -> Iterator[float]:
    for part in (0.25, 0.5, 0.75, 1.0):
        time.sleep(0.15)
        yield part


def test_setup_says_what_it_does_and_how_far_it_is(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(kernel_folder, "ready", lambda: False)
    monkeypatch.setattr(kernels, "compile_apart", slowly)
    main()
    told = capsys.readouterr().err
    assert told.startswith(ABOUT)
    assert "50%" in told
    assert told.endswith("100%\n")


def test_pages_wait_for_the_engine_and_show_how_far_it_is(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    """Installed as a wheel nothing is compiled yet: the first page says so, programs are told when to ask again."""
    looked = threading.Event()

    def until_looked_at(_: object) -> Iterator[float]:
        yield 0.25
        looked.wait(60)
        yield from (0.5, 0.75, 1.0)

    monkeypatch.setattr(kernel_folder, "ready", lambda: False)
    monkeypatch.setattr(kernels, "warm", until_looked_at)
    heard: list[float] = []
    app = create_app(Settings(tmp_path, demo=True), heard.append)
    with local_client(app) as client:
        page = client.get("/", headers={"Accept": "text/html"})
        assert page.status_code == 503
        assert ABOUT in page.text
        early = client.post("/api/answer", json={"layout": CONTRACT_LAYOUT})
        assert (early.status_code, early.json()["code"], early.headers["Retry-After"]) == (503, "compiling", "2")
        assert client.get("/static/css/page.css").status_code == 200
        looked.set()
        while client.get("/api/health").json()["status"] != "ok":
            time.sleep(0.05)
        assert client.get("/", headers={"Accept": "text/html"}).status_code == 200
        assert "98 of" in client.get("/log").text or "attempts" in client.get("/log").text
    assert heard == [0.25, 0.5, 0.75, 1.0]
