"""The solvers: quick work first, a bounded queue, a budget, nobody who left."""

import asyncio
import threading
import time
from collections.abc import Callable, Coroutine
from typing import Any

import pytest

from fandle.core.errors import BadInputError
from fandle.core.steps import Steps, at_once, finish
from fandle.work import solvers
from fandle.work.solvers import BusyError, ClientGoneError, Works


class Asker:
    """A client: all the solvers look at is whether it is still there."""

    def __init__(self) -> None:
        self.gone = False

    async def is_disconnected(self) -> bool:
        return self.gone


def counting(n: int, each: float = 0.002, done: Callable[[], None] = lambda: None) -> Steps[int]:
    """n steps of a given length."""
    for _ in range(n):
        time.sleep(each)
        yield
    done()
    return n


def ask(works: Works, steps: Steps[Any], quick: bool = True, who: Asker | None = None) -> Coroutine[Any, Any, Any]:

    async def asked() -> Any:
        leave = works.present()
        try:
            return await works.run(steps, (who or Asker()).is_disconnected, quick=quick)
        finally:
            leave()

    return asked()


def test_steps_driven_and_finished_come_to_the_same() -> None:
    assert finish(counting(5, 0)) == asyncio.run(ask(Works(1), counting(5, 0))) == 5
    assert finish(at_once(lambda: "x")) == "x"


def test_quick_work_goes_before_long_work_that_came_first() -> None:
    order: list[str] = []

    async def both() -> None:
        works = Works(1)
        long = [
            asyncio.create_task(ask(works, counting(40, done=lambda: order.append("long")), False)) for _ in range(3)
        ]
        await asyncio.sleep(0.02)
        await ask(works, counting(3, done=lambda: order.append("quick")))
        await asyncio.gather(*long)

    asyncio.run(both())
    assert order == ["quick", "long", "long", "long"]


def test_no_more_solvers_at_once_than_asked_for() -> None:
    running, most, lock = 0, 0, threading.Lock()

    def step() -> None:
        nonlocal running, most
        with lock:
            running += 1
            most = max(most, running)
        time.sleep(0.01)
        with lock:
            running -= 1

    async def many() -> None:
        works = Works(2)
        await asyncio.gather(*(ask(works, at_once(step)) for _ in range(12)))

    asyncio.run(many())
    assert most == 2


def test_a_full_queue_says_so_and_the_rest_is_served(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(solvers, "MOST_LONG", 4)

    async def many() -> list[Any]:
        works = Works(1)
        return await asyncio.gather(*(ask(works, counting(3), False) for _ in range(6)), return_exceptions=True)

    found = asyncio.run(many())
    assert found[:4] == [3, 3, 3, 3]
    assert all(isinstance(fault, BusyError) for fault in found[4:])


def test_too_much_is_told_and_the_solver_is_free_again() -> None:
    works = Works(1, budget=0.05)

    def working() -> Steps[None]:
        while True:
            sum(range(10_000))
            yield

    async def much() -> int:
        with pytest.raises(BadInputError, match="fewer rails"):
            await ask(works, working())
        result: int = await ask(works, counting(2))
        return result

    assert asyncio.run(much()) == 2


def test_waiting_for_a_busy_machine_is_not_too_much() -> None:
    assert asyncio.run(ask(Works(1, budget=0.05), counting(100, each=0.002))) == 100


def test_work_stops_when_its_client_leaves() -> None:
    who, steps_done = Asker(), 0

    def endless() -> Steps[None]:
        nonlocal steps_done
        while True:
            steps_done += 1
            time.sleep(0.001)
            yield

    async def leave() -> None:
        works = Works(1)
        asked = asyncio.create_task(ask(works, endless(), who=who))
        await asyncio.sleep(0.05)
        who.gone = True
        with pytest.raises(ClientGoneError, match="has left"):
            await asked
        assert await ask(works, counting(1)) == 1

    asyncio.run(leave())
    assert steps_done < 500


def test_a_fault_in_the_work_is_the_caller_s_and_frees_the_solver() -> None:
    def broken() -> Steps[None]:
        yield
        raise BadInputError("no", "x")

    async def twice() -> int:
        works = Works(1)
        with pytest.raises(BadInputError, match="no"):
            await ask(works, broken())
        result: int = await ask(works, counting(1))
        return result

    assert asyncio.run(twice()) == 1


def test_a_cancelled_request_gives_its_place_back() -> None:
    async def cancel() -> int:
        works = Works(1)
        running = asyncio.create_task(ask(works, counting(100)))
        waiting = [asyncio.create_task(ask(works, counting(100))) for _ in range(3)]
        await asyncio.sleep(0.02)
        for task in (running, *waiting):
            task.cancel()
        await asyncio.gather(running, *waiting, return_exceptions=True)
        result: int = await ask(works, counting(2))
        return result

    assert asyncio.run(cancel()) == 2


def test_long_work_gives_way_to_pages_but_not_for_ever(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(solvers, "PATIENCE_S", 0.05)
    steps_done = 0

    def count() -> Steps[int]:
        nonlocal steps_done
        for _ in range(400):
            steps_done += 1
            time.sleep(0.002)
            yield
        return steps_done

    async def page() -> tuple[int, int]:
        works = Works(1)
        asked = asyncio.create_task(ask(works, count(), False))
        await asyncio.sleep(0.05)
        leave = works.present()
        await asyncio.sleep(0.02)  # what was under way ends
        before = steps_done
        await asyncio.sleep(0.1)
        while_there = steps_done - before
        leave()
        leave()  # once is enough
        await asyncio.sleep(0.1)
        asked.cancel()
        return while_there, steps_done - before

    while_there, after = asyncio.run(page())
    assert while_there < 15
    assert after - while_there > 20


def test_questions_are_read_one_at_a_time_and_those_of_long_work_after_pages() -> None:
    """Three dozen lists asked for at once must not stand between a player and the page (found by the campaign)."""
    reading, most, read = 0, 0, 0

    def question(number: int) -> int:
        nonlocal reading, most, read
        reading += 1
        most = max(most, reading)
        time.sleep(0.002)
        reading -= 1
        read += 1
        return number

    async def many(works: Works) -> tuple[list[int], int]:
        leave = works.present()  # a page that is being answered
        asked = [asyncio.ensure_future(one(works, number)) for number in range(12)]
        await asyncio.sleep(0.03)
        meanwhile = read
        leave()
        return list(await asyncio.gather(*asked)), meanwhile

    async def one(works: Works, number: int) -> int:
        leave = works.present()
        try:
            return await works.read(question, number, quick=False)
        finally:
            leave()

    found, meanwhile = asyncio.run(many(Works(2)))
    assert found == list(range(12))
    assert (most, meanwhile) == (1, 0)
