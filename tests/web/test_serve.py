"""The server as a process: one a folder, nothing waited for without end, commands beside it."""

import http.client
import json
import shutil
import socket
import ssl
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from campaign.browser import free_port, wait_for_server

from fandle.core.errors import BadInputError
from fandle.store.errors import StoreError
from fandle.store.folder import home_folder
from fandle.web import serve


def test_a_second_server_on_the_folder_is_told_who_has_it(tmp_path: Path) -> None:
    first_port, second_port = free_port(), free_port()
    command = [sys.executable, "-m", "fandle.cli", "serve", "--port"]
    env = {"FANDLE_HOME": str(tmp_path), "PATH": "/usr/bin:/bin"}
    first = subprocess.Popen([*command, str(first_port)], env=env, text=True, stdout=subprocess.DEVNULL)
    try:
        wait_for_server(first, first_port)
        second = subprocess.run(
            [*command, str(second_port)], env=env, text=True, capture_output=True, timeout=60, check=False
        )
        assert second.returncode == 2
        assert (
            f"the server at http://127.0.0.1:{first_port}/ (process {first.pid}) uses this data folder" in second.stderr
        )
        for verb in (["export", "-"], ["backup", str(tmp_path / "copy.sqlite3")]):
            beside = subprocess.run(
                [sys.executable, "-m", "fandle.cli", *verb],
                env=env,
                text=True,
                capture_output=True,
                timeout=60,
                check=False,
            )
            assert beside.returncode == 0, beside.stderr
        refused = subprocess.run(
            [sys.executable, "-m", "fandle.cli", "restore", str(tmp_path / "copy.sqlite3")],
            env=env, text=True, capture_output=True, timeout=60, check=False,
        )  # fmt: skip
        assert refused.returncode == 2
        assert "stop it, then restore" in refused.stderr
    finally:
        first.terminate()
        first.wait(10)


def test_half_open_connections_are_closed_and_others_served(tmp_path: Path) -> None:
    port = free_port()
    code = (
        "import fandle.web.serve as s, fandle.web.wire as w, fandle.web.bodies as b; w.HEAD_S = b.BODY_S = 1.0; "
        f"s.run_server('127.0.0.1', {port}, demo=False, as_json=True)"
    )
    env = {"FANDLE_HOME": str(tmp_path), "PATH": "/usr/bin:/bin"}
    process = subprocess.Popen([sys.executable, "-c", code], env=env, stdout=subprocess.DEVNULL)
    try:
        wait_for_server(process, port)
        head = f"POST /api/answer HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Type: application/json\r\n"
        starts = [b"", b"GET / HT", head.encode(), (head + "Content-Length: 90\r\n\r\n{").encode()] * 20
        waiting = [socket.create_connection(("127.0.0.1", port), timeout=10) for _ in starts]
        for connection, text in zip(waiting, starts, strict=True):
            connection.sendall(text)
        began = time.monotonic()
        urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=1).close()
        ends = [_all(connection) for connection in waiting]
        assert time.monotonic() - began < 8
        assert ends[:3] == [b"", b"", b""]
        assert b"408" in ends[3].split(b"\r\n")[0]
        assert json.loads(ends[3].rpartition(b"\r\n\r\n")[2])["error"].startswith("the rest of the body did not come")
    finally:
        process.kill()
        process.wait(10)


def _all(connection: socket.socket) -> bytes:
    """Everything the server says until it closes."""
    parts = []
    with connection:
        while part := connection.recv(65536):
            parts.append(part)
    return b"".join(parts)


def test_a_folder_that_nobody_has_and_a_certificate_that_is_not_there(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setenv("FANDLE_HOME", "~nosuchuser/x")
    with pytest.raises(StoreError, match="a user nobody knows"):
        home_folder()
    monkeypatch.setenv("FANDLE_HOME", str(tmp_path))
    with pytest.raises(BadInputError, match="both --certificate and --key"):
        serve.run_server("127.0.0.1", free_port(), demo=False, as_json=False, certificate=tmp_path / "c.pem")
    with pytest.raises(BadInputError, match="check the file's name"):
        serve.run_server(
            "127.0.0.1", free_port(), demo=False, as_json=False, certificate=tmp_path / "c.pem", key=tmp_path / "k.pem"
        )


@pytest.mark.skipif(shutil.which("openssl") is None, reason="no openssl to make a certificate with")
def test_with_a_certificate_it_is_https_and_the_cookie_is_secure(tmp_path: Path) -> None:
    port, certificate, key = free_port(), tmp_path / "c.pem", tmp_path / "k.pem"
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=localhost",
         "-addext", "subjectAltName=IP:127.0.0.1,IP:127.0.0.2", "-keyout", str(key), "-out", str(certificate)],
        check=True, capture_output=True,
    )  # fmt: skip
    process = subprocess.Popen(
        [sys.executable, "-m", "fandle.cli", "serve", "--host", "127.0.0.2", "--port", str(port), "--json",
         "--certificate", str(certificate), "--key", str(key)],
        env={"FANDLE_HOME": str(tmp_path / "home"), "PATH": "/usr/bin:/bin"}, stdout=subprocess.PIPE, text=True,
    )  # fmt: skip
    try:
        assert process.stdout
        said = json.loads(process.stdout.readline())
        assert said["link"] == f"https://127.0.0.2:{port}/pass?code={said['pass']}"
        trusted = ssl.create_default_context(cafile=str(certificate))
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                phone = http.client.HTTPSConnection("127.0.0.2", port, context=trusted, timeout=10)
                phone.request("GET", "/api/health")
                break
            except ConnectionError:
                time.sleep(0.1)
        reply = phone.getresponse()
        assert (reply.status, "no pass" in reply.read().decode()) == (401, True)
        headers = {"Content-Type": "application/x-www-form-urlencoded", "Origin": f"https://127.0.0.2:{port}"}
        phone.request("POST", "/pass", f"code={said['pass']}&name=Tablet", headers)
        reply = phone.getresponse()
        reply.read()
        cookie = reply.headers["Set-Cookie"]
        assert "Secure" in cookie
        phone.request("GET", "/api/health", headers={"Cookie": cookie.partition(";")[0]})
        assert phone.getresponse().status == 200
        phone.close()
    finally:
        process.kill()
        process.communicate()


@pytest.mark.skipif(not Path("/proc/net/if_inet6").exists(), reason="no IPv6 on this machine")
def test_it_is_served_over_ipv6_too(tmp_path: Path) -> None:
    """`[::1]` is this machine, as 127.0.0.1 is; on `::` both kinds of address are answered."""
    for host, reached in (("::1", ["::1"]), ("::", ["::1", "127.0.0.1"])):
        port = free_port()
        process = subprocess.Popen(
            [sys.executable, "-m", "fandle.cli", "serve", "--host", host, "--port", str(port), "--json"],
            env={"FANDLE_HOME": str(tmp_path), "PATH": "/usr/bin:/bin"}, stdout=subprocess.PIPE, text=True,
        )  # fmt: skip
        try:
            assert process.stdout
            assert json.loads(process.stdout.readline())["address"].endswith(f":{port}/")
            for name in reached:
                deadline = time.monotonic() + 60
                while True:
                    try:
                        asked = http.client.HTTPConnection(name, port, timeout=10)
                        asked.request("GET", "/api/health")
                        break
                    except ConnectionError:
                        assert time.monotonic() < deadline
                        time.sleep(0.1)
                assert asked.getresponse().status == 200
                asked.close()
        finally:
            process.kill()
            process.communicate()
