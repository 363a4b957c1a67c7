"""The plans told last: whoever comes back to a position (Back, undo, a reload) finds its list at once."""

from collections import OrderedDict
from collections.abc import Hashable
from threading import Lock

MOST = 24  # plans; each is up to 150 kB of text


class PlanCache:
    """The last line of each of the latest plans, by all that they were asked with."""

    def __init__(self, most: int = MOST) -> None:
        self.most = most
        self._lines: OrderedDict[Hashable, str] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Hashable) -> str | None:
        """The plan of that question, if it is here; it stays longer for having been asked for."""
        with self._lock:
            if key not in self._lines:
                return None
            self._lines.move_to_end(key)
            return self._lines[key]

    def put(self, key: Hashable, line: str) -> None:
        """Keep a plan, and let go of the one that was asked for longest ago."""
        with self._lock:
            self._lines[key] = line
            self._lines.move_to_end(key)
            while len(self._lines) > self.most:
                self._lines.popitem(last=False)
