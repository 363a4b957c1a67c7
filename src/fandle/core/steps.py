"""Long work in small steps, so that whoever drives it can give way between two of them, stop it, or bound it."""

from collections.abc import Callable, Generator
from typing import TypeVar

P = TypeVar("P")
Q = TypeVar("Q")
T = TypeVar("T")
Steps = Generator[None, None, T]  # that tell nothing on the way
Telling = Generator[P | None, None, T]  # that tell what is known on the way, None where nothing is new


def keeping(steps: Generator[P, None, T], results: list[T]) -> Generator[P, None, None]:
    """The same steps; at their end what they come to is put into `results`."""
    results.append((yield from steps))


def finish(steps: Generator[object, None, T]) -> T:
    """All steps one after the other, and what they come to."""
    results: list[T] = []
    for _ in keeping(steps, results):
        pass
    return results[0]


def relay(steps: Telling[P, T], say: Callable[[P], Q | None]) -> Telling[Q, T]:
    """The same steps, what they tell put into other terms; nothing is told where `say` returns None."""
    results: list[T] = []
    for told in keeping(steps, results):
        yield None if told is None else say(told)
    return results[0]


def quietly(steps: Telling[P, T]) -> Steps[T]:
    """The same steps without what is told on the way."""
    results: list[T] = []
    for _ in keeping(steps, results):
        yield
    return results[0]


def at_once(work: Callable[[], T]) -> Steps[T]:
    """Short work as a single step."""
    yield
    return work()
