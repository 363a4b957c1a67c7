"""A task: long work with what is known of it, what it comes to, an end to it, and a budget.

steps (of core and app) -> Task -> whoever drives it: solvers of a server, the command line, a notebook, a test
"""

import time
from typing import Generic, TypeVar

from fandle.core.errors import BadInputError
from fandle.core.steps import Telling, keeping

Progress = TypeVar("Progress")
Result = TypeVar("Result")


class TaskError(RuntimeError):
    """A task was asked for a result that it does not have: a mistake in the program."""


class Task(Generic[Progress, Result]):
    """Long work that is done a slice at a time.

    progress: what it told last, None before it told anything. spent_s: seconds of a core that it took; waiting for a
    turn on a busy machine does not count. budget_s: as much as it may take, None for no bound.
    """

    def __init__(self, steps: Telling[Progress, Result], budget_s: float | None = None) -> None:
        self.progress: Progress | None = None
        self.spent_s = 0.0
        self.budget_s = budget_s
        self._results: list[Result] = []
        self._steps = keeping(steps, self._results)

    @property
    def done(self) -> bool:
        """Has it come to something?"""
        return bool(self._results)

    @property
    def result(self) -> Result:
        """What it came to. Raises TaskError before that."""
        if not self._results:
            raise TaskError("the task has no result yet: work on it until it is done")
        return self._results[0]

    def work(self, most_s: float) -> bool:
        """Steps until something is told, the time is up, or it is done. Returns whether something was told.

        Raises BadInputError where more than its budget is spent.
        """
        began, worked, before = time.perf_counter(), time.thread_time(), self.spent_s
        for told in self._steps:
            self.spent_s = before + time.thread_time() - worked
            if self.budget_s is not None and self.spent_s > self.budget_s:
                raise BadInputError(
                    "too much asked at once: choose fewer rails, or take balls off", "count", code="too_much"
                )
            if told is not None:
                self.progress = told
                return True
            if time.perf_counter() - began > most_s:
                return False
        self.spent_s = before + time.thread_time() - worked
        if not self.done:
            raise TaskError("the task was stopped: it has no result")
        return False

    def finish(self) -> Result:
        """All of it, and what it comes to."""
        while not self.done:
            self.work(float("inf"))
        return self.result

    def stop(self) -> None:
        """No more steps. Raises ValueError while another thread works on it."""
        self._steps.close()
