"""Connections as an attacker makes them, from addresses of this machine that a server is made to take for others'."""

import shutil
import socket
import ssl
import subprocess
import threading
import time
from collections.abc import Callable
from contextlib import ExitStack, suppress
from dataclasses import dataclass, field
from http.client import HTTPException
from pathlib import Path

from campaign.server import Client, Served, serving

from fandle.web.wire import MOST_OF_ADDRESS

WAIT_S = 3.0  # how long the server waits in here, in place of 20 s
SLOWEST_S = 0.5  # anybody else may wait: 13 s, once
STRANGERS = (
    f"import fandle.web.wire as w, fandle.web.bodies as b; w.HEAD_S = b.BODY_S = {WAIT_S}; "
    "w.is_loopback = lambda peer: peer == '127.0.0.1'"
)
HOST = "127.0.0.1"


@dataclass
class Wired:
    """What was tried, the longest that anybody else waited meanwhile (s), and what is wrong."""

    tried: int = 0
    slowest_s: float = 0.0
    faults: list[str] = field(default_factory=list)


def attack_over(home: Path) -> Wired:
    """Every attack over HTTP and HTTPS, while a player's own page asks for the health check again and again."""
    found = Wired()
    with serving(home, before=STRANGERS) as served:
        for name, attack in ATTACKS.items():
            _watched(found, name, attack, served)
    secrets = _certificate(home)
    if secrets is None:
        found.faults.append("no openssl here: HTTPS was not tried")
        return found
    more = ", certificate=Path({!r}), key=Path({!r})".format(*map(str, secrets))
    paths = "from pathlib import Path; "
    with serving(home, before=paths + STRANGERS, more=more, secure=True) as served:
        _watched(found, "a silent TLS hello", _silent, served)
        _watched(found, "half a request in TLS", _half_in_tls, served)
    return found


def _watched(found: Wired, name: str, attack: Callable[[int], str], served: Served) -> None:
    going, waited = True, [0.0]

    def look() -> None:
        client = Client(served.port, 30.0, secure=served.secure)
        while going:
            start = time.perf_counter()
            try:
                client.get("/api/health")
            except (OSError, HTTPException):
                client.close()
            waited.append(time.perf_counter() - start)
            time.sleep(0.01)
        client.close()

    watcher = threading.Thread(target=look)
    watcher.start()
    try:
        fault = attack(served.port)
    except OSError as broken:
        fault = f"{broken!r}"
    going = False
    watcher.join()
    found.tried += 1
    found.slowest_s = max(found.slowest_s, *waited)
    if fault:
        found.faults.append(f"{name}: {fault}")
    if max(waited) > SLOWEST_S:
        found.faults.append(f"{name}: others waited {max(waited):.2f} s")
    if served.process.poll() is not None:
        found.faults.append(f"{name}: the server is gone")


def _connect(port: int, source: str = "127.0.0.2") -> socket.socket:
    return socket.create_connection((HOST, port), timeout=30, source_address=(source, 0))


def _pour(port: int, head: bytes, more: bytes, most: int = 60_000_000) -> str:
    """Send a head and then the same over and over; how much was taken before it was cut off."""
    sent = 0
    with _connect(port) as connection, suppress(ConnectionError, TimeoutError):
        connection.sendall(head)
        while sent < most:
            sent += connection.send(more)
    return "" if sent < most / 2 else f"{sent / 1e6:.0f} MB were taken"


def _trickle(port: int, head: bytes, piece: bytes) -> str:
    """A piece every half second, until it is cut off."""
    start = time.monotonic()
    with _connect(port) as connection, suppress(ConnectionError, TimeoutError):
        connection.sendall(head)
        connection.settimeout(0.5)
        while time.monotonic() - start < 10 * WAIT_S:
            connection.sendall(piece)
            with suppress(TimeoutError):
                if not connection.recv(4096):
                    break
    took = time.monotonic() - start
    return "" if took < 3 * WAIT_S else f"it went on for {took:.0f} s"


def _flood(port: int) -> str:
    """More connections than any device makes, from one address and then from many."""
    with ExitStack() as held:
        for n in range(8 * MOST_OF_ADDRESS):
            with suppress(OSError):
                held.enter_context(_connect(port, f"127.0.0.{2 + n // MOST_OF_ADDRESS}"))
        time.sleep(0.5)
        try:
            last = held.enter_context(_connect(port, "127.0.0.2")).recv(100)
        except OSError:
            return ""
        return "" if b"503" in last or not last else f"one more is answered {last!r}"


def _silent(port: int) -> str:
    """Connections that never say hello."""
    start = time.monotonic()
    with ExitStack() as held:
        silent = [held.enter_context(_connect(port)) for _ in range(MOST_OF_ADDRESS // 2)]
        ends = []
        for each in silent:
            with suppress(ConnectionError, TimeoutError):
                ends.append(each.recv(100))
    took = time.monotonic() - start
    return "" if took < 3 * WAIT_S and not any(ends) else f"they stayed for {took:.0f} s"


def _half_in_tls(port: int) -> str:
    anything = ssl.create_default_context()
    anything.check_hostname, anything.verify_mode = False, ssl.CERT_NONE
    start = time.monotonic()
    with anything.wrap_socket(_connect(port)) as connection, suppress(ConnectionError, TimeoutError):
        connection.sendall(b"GET / HTTP/1.1\r\nHost: loc")
        connection.recv(100)
    took = time.monotonic() - start
    return "" if took < 3 * WAIT_S else f"it stayed for {took:.0f} s"


HEAD = b"POST /api/answer HTTP/1.1\r\nHost: localhost\r\n"
BODY = HEAD + b"Content-Type: application/json\r\n"
CHUNKED = BODY + b"Transfer-Encoding: chunked\r\n\r\n"
GET = HEAD.replace(b"POST", b"GET") + b"\r\n"
KB = 50_000
ATTACKS: dict[str, Callable[[int], str]] = {
    "a header without an end": lambda port: _pour(port, HEAD + b"X: ", b"a" * KB),
    "headers without an end": lambda port: _pour(port, HEAD, b"X: a\r\n" * (KB // 6)),
    "an address without an end": lambda port: _pour(port, b"GET /?", b"a" * KB),
    "a method without an end": lambda port: _pour(port, b"", b"A" * KB),
    "blank lines without an end": lambda port: _pour(port, b"", b"\r\n" * (KB // 2)),
    "a chunk's size without an end": lambda port: _pour(port, CHUNKED + b"1;x=", b"a" * KB),
    "trailers without an end": lambda port: _pour(port, CHUNKED + b"1\r\n1\r\n0\r\nX: ", b"a" * KB),
    "a body longer than it says": lambda port: _pour(port, BODY + b"Content-Length: 3\r\n\r\n", b"1" * KB),
    "requests without an end": lambda port: _pour(port, b"", GET * 800),
    "a head that trickles": lambda port: _trickle(port, HEAD, b"X: a\r\n"),
    "a body that trickles": lambda port: _trickle(port, BODY + b"Content-Length: 900\r\n\r\n", b" "),
    "chunks that trickle": lambda port: _trickle(port, CHUNKED, b"1\r\n \r\n"),
    "an import that trickles": lambda port: _trickle(
        port, BODY.replace(b"answer", b"log") + b"Content-Length: 90000000\r\n\r\n", b" "
    ),
    "connections that say nothing": _silent,
    "too many connections": _flood,
}  # fmt: skip


def _certificate(home: Path) -> tuple[Path, Path] | None:
    if shutil.which("openssl") is None:
        return None
    certificate, key = home / "c.pem", home / "k.pem"
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=localhost",
         "-keyout", str(key), "-out", str(certificate)],
        check=True, capture_output=True,
    )  # fmt: skip
    return certificate, key
