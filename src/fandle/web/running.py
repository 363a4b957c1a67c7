"""One application on its sockets until it is told to stop."""

import asyncio
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
    """A server that says when it answers, and hears out who is connected before it goes where another one follows."""

    def __init__(self, config: uvicorn.Config, up: Callable[[], object], hears_out_s: float) -> None:
        super().__init__(config)
        self.up, self.hears_out_s = up, hears_out_s

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """Begin to take connections."""
        await super().startup(sockets)
        self.up()

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        """Take no more connections, then end."""
        for each in self.servers:
            each.close()
        await asyncio.sleep(self.hears_out_s)  # a request that is on its way is not cut off
        await super().shutdown(sockets)


def server_of(
    app: FastAPI, secrets: ssl.SSLContext | None, up: Callable[[], object] = lambda: None, hears_out_s: float = 0.0
) -> Server:
    """The server of an application; up: called once it answers; hears_out_s: for which it does so before it goes."""
    config = uvicorn.Config(
        app, log_level="warning", timeout_graceful_shutdown=2, http=door(secrets), ws="none",
        loop="auto" if secrets is None else "asyncio",  # uvloop reads on when asked to wait for TLS

        timeout_keep_alive=KEEP_ALIVE_S, proxy_headers=False, server_header=False,
    )  # fmt: skip
    return Server(config, up, hears_out_s)


def run(
    app: FastAPI, sockets: Sequence[socket.socket], secrets: ssl.SSLContext | None, up: Callable[[], object]
) -> None:
    """Serve until interrupted."""
    sys.setswitchinterval(SWITCH_S)
    server_of(app, secrets, up).run(sockets=list(sockets))
