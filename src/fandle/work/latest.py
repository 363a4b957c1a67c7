"""The latest answers, so that whoever asks again is answered at once."""

import threading
from collections import OrderedDict
from typing import Generic, TypeVar

T = TypeVar("T")
MOST = 200


class Latest(Generic[T]):
    """The latest answers by what they depend on: a table that changes is another, so nothing has to be forgotten."""

    def __init__(self, most: int = MOST) -> None:
        self._found: OrderedDict[tuple[object, ...], T] = OrderedDict()
        self._most, self._lock = most, threading.Lock()

    def get(self, key: tuple[object, ...]) -> T | None:
        """What was put there, if it is there still."""
        with self._lock:
            if key in self._found:
                self._found.move_to_end(key)
            return self._found.get(key)

    def put(self, key: tuple[object, ...], value: T) -> T:
        """Put an answer there; the one asked for longest ago gives way."""
        with self._lock:
            self._found[key] = value
            if len(self._found) > self._most:
                self._found.popitem(last=False)
        return value
