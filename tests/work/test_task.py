"""Tasks: progress, result, an end, a budget in work done."""

import threading
import time

import pytest

from fandle.core.errors import BadInputError
from fandle.core.steps import Telling, at_once, finish, quietly, relay
from fandle.work.task import Task, TaskError


def telling(n: int, each_s: float = 0.0) -> Telling[int, str]:
    """n steps, of which every second one tells its number."""
    for number in range(n):
        time.sleep(each_s)
        yield number if number % 2 else None
    return f"{n} done"


def test_a_task_tells_its_progress_and_comes_to_its_result() -> None:
    task = Task(telling(6))
    told = []
    while not task.done:
        if task.work(1.0):
            told.append(task.progress)
    assert told == [1, 3, 5]
    assert task.result == "6 done" == Task(telling(6)).finish() == finish(telling(6))


def test_a_slice_ends_when_its_time_is_up() -> None:
    task = Task(telling(1000, each_s=0.002))
    assert not task.work(0.0)
    assert not task.done
    assert task.progress is None


def test_a_result_is_not_made_up_before_it_is_there() -> None:
    task = Task(telling(2))
    with pytest.raises(TaskError, match="no result yet"):
        _ = task.result


def test_a_stopped_task_takes_no_more_steps() -> None:
    steps = []

    def noting() -> Telling[int, None]:
        for number in range(9):
            steps.append(number)
            yield number

    task = Task(noting())
    task.work(1.0)
    task.stop()
    with pytest.raises(TaskError, match="was stopped"):
        task.work(1.0)
    assert steps == [0]


def test_a_task_that_another_thread_works_on_cannot_be_stopped_under_it() -> None:
    inside, go_on = threading.Event(), threading.Event()

    def waiting() -> Telling[int, int]:
        inside.set()
        go_on.wait(60)
        yield 1
        return 2

    task = Task(waiting())
    worker = threading.Thread(target=task.work, args=(1.0,))
    worker.start()
    inside.wait(60)
    with pytest.raises(ValueError, match="already executing"):
        task.stop()
    go_on.set()
    worker.join(60)
    assert task.finish() == 2


def test_the_budget_is_of_work_done_and_not_of_waiting() -> None:
    asleep = Task(telling(20, each_s=0.01), budget_s=0.1)
    assert asleep.finish() == "20 done"  # 0.2 s by the clock, nearly none of a core

    def busy() -> Telling[int, None]:
        while True:
            began = time.thread_time()
            while time.thread_time() - began < 0.01:
                pass
            yield None

    task = Task(busy(), budget_s=0.05)
    with pytest.raises(BadInputError, match="too much asked at once: choose fewer rails"):
        task.finish()
    assert task.spent_s > 0.05


def test_what_fails_fails_and_leaves_no_result() -> None:
    def failing() -> Telling[int, None]:
        yield 1
        raise BadInputError("no ball is there: put one", "balls")

    task = Task(failing())
    with pytest.raises(BadInputError, match="put one"):
        task.finish()
    assert not task.done


def test_steps_are_relayed_in_other_terms_and_with_their_result() -> None:
    steps = relay(telling(6), lambda number: f"no. {number}" if number > 1 else None)
    task = Task(steps)
    told = []
    while not task.done:
        if task.work(1.0):
            told.append(task.progress)
    assert told == ["no. 3", "no. 5"]
    assert task.result == "6 done"
    assert list(quietly(telling(3))) == [None] * 3
    assert finish(at_once(lambda: "x")) == "x"
