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
