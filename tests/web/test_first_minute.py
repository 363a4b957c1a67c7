"""The first minute: a server in plain Python answers while kernels are compiled, then hands its socket over."""

import json
import os
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest
from campaign.browser import free_port

QUESTION = {
    "layout": {
        "format": "fandle-layout/1", "table": "pool-9ft", "game": "nine-ball", "target": "7",
        "balls": [{"id": "cue", "x": 1.1, "y": 0.55}, {"id": "7", "x": 5.3, "y": 0.5}, {"id": "8", "x": 3.2, "y": 0.5}],
    },
    "speed": 3.1, "rails": "far",
}  # fmt: skip
PATIENCE_S = 120
# the command's own server with kernels "missing" until a file is there, and a compiler that only waits for it
COMMAND = """
import sys, time
from pathlib import Path
from fandle.core.physics import kernel_folder
from fandle.web import serve
go = Path(sys.argv[1])
kernel_folder.ready = go.exists
def compile_meanwhile(*, quiet):
    while not go.exists(): time.sleep(0.05)
serve.compile_meanwhile = compile_meanwhile
serve.run_server("127.0.0.1", int(sys.argv[2]), demo=True, as_json=True)
"""


def asked(url: str, data: object = None) -> tuple[int, Any]:
    """(status, what came) of a request."""
    body = None if data is None else json.dumps(data).encode()
    request = urllib.request.Request(url, body, {"Content-Type": "application/json", "Accept": "*/*"})
    try:
        with urllib.request.urlopen(request, timeout=PATIENCE_S) as reply:
            text = reply.read()
            return reply.status, json.loads(text) if reply.headers.get_content_type().endswith("/json") else text
    except urllib.error.HTTPError as refused:
        return refused.code, json.loads(refused.read())


def until(url: str, status: str) -> dict[str, Any]:
    """The server's health once it is that."""
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end:
        try:
            health: dict[str, Any] = asked(f"{url}/api/health")[1]
        except OSError:
            health = {"status": "not yet"}
        if health["status"] == status:
            return health
        time.sleep(0.1)
    raise AssertionError(f"never {status}")


@contextmanager
def served(folder: Path) -> Iterator[tuple[str, Path, subprocess.Popen[str]]]:
    """(its address, the file that says the kernels are there, the command)."""
    port, go = free_port(), folder / "go"
    env = {**os.environ, "FANDLE_HOME": str(folder / "home")}
    with subprocess.Popen(
        [sys.executable, "-c", COMMAND, str(go), str(port)], env=env, stdout=subprocess.PIPE, text=True
    ) as process:
        try:
            yield f"http://127.0.0.1:{port}", go, process
        finally:
            process.terminate()


def numbers(data: Any) -> list[float]:
    """All numbers in what was answered, in order."""
    if isinstance(data, dict):
        data = list(data.values())
    if isinstance(data, list):
        return [number for each in data for number in numbers(each)]
    return [float(data)] if isinstance(data, int | float) else []


def test_it_answers_at_once_and_hands_over_without_a_gap(tmp_path: Path) -> None:
    with served(tmp_path) as (url, go, process):
        assert process.stdout is not None
        assert json.loads(process.stdout.readline())["address"].startswith(url)
        until(url, "compiling")
        status, page = asked(f"{url}/")
        assert status == 200
        assert b'id="engine"' in page
        status, slow = asked(f"{url}/api/answer", QUESTION)
        assert status == 200
        status, refused = asked(f"{url}/api/plan", {"layout": QUESTION["layout"]})
        assert (status, refused["code"]) == (503, "compiling")
        go.touch()
        end = time.monotonic() + PATIENCE_S
        while asked(f"{url}/api/health")[1]["status"] != "ok":  # every one of these is answered
            assert time.monotonic() < end
            time.sleep(0.05)
        status, fast = asked(f"{url}/api/answer", QUESTION)
        assert status == 200
        ours, theirs = (numbers(each["chosen"]["drawing"]) for each in (slow, fast))
        assert len(ours) > 100
        assert ours == pytest.approx(theirs, abs=1e-6)
        assert b'id="engine"' not in asked(f"{url}/")[1]
        assert asked(f"{url}/api/plan", {"layout": QUESTION["layout"]})[0] == 200


def test_the_stand_in_goes_with_the_command(tmp_path: Path) -> None:
    with served(tmp_path) as (url, _, process):
        until(url, "compiling")
        process.kill()
        end = time.monotonic() + PATIENCE_S
        while time.monotonic() < end:
            try:
                asked(f"{url}/api/health")
            except OSError:
                break
            time.sleep(0.1)
        else:
            raise AssertionError("it still answers")
