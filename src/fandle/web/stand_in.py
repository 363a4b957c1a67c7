"""The first minute: a server in plain Python answers on the sockets until one with compiled kernels takes them over.

the command:  listens, starts this server, has the kernels compiled, then serves itself
this server:  answers what one aim answers, until its standard input is closed
the compiler: `python -m fandle.work.warm`; how far it is stands in the kernels' folder
"""

import json
import os
import socket
import subprocess
import sys
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import asdict
from pathlib import Path

from fandle.web.place import Place
from fandle.web.settings import Settings

HEARS_OUT_S = 2.0  # requests that are on their way when it is relieved
GIVES_UP_S = 8.0  # after which one that does not end by itself is ended


@contextmanager
def stand_in(place: Place, *, wanted: bool) -> Iterator[Callable[[], None] | None]:
    """A stand-in while the block lasts, or until what is yielded is called; None where none is wanted or possible."""
    if not wanted or os.name != "posix":
        yield None
        return
    fds = [each.fileno() for each in place.sockets]
    told = {
        "fds": fds, "settings": asdict(place.settings),
        "certificate": place.certificate, "key": place.key,
    }  # fmt: skip
    with subprocess.Popen(
        [sys.executable, "-m", "fandle.web.stand_in", json.dumps(told, default=str)],
        stdin=subprocess.PIPE, pass_fds=fds, env={**os.environ, "NUMBA_DISABLE_JIT": "1"},
    ) as process:  # fmt: skip

        def relieve() -> None:
            if process.stdin is not None:
                process.stdin.close()

        try:
            yield relieve
        finally:
            relieve()
            try:
                process.wait(GIVES_UP_S)
            except subprocess.TimeoutExpired:
                process.kill()


def main(told: str) -> None:
    """Serve until standard input is closed: by whoever takes over, or because they are gone."""
    from fandle.web.app import create_app
    from fandle.web.running import SWITCH_S, server_of

    data = json.loads(told)
    given = data["settings"]
    settings = Settings(**{**given, "home": Path(given["home"]), "hosts": tuple(given["hosts"])})
    files = [None if data[name] is None else Path(data[name]) for name in ("certificate", "key")]
    place = Place(settings, [socket.socket(fileno=fd) for fd in data["fds"]], *files)
    server = server_of(create_app(settings), place.secrets(), hears_out_s=HEARS_OUT_S)

    def watch() -> None:
        sys.stdin.buffer.read()
        server.should_exit = True

    threading.Thread(target=watch, name="relief", daemon=True).start()
    sys.setswitchinterval(SWITCH_S)
    server.run(sockets=list(place.sockets))


if __name__ == "__main__":
    main(sys.argv[1])
