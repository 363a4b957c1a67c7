"""What can be wrong with a question. Each says the value, then the remedy, in one sentence."""


class FandleError(Exception):
    """Root of all errors of the trade."""


class BadInputError(FandleError):
    """The question cannot be understood or is impossible; `field` names the part at fault."""

    def __init__(self, message: str, field: str = "") -> None:
        super().__init__(message)
        self.field = field


class EngineError(FandleError):
    """The engine gave up on a shot; it never loops without end."""


def check_text(text: str, field: str) -> None:
    """Refuse text that cannot be written down: half a surrogate pair, as a broken escape leaves it."""
    if any("\ud800" <= character <= "\udfff" for character in text):
        raise BadInputError("the text holds half a character, which cannot be kept: type it again", field)
