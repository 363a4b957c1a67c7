"""One application on its sockets until it is told to stop."""

import socket
import ssl
import sys
from collections.abc import Callable, Sequence

import uvicorn
from fastapi import FastAPI

from fandle.web.wire import door

KEEP_ALIVE_S = 30  # between two requests of one connection
SWITCH_S = 0.001  # a solver in Python gives way to pages and files after this long; the default is five times that


class Server(uvicorn.Server):
    """A server that says when it answers."""

    def __init__(self, config: uvicorn.Config, up: Callable[[], object]) -> None:
        super().__init__(config)
        self.up = up

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """Begin to take connections."""
        await super().startup(sockets)
        self.up()


def server_of(app: FastAPI, secrets: ssl.SSLContext | None, up: Callable[[], object] = lambda: None) -> Server:
    """The server of an application; up: called once it answers."""
    config = uvicorn.Config(
        app, log_level="warning", timeout_graceful_shutdown=2, http=door(secrets), ws="none",
        loop="auto" if secrets is None else "asyncio",  # uvloop reads on when asked to wait for TLS

        timeout_keep_alive=KEEP_ALIVE_S, proxy_headers=False, server_header=False,
    )  # fmt: skip
    return Server(config, up)


def run(
    app: FastAPI, sockets: Sequence[socket.socket], secrets: ssl.SSLContext | None, up: Callable[[], object]
) -> None:
    """Serve until interrupted."""
    sys.setswitchinterval(SWITCH_S)
    server_of(app, secrets, up).run(sockets=list(sockets))
