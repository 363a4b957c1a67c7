"""A real server in a process of its own, and clients that speak to it over one connection each."""

import http.client
import json
import os
import socket
import ssl
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

STARTING_S = 180  # an edited kernel compiles first


def free_port() -> int:
    """A port nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@dataclass(frozen=True)
class Served:
    """A running server."""

    process: "subprocess.Popen[bytes]"
    port: int
    home: Path
    secure: bool = False

    @property
    def memory_kb(self) -> int:
        """Its resident memory."""
        for line in Path(f"/proc/{self.process.pid}/status").read_text().splitlines():
            if line.startswith("VmRSS"):
                return int(line.split()[1])
        return 0


@contextmanager
def serving(
    home: Path, *, demo: bool = True, before: str = "", more: str = "", secure: bool = False
) -> Iterator[Served]:
    """A server on a folder; `before` is Python run in its process first, `more` what it is started with besides."""
    port = free_port()
    call = f"run_server('127.0.0.1', {port}, demo={demo}, as_json=True{more})"
    code = f"{before}\nfrom fandle.web.serve import run_server\n{call}"
    with (home / "server.log").open("ab") as log:
        process = subprocess.Popen(
            [sys.executable, "-c", code], env={**os.environ, "FANDLE_HOME": str(home)},
            stdout=subprocess.DEVNULL, stderr=log,
        )  # fmt: skip
    try:
        wait_for(port, process, secure=secure)
        yield Served(process, port, home, secure)
    finally:
        process.terminate()
        try:
            process.wait(10)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait(10)


def wait_for(port: int, process: "subprocess.Popen[bytes] | None" = None, *, secure: bool = False) -> None:
    """Until the server answers."""
    deadline = time.monotonic() + STARTING_S
    while time.monotonic() < deadline:
        if process is not None and process.poll() is not None:
            raise RuntimeError(f"the server stopped at once, with {process.returncode}")
        client = Client(port, secure=secure)
        try:
            if json.loads(client.get("/api/health")[1])["status"] == "ok":
                return
        except OSError:
            pass
        finally:
            client.close()
        time.sleep(0.05)
    raise RuntimeError("the server did not start")


def _anybody() -> ssl.SSLContext:
    """TLS with whoever answers: the certificates in here are made for the day."""
    context = ssl.create_default_context()
    context.check_hostname, context.verify_mode = False, ssl.CERT_NONE
    return context


class Client:
    """One connection."""

    def __init__(self, port: int, timeout: float = 60.0, *, secure: bool = False) -> None:
        self.port = port
        self._connection = (
            http.client.HTTPSConnection("127.0.0.1", port, timeout=timeout, context=_anybody())
            if secure
            else http.client.HTTPConnection("127.0.0.1", port, timeout=timeout)
        )

    def get(self, path: str) -> tuple[int, bytes]:
        """(status, body)."""
        return self.ask("GET", path)

    def send(self, method: str, path: str, data: Any) -> tuple[int, bytes]:
        """(status, body) of a JSON question."""
        return self.ask(method, path, json.dumps(data).encode(), "application/json")

    def ask(self, method: str, path: str, body: bytes | None = None, kind: str = "") -> tuple[int, bytes]:
        """(status, body); once more on a fresh connection where the server had closed this one."""
        headers = {"Content-Type": kind} if kind else {}
        for fresh in (False, True):
            try:
                self._connection.request(method, path, body, headers)
                reply = self._connection.getresponse()
                return reply.status, reply.read()
            except (http.client.RemoteDisconnected, ConnectionResetError, BrokenPipeError):
                self._connection.close()
                if fresh:
                    raise
        raise OSError("not reached")

    def close(self) -> None:
        """Hang up."""
        self._connection.close()
