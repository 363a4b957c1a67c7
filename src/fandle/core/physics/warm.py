"""Every kernel that Python calls, compiled or loaded before anybody waits for it.

Each is called once on a small case. A kernel is compiled for the types it is called with, so a case has them as
the callers do: a table's numbers are read-only, everything else may be written.
"""

import gc
import multiprocessing
from collections.abc import Callable, Iterator, Sequence

import numpy as np

from fandle.core.physics import batch, search
from fandle.core.physics.arrive import Goal, arrive
from fandle.core.physics.bank import bank_sweep, contact
from fandle.core.physics.engine import AT_JAWS
from fandle.core.physics.jit import PLAIN, Floats
from fandle.core.physics.judge import measure, outcome
from fandle.core.physics.kernel_folder import mark
from fandle.core.physics.kick import met_off
from fandle.core.physics.moving import BALL_WIDTH
from fandle.core.physics.pots import Room, best_pots
from fandle.core.physics.rack import play_all
from fandle.core.physics.roots import find_root, root_near
from fandle.core.physics.scene import Scene, blank_tape, scene_of
from fandle.core.physics.sight import sights
from fandle.core.physics.single import roll, strike_into
from fandle.core.physics.state import Arc
from fandle.core.physics.strike import squirt_rad
from fandle.core.physics.touch import nearest_time
from fandle.core.physics.trace import trace, trace_by_rail

NEARLY = 0.99  # until the other process is done, too
Case = tuple[float, Callable[[], object]]  # (seconds that its compilation takes, a call)
STROKE = np.array([2.0, 0.1, 0.1, 0.01, 20.0])


def warm(p: Floats) -> Iterator[float]:
    """Compile or load all kernels, p being a table's numbers; after each, the share that is done, up to 1."""
    cases = [*_trunk(p), *_of_one_line(p), *_of_many_strokes(p)]
    whole, done = _whole(cases), 0.0
    for share, call in cases:
        call()
        done += share
        yield done / whole
    if not PLAIN:
        mark()


def compile_apart(p: Floats) -> Iterator[float]:
    """The same in two processes, from where the trunk is compiled: what both would compile is so compiled once.

    Only for a process of one thread that goes away afterwards: what the other one compiled is found in the folder.
    """
    if "fork" not in multiprocessing.get_all_start_methods():
        yield from warm(p)
        return
    gc.freeze()  # nothing of it is left when the process goes
    gc.disable()
    trunk, mine, theirs = _trunk(p), _of_one_line(p), _of_many_strokes(p)
    whole, done = _whole([*trunk, *mine, *theirs]), 0.0
    for share, call in trunk:
        call()
        done += share
        yield done / whole
    context = multiprocessing.get_context("fork")
    told = context.SimpleQueue()
    other = context.Process(target=_run, args=(theirs, told.put))
    other.start()
    for share, call in mine:
        call()
        done += share
        while not told.empty():
            done += told.get()
        yield min(done / whole, NEARLY)
    other.join()
    if other.exitcode != 0:  # whatever befell it befalls us where it can be seen
        _run(theirs, lambda _: None)
    if not PLAIN:
        mark()
    yield 1.0


def _run(cases: Sequence[Case], tell: Callable[[float], object]) -> None:
    for share, call in cases:
        call()
        tell(share)


def _whole(cases: Sequence[Case]) -> float:
    return sum(share for share, _ in cases)


def _trunk(p: Floats) -> list[Case]:
    """What the others are made of: one ball on the bed, and all of them.

    A kernel that Python and kernels call comes before those that call it: it is compiled once.
    """
    start, state, row = np.array([0.4, 0.4, 1.0, 0.5, 0.0, 0.0, 0.0]), np.zeros((2, BALL_WIDTH)), np.empty(7)
    tape = blank_tape(20, 60)
    return [
        (1.0, lambda: (squirt_rad(0.1, 20.0), strike_into(row, 0.1, STROKE))),
        (1.0, lambda: nearest_time(Arc(0.1, 0.1, 1.0, 1.0, 0.0, 0.0), 1.0)),
        (7.0, lambda: roll(start, p, np.empty((0, 2)), 0, AT_JAWS, 2, *tape)),
        (9.0, lambda: play_all(state, p, *tape)),
    ]


def _of_one_line(p: Floats) -> list[Case]:
    """What solves a kick, a bank or a pot."""
    kick, bank, row = _scene(p), _scene(p, pocket=3), np.empty(7)
    at, goals = np.linspace(0.0, 0.2, 5), np.array([[2.5, 1.2]])
    return [
        (3.5, lambda: (contact(0.1, bank, row, row.copy()), measure(0.1, kick))),
        (3.0, lambda: (outcome(0.1, 0, kick), met_off(0.1, kick))),
        (1.0, lambda: bank_sweep(at, bank, goals, np.empty((1, 5)), row, row.copy())),
        (2.5, lambda: (find_root(0.1, 0.1, 0.2, -0.1, 0.0, bank), root_near(0.1, 0.0, kick))),
        (5.0, lambda: search.solve(0.0, 0.1, 0.0, kick, search.GRIDS[1])),
    ]


def _of_many_strokes(p: Floats) -> list[Case]:
    """What plays strokes by the hundred, and looks at what they leave."""
    return [
        (4.0, lambda: _batch(p)),
        (3.0, _leaves),
        (3.5, lambda: _trace(p)),
        (2.0, lambda: _arrive(p)),
    ]


def _scene(p: Floats, pocket: int = -1) -> Scene:
    balls, order = np.array([[1.5, 0.6], [0.9, 0.9]]), np.array([1], dtype=np.int64)
    return scene_of(np.array([0.4, 0.4]), STROKE.copy(), p, balls, 0, order, pocket)


def _batch(p: Floats) -> None:
    batch.play_batch(_one(), p[None], np.array([[1.5, 0.6]]))


def _leaves() -> None:
    rests, on, n = np.array([[[0.4, 0.4], [1.5, 0.6]]]), np.ones((1, 2), np.bool_), np.zeros(1, np.int64)
    flat = np.zeros((2, 1, 3))
    room = Room(
        flat[0, :, :2].copy(), np.array([[1.0, 0.0]]), np.array([1.0, 2.0]), flat, flat + 1.0, 1.4, 2.5, 1.3, 0.03, 3.0,
        2.0, 0.1, 0.95, 0.3,
    )  # fmt: skip
    best_pots(rests, on, room, 0.002, -1, np.empty(1), n, n.copy())
    sights(rests, on, 0.06, np.empty(1, np.bool_), n, np.empty(1))


def _one() -> batch.Strokes:
    return batch.Strokes(np.zeros(1), STROKE[None].copy(), np.array([[0.4, 0.4]]), np.zeros(1, dtype=np.int64))


def _trace(p: Floats) -> None:
    trace(_one(), p[None])
    trace_by_rail(_one(), np.stack([p] * 4)[None])


def _arrive(p: Floats) -> None:
    arrive(_one(), p, np.array([1], dtype=np.int64), Goal(0.5, 0.5, 0))
