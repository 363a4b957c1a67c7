"""What is timed: each item a function without arguments. Inside the measured region: the call alone."""

import ctypes
import math
import random
import subprocess
import tempfile
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import numpy as np

from fandle.core.constants import GRAVITY
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.physics import bed, moving, rack, slots
from fandle.core.physics import engine as e
from fandle.core.physics.jit import Floats, kernel
from fandle.core.physics.scene import blank_tape
from fandle.core.physics.single import roll
from fandle.core.physics.state import EVENT, Motion, Tape
from fandle.core.physics.strike import strike
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.table.standards import standard_table

TABLE = standard_table("pool-9ft")
P = TABLE.params()
START = np.array([0.2, 0.1, 2.8, 2.6, -2.6, 2.8, 2.0])  # rolling, with side; m, m/s
RAILS = 4  # three rebounds, stopped at the fourth rail
NONE = np.empty((0, 2))
TAPE = blank_tape(e.MOST_EVENTS, e.MOST_PIECES)
COUNTS = (1, 2, 4, 8, 16, 22)


@kernel
def shots(start: Floats, p: Floats, none: Floats, tape: Tape, n: int) -> int:
    """The three-rail shot n times."""
    done = 0
    for _ in range(n):
        ball = Motion(start[0], start[1], start[2], start[3], start[4], start[5], start[6])
        code, met, _ = e.run(ball, p, none, e.Until(0, e.NO_JAWS, RAILS), tape)
        done += met + code
    return done


@kernel
def crowd(state: Floats, scratch: Floats, p: Floats, tape: Tape) -> int:
    """All balls from the same start again."""
    scratch[:] = state
    return rack.play_all(scratch, p, tape.events, tape.pieces)[1]


def c_twin() -> tuple[Callable[[int], None], float]:
    """The shot in C, compiled here with -O3: n shots, and how far (m) its rails are from ours."""
    folder = tempfile.mkdtemp()
    library = f"{folder}/single.so"
    source = str(Path(__file__).with_name("single.c"))
    subprocess.run(["cc", "-O3", "-std=c99", "-shared", "-fPIC", "-o", library, source, "-lm"], check=True)
    twin, doubles = ctypes.CDLL(library), ctypes.POINTER(ctypes.c_double)
    start, params, out = START.copy(), P[slots.FIRST_SLOT :].copy(), np.zeros((8, 4))
    given = [a.ctypes.data_as(doubles) for a in (start, params)]
    met = out.ctypes.data_as(doubles)
    twin.play_many(*given, RAILS, met, ctypes.c_long(1))
    shots(START, P, NONE, TAPE, 1)
    apart = float(np.abs(out[:RAILS, :2] - TAPE.events[:RAILS, [EVENT.x, EVENT.y]]).max())
    return lambda n: twin.play_many(*given, RAILS, met, ctypes.c_long(n)), apart


def by_integrator() -> np.ndarray:
    """The same shot by scipy: force laws integrated, rails as its events, our cushion. Place at the end."""
    from scipy.integrate import solve_ivp  # here, so that the workers do not carry it

    mu_s, mu_r, r = P[slots.MU_S] * GRAVITY, P[slots.MU_R] * GRAVITY, P[slots.RADIUS]

    def slide(_: float, s: np.ndarray) -> list[float]:
        ux, uy = s[2] - s[5], s[3] + s[4]
        slip = math.hypot(ux, uy) or 1.0
        ax, ay = -mu_s * ux / slip, -mu_s * uy / slip
        return [s[2], s[3], ax, ay, 2.5 * ay, -2.5 * ax]

    def roll(_: float, s: np.ndarray) -> list[float]:
        speed = math.hypot(s[2], s[3]) or 1.0
        ax, ay = -mu_r * s[2] / speed, -mu_r * s[3] / speed
        return [s[2], s[3], ax, ay, -ay, ax]

    walls = [
        lambda _, s: s[1] - r, lambda _, s: TABLE.width - r - s[1],
        lambda _, s: s[0] - r, lambda _, s: TABLE.length - r - s[0],
    ]  # fmt: skip

    def rolls(_: float, s: np.ndarray) -> float:
        return math.hypot(s[2] - s[5], s[3] + s[4]) - 1e-7

    for stop in (*walls, rolls):
        stop.terminal, stop.direction = True, -1.0  # type: ignore[attr-defined]
    state, wz = START[:6].copy(), START[6]
    met = 0
    while True:
        sliding = rolls(0.0, state) > 0.0
        done = solve_ivp(
            slide if sliding else roll, (0.0, 30.0), state, "DOP853", rtol=1e-9, atol=1e-11,
            events=[*walls, rolls] if sliding else walls,
        )  # fmt: skip
        state = done.y[:, -1]
        wz = math.copysign(max(abs(wz) - P[slots.DECAY] * done.t[-1], 0.0), wz)
        rail = next((k for k in range(4) if len((done.t_events or [])[k])), None)
        if rail is None:
            state[4:6] = -state[3], state[2]
            continue
        met += 1
        if met == RAILS:
            return state[:2]
        nx, ny = bed.outward(rail)
        x, y, vx, vy, wx, wy = state.tolist()
        after, _, _ = bed.rebound(nx, ny, Motion(x, y, vx, vy, wx, wy, wz), P)
        state[2:], wz = after[2:6], after.wz
        state[:2] += np.array([-nx, -ny]) * 1e-12  # off the wall, so that its event can rise again


def two_threads(n: int) -> Callable[[int], Any]:
    """n shots in each of so many threads, each with room of its own."""
    rooms = [blank_tape(e.MOST_EVENTS, e.MOST_PIECES) for _ in range(2)]
    pool = ThreadPoolExecutor(2)

    def go(threads: int) -> None:
        jobs = [pool.submit(shots, START, P, NONE, rooms[k], n) for k in range(threads)]
        for job in jobs:
            job.result()

    return go


def break_layout() -> Layout:
    """A full rack as it is broken: a hair between the balls, cue ball off the head spot."""
    r, balls = TABLE.ball_radius + 1e-6, [Ball("cue", 2.0, 2.1)]
    for row in range(5):
        for k in range(row + 1):
            x, y = 6 * TABLE.diamond_x + row * r * math.sqrt(3), 2 * TABLE.diamond_y + (2 * k - row) * r
            balls.append(Ball(str(len(balls)), x / TABLE.diamond_x, y / TABLE.diamond_y))
    return Layout(TABLE, "eight-ball", tuple(balls))


def crowds(count: int, shots_each: int = 40) -> Callable[[], None]:
    """So many balls lying anywhere, a firm stroke anywhere: forty such shots a call."""
    rng = random.Random(count)
    made = []
    for _ in range(shots_each):
        places: list[tuple[float, float]] = []
        while len(places) < count:
            x, y = rng.uniform(0.1, TABLE.length - 0.1), rng.uniform(0.1, TABLE.width - 0.1)
            if all(math.hypot(x - a, y - b) > 2 * TABLE.ball_radius for a, b in places):
                places.append((x, y))
        state = np.zeros((count, moving.BALL_WIDTH))
        state[:, :2], state[:, moving.ON] = places, 1.0
        state[0, 2:7] = strike(rng.uniform(0, 6.28), *Stroke(4.0).array())
        made.append(state)
    tape = blank_tape(rack.MOST_EVENTS, rack.MOST_PIECES)
    scratch = np.empty_like(made[0])

    def go() -> None:
        for state in made:
            crowd(state, scratch, P, tape)

    return go


def rates() -> list[tuple[str, Callable[[], Any]]]:
    """Two thousand one-rail kicks at medium speed with a club player's scatter: what is told, and the call."""
    from fandle.core.lines.kick import solve_kick
    from fandle.core.lines.solution import Aim
    from fandle.core.physics.batch import Strokes, play_batch
    from fandle.core.table.rails import Rail
    from fandle.core.table.speeds import default_speed

    balls = (Ball("cue", 1.1, 0.55), Ball("7", 5.3, 0.5))
    others = ((2.2, 3.3), (6.4, 1.2), (7.2, 3.1), (4.1, 2.3), (1.2, 2.9), (5.6, 3.4), (6.9, 2.2))
    crowd = tuple(Ball(str(n), *place) for n, place in zip((1, 2, 3, 4, 5, 6, 8), others, strict=True))
    two, nine = (Layout(TABLE, "nine-ball", laid, "7") for laid in (balls, (*balls, *crowd)))
    stroke, n = Stroke(default_speed(TABLE)), 2000
    found = solve_kick(two, (Rail.FAR,), stroke, with_chain=False)
    if not isinstance(found, Aim):
        raise RuntimeError(found.reason)
    rng, tables = np.random.default_rng(1), P[None]

    def kicks(layout: Layout, *, short: bool) -> Callable[[], Any]:
        rows = Strokes(
            found.best.direction + rng.normal(0.0, 0.002, n), np.tile(stroke.array(), (n, 1)),
            np.tile(layout.metres(layout.cue), (n, 1)), np.zeros(n, dtype=np.int64),
        )  # fmt: skip
        return lambda: play_batch(rows, tables, layout.obstacles(), short)

    return [
        ("one-rail kicks to the first ball", kicks(two, short=True)),
        ("one-rail kicks to the first ball, 9 balls on", kicks(nine, short=True)),
        ("one-rail kicks, all to rest", kicks(two, short=False)),
        ("one-rail kicks, all to rest, 9 balls on", kicks(nine, short=False)),
    ]


def works() -> dict[str, Callable[[], Any]]:
    """Items by name. The first three are those of the first slice, measured against it."""
    from fandle.app.situation import Situation
    from fandle.core.lines.bank import solve_bank
    from fandle.core.lines.kick import solve_kick
    from fandle.core.lines.pot import solve_pot
    from fandle.core.steps import finish
    from fandle.core.systems.registry import count, count_steps
    from fandle.core.table.rails import Rail
    from fandle.web.table.view import answer

    balls = (Ball("cue", 1.1, 0.55), Ball("7", 5.3, 0.5), Ball("2", 3.2, 0.5))
    layout, stroke = Layout(TABLE, "nine-ball", balls, "7"), Stroke(3.2, 0.17, 0.1)
    firm = Stroke(3.0)
    banked = Layout(TABLE, "nine-ball", (Ball("cue", 3.0, 2.5), Ball("7", 5.0, 1.2), Ball("2", 1.0, 3.0)), "7")
    pots = Layout(TABLE, "eight-ball", (Ball("cue", 3.0, 0.6), Ball("2", 7.3, 0.4), Ball("11", 5.15, 0.5)), "2")
    state, rack_of_fifteen, hard = Situation(layout, stroke, (Rail.FAR,)), break_layout(), Stroke(9.0)
    return {
        "three-rail shot": lambda: roll(START, P, NONE, 0, e.NO_JAWS, RAILS, *TAPE),
        "aim with its chain": lambda: solve_kick(layout, (Rail.FAR,), stroke),
        "whole answer to a drag": lambda: (finish(answer(state)), count("M2", layout, (Rail.FAR,))),
        "four one-rail kicks": lambda: [solve_kick(layout, (rail,), stroke, with_chain=False) for rail in Rail],
        "a pot over one rail": lambda: solve_pot(pots, (Rail.FAR,), firm, pocket="foot-near", with_chain=False),
        "a bank": lambda: solve_bank(banked, (Rail.NEAR,), firm, pocket="foot-far"),
        "all methods, landed": lambda: finish(count_steps(layout)),
        "full-rack break": lambda: play(rack_of_fifteen, hard, -0.035),
    }
