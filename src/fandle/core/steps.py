"""Long work in small steps, so that whoever drives it can give way between two of them, stop it, or bound it."""

from collections.abc import Callable, Generator
from typing import TypeVar

T = TypeVar("T")
Steps = Generator[None, None, T]


def finish(steps: Generator[object, None, T]) -> T:
    """All steps one after the other, and what they come to."""
    while True:
        try:
            next(steps)
        except StopIteration as done:
            value: T = done.value
            return value


def quietly(steps: Generator[object, None, T]) -> Steps[T]:
    """The same steps without what is told on the way."""
    while True:
        try:
            next(steps)
        except StopIteration as done:
            value: T = done.value
            return value
        yield


def at_once(work: Callable[[], T]) -> Steps[T]:
    """Short work as a single step."""
    yield
    return work()
