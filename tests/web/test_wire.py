"""Connections as an attacker makes them: heads without an end, bodies that trickle, TLS that never begins, too many."""

import json
import shutil
import socket
import ssl
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager, suppress
from pathlib import Path

import pytest
from campaign.browser import free_port, wait_for_server

from fandle.web.gate import SECURITY
from fandle.web.wire import MOST_HEAD, MOST_LINE, MOST_LINES, MOST_OF_ADDRESS, MOST_STRANGERS

SHORT = (
    "import fandle.web.serve as s, fandle.web.wire as w, fandle.web.bodies as b; w.HEAD_S = b.BODY_S = 2.0; "
    "w.is_loopback = lambda peer: peer == '127.0.0.1'; "
)


@contextmanager
def server(home: Path, more: str = "") -> Iterator[int]:
    """A server that waits for 2 s at most and takes 127.0.0.2 for a stranger."""
    port = free_port()
    code = f"from pathlib import Path; {SHORT} s.run_server('0.0.0.0', {port}, demo=False, as_json=True{more})"
    env = {"FANDLE_HOME": str(home), "PATH": "/usr/bin:/bin"}
    process = subprocess.Popen([sys.executable, "-c", code], env=env, stdout=subprocess.DEVNULL)
    try:
        if more:
            _wait_for_port(port)
        else:
            wait_for_server(process, port)
        yield port
    finally:
        process.kill()
        process.wait(10)


def _wait_for_port(port: int) -> None:
    """Until TLS is spoken there."""
    anything = ssl.create_default_context()
    anything.check_hostname, anything.verify_mode = False, ssl.CERT_NONE
    deadline = time.monotonic() + 180  # as every other wait for a server
    while time.monotonic() < deadline:
        try:
            with anything.wrap_socket(socket.create_connection(("127.0.0.1", port), timeout=5)):
                return
        except OSError:
            time.sleep(0.1)
    raise AssertionError("the server did not start")


@pytest.fixture(scope="module")
def port(tmp_path_factory: pytest.TempPathFactory) -> Iterator[int]:
    with server(tmp_path_factory.mktemp("wire")) as found:
        yield found


def said(port: int, *parts: bytes, source: str = "127.0.0.1") -> bytes:
    """What the server says to these parts until it closes."""
    told = []
    with socket.create_connection(("127.0.0.1", port), timeout=15, source_address=(source, 0)) as connection:
        try:
            for part in parts:
                connection.sendall(part)
            while found := connection.recv(65536):
                told.append(found)
        except ConnectionError:
            pass  # it had enough
    return b"".join(told)


def status_of(reply: bytes) -> int:
    return int(reply.split(b" ")[1])


def start(port: int) -> bytes:
    return f"GET /api/health HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nConnection: close\r\n".encode()


def test_heads_longer_than_ours_are_refused_and_shorter_ones_answered(port: int) -> None:
    for head, status in (
        (b"X: " + b"a" * (MOST_LINE - 100) + b"\r\n\r\n", 200),
        (b"X: " + b"a" * (MOST_LINE + 1) + b"\r\n\r\n", 431),
        (b"".join(b"X%d: a\r\n" % n for n in range(MOST_LINES - 2)) + b"\r\n", 200),
        (b"".join(b"X%d: a\r\n" % n for n in range(MOST_LINES)) + b"\r\n", 431),
        (b"".join(b"X%d: %s\r\n" % (n, b"a" * 7000) for n in range(MOST_HEAD // 7000 + 1)) + b"\r\n", 431),
    ):
        assert status_of(said(port, start(port) + head)) == status
    assert status_of(said(port, b"GET /?x=" + b"a" * MOST_LINE + b" HTTP/1.1\r\nHost: localhost\r\n\r\n")) == 414


@pytest.mark.parametrize(
    "endless",
    [
        (b"X: ", b"a"),
        (b"", b"X: a\r\n"),
        (b"Transfer-Encoding: chunked\r\nContent-Type: application/json\r\n\r\n1;x=", b"a"),
        (b"Transfer-Encoding: chunked\r\nContent-Type: application/json\r\n\r\n1\r\n1\r\n0\r\nX: ", b"a"),
    ],
    ids=["line", "lines", "chunk", "trailer"],
)
def test_what_never_ends_ends_soon_and_holds_nobody_up(port: int, endless: tuple[bytes, bytes]) -> None:
    """20 MB on one connection: 13 s for everybody else, before."""
    first, more = endless
    head = f"POST /api/answer HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\n".encode() + first
    with socket.create_connection(("127.0.0.1", port), timeout=15) as connection:
        sent = connection.send(head)
        try:
            for _ in range(20_000_000 // 50_000):
                sent += connection.send(more * (50_000 // len(more)))
        except ConnectionError:
            pass
        began = time.monotonic()
        assert status_of(said(port, start(port) + b"\r\n")) == 200
        assert time.monotonic() - began < 2.0
    assert sent < 10_000_000  # what the system itself takes in before anybody reads is among it


def test_requests_sent_ahead_without_end_are_not_kept(port: int) -> None:
    """Each that is sent before the last is answered waits in memory: 2 GB of them took the server down."""
    with socket.create_connection(("127.0.0.1", port), timeout=15) as connection:
        sent = 0
        with suppress(ConnectionError):
            for _ in range(400):
                sent += connection.send((start(port).replace(b"close", b"keep-alive") + b"\r\n") * 600)
    assert sent < 10_000_000
    assert status_of(said(port, start(port) + b"\r\n")) == 200
    three = start(port).replace(b"close", b"keep-alive") + b"\r\n"
    assert said(port, three * 2 + start(port) + b"\r\n").count(b"200 OK") == 3


def test_what_cannot_be_parsed_is_a_sentence_with_every_header(port: int) -> None:
    head, _, body = said(port, b"NONSENSE\r\n\r\n").partition(b"\r\n\r\n")
    assert status_of(head) == 400
    assert "open the address in a browser" in json.loads(body)["error"]
    for name, value in SECURITY.items():
        assert f"{name}: {value}".encode() in head


def test_a_body_that_trickles_is_given_up(port: int) -> None:
    head = f"POST /api/answer HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Type: application/json\r\n"
    began = time.monotonic()
    with socket.create_connection(("127.0.0.1", port), timeout=15) as connection:
        connection.sendall((head + "Content-Length: 1000\r\n\r\n").encode())
        connection.settimeout(0.3)
        told = b""
        while time.monotonic() - began < 10 and not told:
            connection.sendall(b" ")
            try:
                told = connection.recv(65536)
            except TimeoutError:
                continue
    assert status_of(told) == 408
    assert time.monotonic() - began < 6


def test_a_stranger_has_so_many_connections_and_no_more(port: int) -> None:
    with ExitStack() as held:

        def come(source: str) -> socket.socket:
            made = socket.create_connection(("127.0.0.1", port), timeout=10, source_address=(source, 0))
            return held.enter_context(made)

        for _ in range(MOST_OF_ADDRESS):
            come("127.0.0.2")
        time.sleep(0.3)
        assert b"503" in come("127.0.0.2").recv(100)
        assert status_of(said(port, start(port) + b"\r\n")) == 200  # this machine is counted apart
        for number in range(3, 3 + MOST_STRANGERS // MOST_OF_ADDRESS - 1):
            for _ in range(MOST_OF_ADDRESS):
                come(f"127.0.0.{number}")
        time.sleep(0.3)
        assert b"503" in come("127.0.0.99").recv(100)
    time.sleep(0.5)
    # they hung up, so there is room again
    assert status_of(said(port, start(port) + b"\r\n", source="127.0.0.2")) == 200


@pytest.mark.skipif(shutil.which("openssl") is None, reason="no openssl to make a certificate with")
def test_in_https_too_who_says_nothing_is_sent_away(tmp_path: Path) -> None:
    certificate, key = tmp_path / "c.pem", tmp_path / "k.pem"
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=localhost",
         "-keyout", str(key), "-out", str(certificate)],
        check=True, capture_output=True,
    )  # fmt: skip
    anything = ssl.create_default_context()
    anything.check_hostname, anything.verify_mode = False, ssl.CERT_NONE
    with server(tmp_path / "home", f", certificate=Path({str(certificate)!r}), key=Path({str(key)!r})") as port:
        silent = socket.create_connection(("127.0.0.1", port), timeout=15)
        half = anything.wrap_socket(socket.create_connection(("127.0.0.1", port), timeout=15))
        half.sendall(b"GET / HT")
        began = time.monotonic()
        assert silent.recv(100) == b""
        assert half.recv(100) == b""
        assert time.monotonic() - began < 8
        whole = anything.wrap_socket(socket.create_connection(("127.0.0.1", port), timeout=15))
        whole.sendall(start(port) + b"\r\n")
        assert status_of(whole.recv(1000)) == 200
        for each in (silent, half, whole):
            each.close()
