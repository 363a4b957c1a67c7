"""Start the server in the foreground."""

import json
import socket

import typer
import uvicorn

from fandle.core.errors import BadInputError
from fandle.web.app import create_app
from fandle.web.settings import from_environment


def run_server(host: str, port: int, demo: bool, as_json: bool) -> None:
    """Serve until interrupted; prints the address first."""
    app = create_app(from_environment(demo))
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    with socket.socket(family) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError as fault:
            raise BadInputError(
                f"cannot listen on {host}:{port} ({fault.strerror}): choose another port with --port or PORT=…"
            ) from None
    address = f"http://{host}:{port}/"
    typer.echo(json.dumps({"address": address}) if as_json else f"Fandle is at {address}")
    uvicorn.run(app, host=host, port=port, log_level="warning", timeout_graceful_shutdown=2)
