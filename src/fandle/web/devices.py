"""Devices beyond this machine: each exchanges a one-time pass for a cookie of its own, and can be sent away."""

import asyncio
import hashlib
import secrets
import threading
from dataclasses import dataclass

from starlette.concurrency import run_in_threadpool

from fandle.core.errors import BadInputError, FandleError
from fandle.core.words.names import clean_name
from fandle.store import devices as kept
from fandle.store.database import Database

COOKIE = "fandle_device"
ALPHABET = "abcdefghjkmnpqrstuvwxyz23456789"  # nothing that can be mistaken for another when it is typed
LENGTH = 10  # characters of a pass: 49 bits
FIRST_WAIT_S, LONGEST_WAIT_S = 0.25, 8.0  # after a wrong pass, doubled with each
MOST_WAITING = 8  # devices trying at once


class TooManyTriesError(FandleError):
    """Wrong passes come faster than they are looked at."""


@dataclass(frozen=True)
class Entered:
    """A device that has just been let in: the token its cookie carries."""

    token: str
    name: str


class Devices:
    """Who may come in from beyond this machine."""

    def __init__(self, database: Database) -> None:
        self.database = database
        self.code = _fresh_code()
        self._lock = threading.Lock()
        self._door = asyncio.Lock()
        self._waiting = 0
        self._wrong = 0
        self._known = {device.secret for device in kept.devices(database)}

    def knows(self, token: str) -> bool:
        """Is this the cookie of a device that was let in and not sent away?"""
        return bool(token) and _hash(token) in self._known

    async def enter(self, code: str, name: str) -> Entered:
        """Let a device in for the pass; it is used up. A wrong one is looked at ever more slowly."""
        if self._waiting >= MOST_WAITING:
            raise TooManyTriesError("too many tries at once: wait a minute, then try again")
        self._waiting += 1
        try:
            async with self._door:
                if self._wrong:
                    await asyncio.sleep(min(FIRST_WAIT_S * 2**self._wrong, LONGEST_WAIT_S))
                given = "".join(c for c in code.lower() if c in ALPHABET)
                if not secrets.compare_digest(given, self.code):
                    self._wrong = min(self._wrong + 1, 10)
                    raise BadInputError("that is not the pass: look again at the screen that shows it", "code")
                self._wrong = 0
                self.code = _fresh_code()
                return await run_in_threadpool(self._let_in, name)
        finally:
            self._waiting -= 1

    def _let_in(self, name: str) -> Entered:
        token = secrets.token_urlsafe(32)
        try:
            called = clean_name(name)
        except BadInputError:  # a name is a convenience here: nobody is kept out for it
            called = "Device"
        kept.add_device(self.database, called, _hash(token))
        with self._lock:
            self._known = {*self._known, _hash(token)}
        return Entered(token, called)

    def send_away(self, device: int) -> str:
        """From now on this device is a stranger again."""
        gone = kept.remove_device(self.database, device)
        with self._lock:
            self._known = self._known - {gone.secret}
        return gone.name


def spaced(code: str) -> str:
    """A pass as it is read aloud: two groups."""
    return f"{code[:5]} {code[5:]}"


def _fresh_code() -> str:
    return "".join(secrets.choice(ALPHABET) for _ in range(LENGTH))


def _hash(token: str) -> str:
    """What is kept of a token: it cannot be turned back into a cookie."""
    return hashlib.sha256(token.encode()).hexdigest()
