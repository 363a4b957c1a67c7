"""Names that people give: in any script, and nothing in them that cannot be seen or that turns the text around it."""

import unicodedata

from fandle.core.errors import BadInputError

LONGEST_NAME = 60  # characters
JOINERS = "\u200c\u200d"  # Persian words and Indian letters need them, and so do some pictures
BLANK = "\u115f\u1160\u3164\uffa0\u2800\u034f\u17b4\u17b5"  # letters and marks that draw nothing
PATHS = (".", "..")  # a browser takes these out of an address


def clean_name(text: str, field: str = "name") -> str:
    """The name in NFC, without blanks around it. Raises BadInputError for one that cannot be seen as it is.

    Refused are control characters, blanks that draw nothing, and marks that turn the direction of writing
    (Unicode's categories Cc, Cf, Co, Cs, Cn, Zl, Zp). A joiner may stand between two characters beyond ASCII.
    """
    name = unicodedata.normalize("NFC", text).strip()
    if not name:
        raise BadInputError("a name needs a character that can be seen: type one", field, code="no_name")
    if len(name) > LONGEST_NAME:
        raise BadInputError(f"a name has at most {LONGEST_NAME} characters: shorten it", field, code="too_long")
    if name in PATHS:
        raise BadInputError(f"{name!r} is no name: choose another one", field, code="no_name")
    for place, character in enumerate(name):
        if _unseen(name, place):
            raise BadInputError(
                f"a name holds a character that cannot be seen (U+{ord(character):04X}): type it again", field,
                code="unseen",
            )  # fmt: skip
    return name


def _unseen(name: str, place: int) -> bool:
    character = name[place]
    if character in JOINERS:
        beside = (*name[max(place - 1, 0) : place], *name[place + 1 : place + 2])
        return len(beside) < 2 or any(each.isascii() or each in JOINERS for each in beside)
    kind = unicodedata.category(character)
    return kind[0] == "C" or kind in ("Zl", "Zp") or (kind == "Zs" and character != " ") or character in BLANK


def other_name(name: str, more: str) -> str:
    """A name with what tells it from another in brackets, no longer than a name may be."""
    return f"{name[: LONGEST_NAME - len(more) - 3].rstrip()} ({more})"
