"""Solving for many clients at once: as many solvers as cores, two queues, a budget a request.

Work comes in steps (`core.steps`). A solver takes steps for a few milliseconds, then gives way: quick work, which a
drag waits for, goes before long work. What waits is bounded; work whose client has left is dropped.
"""

import asyncio
import os
import time
from collections import deque
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any, TypeVar

from starlette.requests import Request

from fandle.core.errors import BadInputError, FandleError
from fandle.core.steps import Steps

T = TypeVar("T")
SLICE_S = 0.006  # a solver gives way after this much work
BUDGET_S = 10.0  # of work for one request
MOST_QUICK, MOST_LONG = 64, 32  # requests under way or waiting
RETRY_S = 1  # what a client is told to wait when all is full


class BusyError(FandleError):
    """Too many questions at once: the same one can be asked again in a moment."""


class ClientGoneError(FandleError):
    """Whoever asked has left; nobody reads the answer."""


@dataclass
class _Slots:
    """Who may solve now. Those who wait for quick work go first."""

    free: int
    quick: deque[asyncio.Future[None]] = field(default_factory=deque)
    long: deque[asyncio.Future[None]] = field(default_factory=deque)

    async def take(self, quick: bool) -> None:
        """A solver, when one is free."""
        if self.free > 0:
            self.free -= 1
            return
        mine: asyncio.Future[None] = asyncio.get_running_loop().create_future()
        (self.quick if quick else self.long).append(mine)
        try:
            await mine
        except asyncio.CancelledError:
            if mine.done() and not mine.cancelled():  # it was given to us in that very moment
                self.give()
            raise

    def give(self) -> None:
        """Hand the solver on."""
        for queue in (self.quick, self.long):
            while queue:
                waiting = queue.popleft()
                if not waiting.done():
                    waiting.set_result(None)
                    return
        self.free += 1


class Works:
    """The solvers of one server."""

    def __init__(self, solvers: int | None = None, budget: float = BUDGET_S) -> None:
        count = solvers or os.cpu_count() or 1
        self.budget = budget
        self._pool = ThreadPoolExecutor(count, "solver")
        self._slots = _Slots(count)
        self._under_way = {True: 0, False: 0}

    async def run(self, request: Request, steps: Steps[T], quick: bool = True) -> T:
        """What the steps come to. Raises BusyError where the queue is full, BadInputError where it is too much."""
        if self._under_way[quick] >= (MOST_QUICK if quick else MOST_LONG):
            raise BusyError("too many questions at once: ask again in a moment")
        self._under_way[quick] += 1
        try:
            return await self._drive(request, steps, quick)
        finally:
            self._under_way[quick] -= 1
            steps.close()

    async def _drive(self, request: Request, steps: Steps[T], quick: bool) -> T:
        spent, loop = 0.0, asyncio.get_running_loop()
        while True:
            await self._slots.take(quick)
            try:
                if await request.is_disconnected():
                    raise ClientGoneError("the client has left")
                slice_ = asyncio.ensure_future(loop.run_in_executor(self._pool, _slice, steps))
                try:
                    done, value, took = await asyncio.shield(slice_)
                except asyncio.CancelledError:
                    with suppress(Exception):  # the thread has the steps until the slice ends
                        await slice_
                    raise
            finally:
                self._slots.give()
            if done:
                result: T = value
                return result
            spent += took
            if spent > self.budget:
                raise BadInputError("too much asked at once: choose fewer rails, or take balls off", "count")

    def close(self) -> None:
        """No more work."""
        self._pool.shutdown(wait=False, cancel_futures=True)


def _slice(steps: Steps[Any]) -> tuple[bool, Any, float]:
    """Steps for a few milliseconds: (done, what they come to, seconds)."""
    start = time.perf_counter()
    while True:
        try:
            next(steps)
        except StopIteration as done:
            return True, done.value, time.perf_counter() - start
        took = time.perf_counter() - start
        if took > SLICE_S:
            return False, None, took


def works_of(request: Request) -> Works:
    """The server's solvers."""
    works: Works = request.app.state.works
    return works
