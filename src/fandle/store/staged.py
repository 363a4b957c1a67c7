"""What is taken in waits in a file of its own until all of it is checked; then it is kept in one go, or not at all."""

import json
from collections.abc import Iterator
from contextlib import suppress
from tempfile import TemporaryFile
from typing import IO, Any

from fandle.store.errors import StoreError


class Staged:
    """Records in the order in which they came, each a JSON object on a line. Nothing of it outlives the process."""

    def __init__(self) -> None:
        self._file: IO[bytes] = TemporaryFile()  # noqa: SIM115 (closed by `close`)  # noqa: SIM115 (closed by `close`)
        self.count = 0

    def add(self, record: dict[str, Any]) -> None:
        """One more. Raises StoreError where there is no room for it."""
        try:
            self._file.write(json.dumps(record).encode() + b"\n")
        except OSError as fault:
            raise _no_room(fault) from None
        self.count += 1

    def __iter__(self) -> Iterator[dict[str, Any]]:
        try:
            self._file.seek(0)
        except OSError as fault:  # the last of it is written only now
            raise _no_room(fault) from None
        for line in self._file:
            yield json.loads(line)

    def close(self) -> None:
        """Let go of it; what is not written yet needs no room any more."""
        with suppress(OSError):
            self._file.close()


def _no_room(fault: OSError) -> StoreError:
    return StoreError(f"nothing was saved ({fault.strerror}): free some space on the disk, then try again")
