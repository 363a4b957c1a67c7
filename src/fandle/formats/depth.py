"""How deep and how long JSON is, looked at before it is parsed: parsers grow with every bracket that opens, and break.

`[[[[…` of 3 MB made 21 GB of a reader that keeps the way down to where it is. A file of ours is nested eight deep.
"""

import re
from io import BufferedIOBase
from typing import BinaryIO

import numpy as np

from fandle.core.errors import BadInputError

DEEPEST = 20  # brackets within one another
LONGEST = 256_000  # bytes of one element of a file's list; an attempt with its own table has 4,000
LONGEST_LINE = 256_000  # bytes of one line of a file that is no JSON
TOP = 2  # brackets around the elements of a file's list: {"attempts": [
MOST_DIGITS = 1_000  # of one number: a parser in C is killed by a few thousand
READ = 65_536  # bytes looked at in one go

# a whole text, or one whose end has not come yet; what closes it is kept
_TEXT = re.compile(rb'"[^"\\]*+(?:\\.[^"\\]*+)*+("|\\?\Z)', re.DOTALL)
_DIGITS = b"0123456789"
_LONG = re.compile(rb"[0-9]{%d,}" % (MOST_DIGITS + 1))
_OTHERS = bytes(set(range(256)) - set(b"[]{}"))
_OPENS = np.zeros(256, dtype=np.int32)
_OPENS[list(b"[{")], _OPENS[list(b"]}")] = 1, -1


class Depth:
    """How deep JSON is nested at every moment, part by part. Brackets within texts do not count."""

    def __init__(self) -> None:
        self.now = self.deepest = 0
        self.digits = 0  # of the longest number so far
        self._number = b""  # the digits with which the last part ended
        self.long = 0  # bytes since the brackets were last closed as far as TOP
        self._open = b""  # what makes the next part a continued text

    def add(self, part: bytes) -> None:
        """The next bytes."""
        pieces = _TEXT.split(self._open + part)
        closed = pieces[-2] if len(pieces) > 1 else b'"'
        self._open = b"" if closed == b'"' else b'"' + closed
        bare = b"".join(pieces[::2])
        self._count_digits(bare)
        brackets = bare.translate(None, _OTHERS)
        if not brackets:
            self.long += len(part)
            return
        levels = self.now + _OPENS[np.frombuffer(brackets, dtype=np.uint8)].cumsum()
        self.now, self.deepest = int(levels[-1]), max(self.deepest, int(levels.max()))
        self.long = 0 if levels.min() <= TOP else self.long + len(part)

    def _count_digits(self, bare: bytes) -> None:
        bare = self._number + bare
        self.digits = max(self.digits, max(map(len, _LONG.findall(bare)), default=0))
        self._number = bare[len(bare.rstrip(_DIGITS)) :][-MOST_DIGITS - 1 :]


def check_depth(data: bytes) -> None:
    """Refuse JSON that is nested deeper than any file of ours."""
    depth = Depth()
    for start in range(0, len(data), READ):
        depth.add(data[start : start + READ])
        _check(depth)


def _check(depth: Depth) -> None:
    if depth.deepest > DEEPEST:
        raise BadInputError(
            f"this is nested more than {DEEPEST} brackets deep: no file of Fandle is; check the file", code="too_deep"
        )
    if depth.digits > MOST_DIGITS:
        raise BadInputError(
            f"this holds a number of more than {MOST_DIGITS} digits: give it as it is measured", code="too_large"
        )


class Measured(BufferedIOBase):
    """A file that is looked at while it is read on; raises BadInputError before it is deeper or longer than ours."""

    def __init__(self, file: BinaryIO, *, lines: bool = False) -> None:
        super().__init__()
        self.file, self.lines, self.depth, self.long = file, lines, Depth(), 0

    def readable(self) -> bool:
        """It is."""
        return True

    def read(self, size: int | None = -1, /) -> bytes:
        """The next bytes: never more than one look's worth."""
        part = self.file.read(READ if size is None or size < 0 else min(size, READ))
        if self.lines:
            end = part.rfind(b"\n")
            self.long = self.long + len(part) if end < 0 else len(part) - end - 1
        else:
            self.depth.add(part)
            _check(self.depth)
            self.long = self.depth.long
        if self.long > (LONGEST_LINE if self.lines else LONGEST):
            raise BadInputError(
                f"one entry is longer than {LONGEST:,} bytes: no entry of Fandle is; export the file again",
                code="too_large",
            )
        return part

    read1 = read
