"""What can be wrong with the data folder or the database in it."""

from dataclasses import dataclass

from fandle.core.errors import FandleError


class StoreError(FandleError):
    """The database cannot be used; the sentence says what to do. Nothing was changed."""


class BusyStoreError(StoreError):
    """Another program holds the database: the same will do in a moment."""


class NotFoundError(FandleError):
    """What was asked for is not in the database."""


class NameTakenError(FandleError):
    """The name is in use."""


class ChangedError(FandleError):
    """The record was changed by somebody else since it was read; nothing was written over."""


@dataclass(frozen=True)
class Unreadable:
    """A record whose JSON is broken: kept as it is, shown as such."""

    text: str
