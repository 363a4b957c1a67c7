"""Start the server in the foreground."""

import json
import socket
import sys
from pathlib import Path
from typing import TYPE_CHECKING

import typer

from fandle.core.errors import BadInputError
from fandle.core.physics import kernel_folder
from fandle.store.folder import home_folder, open_to_others, told_open
from fandle.store.serving import serving
from fandle.web.place import Place
from fandle.web.settings import LOOPBACK, Settings
from fandle.web.stand_in import stand_in
from fandle.work.compiling import compile_meanwhile
from fandle.work.progress import ABOUT, bar, percent

if TYPE_CHECKING:
    from fandle.web.devices import Devices

BACKLOG = 128  # connections that may wait to be taken
EVERYWHERE = ("0.0.0.0", "::")


def run_server(
    host: str, port: int, *, demo: bool, as_json: bool, certificate: Path | None = None, key: Path | None = None
) -> None:
    """Serve until interrupted; prints the address first, and for other devices a pass."""
    home, scheme = home_folder(), _scheme(certificate, key)
    was_open = open_to_others(home)
    beyond = host not in LOOPBACK
    # whoever lets other devices in also reaches this page from the machine itself
    names = (host,) if not beyond or host in EVERYWHERE else (host, LOOPBACK[1])
    sockets = [_listening(name, port) for name in names]
    shown = _outside(host) if beyond else host
    url = f"{scheme}://{f'[{shown}]' if ':' in shown else shown}:{port}"
    hosts = (host,) if beyond and host not in EVERYWHERE else ()
    settings = Settings(home, demo, beyond, url if beyond else None, hosts, secure=scheme == "https")
    place = Place(settings, sockets, certificate, key)
    secrets = place.secrets()  # a mistake in them is told before anything is started
    try:
        with serving(home, url + "/"), stand_in(place, wanted=not beyond and not kernel_folder.ready()) as relieve:
            if relieve is not None:
                _say(url, None, as_json=as_json)
                compile_meanwhile(quiet=as_json)
            from fandle.web.app import create_app  # all there is: seconds for which nobody should wait
            from fandle.web.running import run

            app = create_app(settings, bar if sys.stderr.isatty() else percent)
            if told := told_open(home, before=was_open):
                typer.echo(f"Beware: {told}.", err=True)
            if not kernel_folder.ready() and not as_json:
                typer.echo(f"Fandle is {ABOUT}.", err=True)
            if relieve is None:
                _say(url, app.state.devices if beyond else None, as_json=as_json)
            run(app, sockets, secrets, relieve or (lambda: None))
    finally:
        for each in sockets:
            each.close()


def _say(url: str, devices: "Devices | None", *, as_json: bool) -> None:
    if devices is None:
        typer.echo(json.dumps({"address": f"{url}/"}) if as_json else f"Fandle is at {url}/")
        return
    from fandle.web.devices import spaced
    from fandle.web.gate import door_link

    link = door_link(url, devices.code)
    if as_json:
        typer.echo(json.dumps({"address": f"{url}/", "pass": devices.code, "link": link}))
        return
    port = url.rpartition(":")[2]
    typer.echo(f"Fandle is at {url.partition(':')[0]}://{LOOPBACK[1]}:{port}/ on this machine,")
    typer.echo(f"and at {url}/ for devices with a pass. This one works once: {spaced(devices.code)}")
    typer.echo(f"Scan this, or open {link}")
    import segno

    segno.make(link, error="m").terminal(compact=True)
    typer.echo("More passes: on this machine, Club, Another device.")


def _scheme(certificate: Path | None, key: Path | None) -> str:
    if (certificate is None) != (key is None):
        raise BadInputError("HTTPS needs both --certificate and --key: give the other one, too", "certificate")
    for path in (certificate, key):
        if path is not None and not path.is_file():
            raise BadInputError(f"cannot read {str(path)!r}: check the file's name", "certificate", code="no_file")
    return "http" if certificate is None else "https"


def _listening(host: str, port: int) -> socket.socket:
    """A socket that listens there."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listener = socket.socket(family)
    try:
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listener.bind((host, port))
        listener.listen(BACKLOG)
    except OSError as fault:
        listener.close()
        raise BadInputError(
            f"cannot listen on {host}:{port} ({fault.strerror}): choose another port with --port or PORT=…"
        ) from None
    return listener


def _outside(host: str) -> str:
    """The address at which other devices reach this machine."""
    if host not in EVERYWHERE:
        return host
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))  # a documentation address: only the route is looked up, nothing is sent
            return str(probe.getsockname()[0])
        except OSError:
            return socket.gethostname()
