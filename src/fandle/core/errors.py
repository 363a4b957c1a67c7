"""What can be wrong with a question. Each says the value, then the remedy, in one sentence."""


class FandleError(Exception):
    """Root of all errors of the trade. `code` is a short word for programs, which read no sentence."""

    code = "failed"


class BadInputError(FandleError):
    """The question cannot be understood or is impossible.

    code: what is wrong, in a word; field: the part at fault; balls: the ids of those meant.
    """

    def __init__(self, message: str, field: str = "", *, code: str = "invalid", balls: tuple[str, ...] = ()) -> None:
        super().__init__(message)
        self.field = field
        self.code = code
        self.balls = balls

    def at(self, place: str) -> "BadInputError":
        """The same fault with the place it was found in put before its sentence."""
        return BadInputError(f"{place}: {self}", self.field, code=self.code, balls=self.balls)


class EngineError(FandleError):
    """The engine gave up on a shot; it never loops without end."""

    code = "engine"


def check_text(text: str, field: str) -> None:
    """Refuse text that cannot be written down: half a surrogate pair, as a broken escape leaves it."""
    if any("\ud800" <= character <= "\udfff" for character in text):
        raise BadInputError(
            "the text holds half a character, which cannot be kept: type it again", field, code="unwritable"
        )
