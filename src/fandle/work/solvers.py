"""Solving for many clients at once: as many solvers as cores, two queues, a budget a request.

Work is a task (`work.task`). Quick work, which a drag waits for, goes first and is mostly done in one go; a
solver takes steps of long work for a few milliseconds, then gives way. What waits is bounded; work whose client has
left is dropped.
"""

import asyncio
import os
import threading
from collections import deque
from collections.abc import AsyncIterator, Awaitable, Callable
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from dataclasses import dataclass, field
from functools import partial
from typing import Any, Never, TypeVar

from anyio import to_thread

from fandle.core.errors import FandleError
from fandle.core.steps import Steps, Telling
from fandle.work.task import Task

T = TypeVar("T")
P = TypeVar("P")
Gone = Callable[[], Awaitable[bool]]
PATIENCE_S = 0.1  # for which a slice of long work waits for pages and files
NICE = 5  # of the solvers' threads
SLICE_S = 0.006  # a solver gives way after this much long work
QUICK_SLICE_S = 0.1  # and of quick work: on a busy machine, too, an answer is done in one go, in its turn
BUDGET_S = 10.0  # of a core's time for one request
MOST_QUICK, MOST_LONG = 64, 32  # requests under way or waiting
READERS = 1  # questions read at once, so that a crowd of them leaves the pages their turn
RETRY_S = 1  # what a client is told to wait when all is full


class BusyError(FandleError):
    """Too many questions at once: the same one can be asked again in a moment."""


class ClientGoneError(FandleError):
    """Whoever asked has left; nobody reads the answer."""


@dataclass
class _Slots:
    """Who may solve now. Quick work goes first, and long work leaves one solver to it where there are several."""

    free: int
    most_long: int  # of them, taken by long work
    quick: deque[asyncio.Future[None]] = field(default_factory=deque)
    long: deque[asyncio.Future[None]] = field(default_factory=deque)
    long_now: int = 0

    async def take(self, *, quick: bool) -> None:
        """A solver, when one is free."""
        if self.free > 0 and (quick or self.long_now < self.most_long):
            self.free -= 1
            self.long_now += not quick
            return
        mine: asyncio.Future[None] = asyncio.get_running_loop().create_future()
        (self.quick if quick else self.long).append(mine)
        try:
            await mine
        except asyncio.CancelledError:
            if mine.done() and not mine.cancelled():  # it was given to us in that very moment
                self.give(quick=quick)
            raise

    def give(self, *, quick: bool) -> None:
        """Hand the solver on."""
        self.long_now -= not quick
        self.free += 1
        for queue, is_long in ((self.quick, False), (self.long, True)):
            while queue and self.free and not (is_long and self.long_now >= self.most_long):
                waiting = queue.popleft()
                if not waiting.done():
                    self.free -= 1
                    self.long_now += is_long
                    waiting.set_result(None)


class Works:
    """The solvers of one server."""

    def __init__(self, solvers: int | None = None, budget: float = BUDGET_S) -> None:
        count = solvers or os.cpu_count() or 1
        self.budget = budget
        self._pool = ThreadPoolExecutor(count, "solver", _be_patient)
        self._slots = _Slots(count, max(1, count - 1))
        self._reading = asyncio.Semaphore(READERS)
        self._present = 0
        self._calm = asyncio.Event()
        self._calm.set()
        self._under_way = {True: 0, False: 0}

    def present(self) -> Callable[[], None]:
        """A request is being answered: long work gives way until what this returns is called.

        While the request itself waits for work it does not count.
        """
        self._count(1)
        here = True

        def leave() -> None:
            nonlocal here
            if here:
                here = False
                self._count(-1)

        return leave

    def _count(self, step: int) -> None:
        self._present += step
        if self._present > 0:
            self._calm.clear()
        else:
            self._calm.set()

    async def read(self, reading: Callable[..., T], *given: Any, quick: bool = True) -> T:
        """A question read, in a thread: a few at a time, and those of long work after pages and files."""
        self._count(-1)
        try:
            async with self._reading:
                if not quick:
                    await self._give_way()
                return await to_thread.run_sync(partial(reading, *given))
        finally:
            self._count(1)

    async def run(self, steps: Steps[T], gone: Gone, *, quick: bool = True) -> T:
        """What the steps come to. gone: has the client left?

        Raises BusyError where the queue is full, BadInputError where it is too much.
        """
        if self._under_way[quick] >= (MOST_QUICK if quick else MOST_LONG):
            raise BusyError("too many questions at once: ask again in a moment")
        task: Task[Never, T] = Task(steps, self.budget)
        self._under_way[quick] += 1
        self._count(-1)
        try:
            async for _ in self._told(task, gone, quick=quick):
                pass
            return task.result
        finally:
            self._count(1)
            self._leave(task, quick=quick)

    def room_for_long(self) -> None:
        """Refuse long work where too much is under way already. Raises BusyError."""
        if self._under_way[False] >= MOST_LONG:
            raise BusyError("too many questions at once: ask again in a moment")

    async def stream(self, steps: Telling[P, T], questions: int = 1) -> AsyncIterator[P | T]:
        """Long work that tells what is known on the way, and at last what it comes to; questions: how many it answers.

        Whoever sends it on has answered already, and stops it by closing this.
        """
        task = Task(steps, questions * self.budget)
        self._under_way[False] += 1
        try:
            async for told in self._told(task, None, quick=False):
                yield told
            yield task.result
        finally:
            self._leave(task, quick=False)

    def _leave(self, task: Task[Any, Any], *, quick: bool) -> None:
        self._under_way[quick] -= 1
        with suppress(ValueError):  # cancelled twice, its last slice may still be running in its thread
            task.stop()

    async def _told(self, task: Task[P, Any], gone: Gone | None, *, quick: bool) -> AsyncIterator[P]:
        """What a task tells on the way, worked on until it is done."""
        loop, most = asyncio.get_running_loop(), QUICK_SLICE_S if quick else SLICE_S
        while not task.done:
            if not quick:
                await self._give_way()
            await self._slots.take(quick=quick)
            try:
                if gone is not None and await gone():
                    raise ClientGoneError("the client has left")
                slice_ = asyncio.ensure_future(loop.run_in_executor(self._pool, task.work, most))
                try:
                    told = await asyncio.shield(slice_)
                except asyncio.CancelledError:
                    with suppress(Exception):  # the thread has the steps until the slice ends
                        await slice_
                    raise
            finally:
                self._slots.give(quick=quick)
            if told and task.progress is not None:
                yield task.progress

    async def _give_way(self) -> None:
        """Wait while pages and files are being answered, but not for ever."""
        with suppress(TimeoutError):
            await asyncio.wait_for(self._calm.wait(), PATIENCE_S)

    def close(self) -> None:
        """No more work."""
        self._pool.shutdown(wait=False, cancel_futures=True)


def _be_patient() -> None:
    """Let the system run whoever answers pages and files before a solver's thread."""
    with suppress(OSError, AttributeError):  # where the system knows no priority of a thread
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), NICE)
