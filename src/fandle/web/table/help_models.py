"""What the Table room says of a line besides its mark."""

from typing import Literal

from typing_extensions import TypedDict


class Help(TypedDict):
    """Something to keep an eye on besides the mark: what, and where."""

    kind: Literal["back", "ahead", "contact", "pocket", "jaw"]
    name: str
    text: str


class OwnMark(TypedDict):
    """The aim in the numbers of the system that counts it."""

    system: str
    say: str
