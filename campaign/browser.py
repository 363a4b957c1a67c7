"""A demo server in a process of its own, and how Chromium is started: for browser tests, screenshots and benches."""

import json
import shutil
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from typing import Any

from campaign.server import free_port

__all__ = ["CHROMIUM", "FLAGS", "free_port", "start_server", "wait_for_server"]

# Debian's: the headless shell takes half the time of the whole browser, which draws windows nobody sees
CHROMIUM = shutil.which("chromium-headless-shell") or shutil.which("chromium")
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip


def start_server(home: Path, port: int, host: str = "127.0.0.1") -> subprocess.Popen[str]:
    """`fandle serve --demo` in a process of its own, up and answering."""
    command = [sys.executable, "-m", "fandle.cli", "serve", "--demo", "--host", host, "--port", str(port)]
    process = subprocess.Popen(command, env={"FANDLE_HOME": str(home), "PATH": "/usr/bin:/bin"}, text=True)
    wait_for_server(process, port)
    return process


def wait_for_server(process: "subprocess.Popen[Any]", port: int) -> None:
    """Until a server that was started answers on this machine, its engine ready."""
    for _ in range(1800):  # an edited kernel compiles first
        try:
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=1) as reply:
                if json.load(reply)["status"] == "ok":
                    return
        except OSError:
            pass
        time.sleep(0.1)
    process.kill()
    raise RuntimeError("the server did not start within three minutes")
