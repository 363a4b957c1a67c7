"""Where a server stands."""

import socket
import ssl
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from fandle.core.errors import BadInputError
from fandle.web.settings import Settings


@dataclass(frozen=True)
class Place:
    """Where a server stands: its settings, the sockets that listen, and for HTTPS the files it speaks with."""

    settings: Settings
    sockets: Sequence[socket.socket]
    certificate: Path | None = None
    key: Path | None = None

    def secrets(self) -> ssl.SSLContext | None:
        """What HTTPS is spoken with. Raises BadInputError for files that are no certificate and key."""
        return _tls(self.certificate, self.key)


def _tls(certificate: Path | None, key: Path | None) -> ssl.SSLContext | None:
    """What HTTPS is spoken with. Raises BadInputError for files that are no certificate and key."""
    if certificate is None or key is None:
        return None
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    try:
        context.load_cert_chain(certificate, key)
    except (OSError, ssl.SSLError) as fault:
        raise BadInputError(
            f"{certificate} and {key} are no certificate and its key ({fault}): give both as PEM files", "certificate"
        ) from None
    return context
