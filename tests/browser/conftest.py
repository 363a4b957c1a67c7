"""A real server on a free port and a real Chromium."""

import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, sync_playwright

FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip


def free_port() -> int:
    """A port nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def start_server(home: Path, port: int, host: str = "127.0.0.1") -> subprocess.Popen[str]:
    """`fandle serve --demo` in a process of its own, up and answering."""
    command = [sys.executable, "-m", "fandle.cli", "serve", "--demo", "--host", host, "--port", str(port)]
    process = subprocess.Popen(command, env={"FANDLE_HOME": str(home), "PATH": "/usr/bin:/bin"}, text=True)
    wait_for_server(process, port)
    return process


def wait_for_server(process: "subprocess.Popen[Any]", port: int) -> None:
    """Until a server that was started answers on this machine."""
    for _ in range(1800):  # an edited kernel compiles first
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=1).close()
        except OSError:
            time.sleep(0.1)
        else:
            return
    process.kill()
    raise RuntimeError("the server did not start within three minutes")


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
        browser = p.chromium.launch(executable_path="/usr/bin/chromium", headless=True, args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture
def page(chromium: Browser, site: str) -> Iterator[Page]:
    """A fresh page at 1280x800 that fails the test on any console error or foreign request."""
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, base_url=site)
    context.add_init_script(
        "localStorage.getItem('fandle-first-visit') ?? localStorage.setItem('fandle-first-visit', '1')"
    )
    page = context.new_page()
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on(
        "console",
        lambda m: (
            faults.append(m.text)
            if m.type == "error" and not any(code in m.text for code in ("422", "409", "ERR_FAILED"))
            else None
        ),
    )
    page.on("request", lambda r: faults.append(r.url) if not r.url.startswith((site, "data:", "blob:")) else None)
    yield page
    context.close()
    assert faults == []
