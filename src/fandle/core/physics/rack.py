"""Every ball at once: each on its own exact path, re-planned only when something happens to it.

A ball's path holds until its own next event (end of a phase, rail, jaw, fall line); a table of
pairs holds when each two would touch. Only rows of balls to which something happened are made
anew, so a shot costs about its events times the number of balls. Ball 0 is the cue ball, the only
one whose mass may be another.
"""

import math

import numpy as np

from fandle.core.physics.bed import NOTHING, PRESSED
from fandle.core.physics.cloth import RESTING, SLIDING, phase
from fandle.core.physics.cluster import (
    NEAR_M,
    NX,
    NY,
    PUSHED,
    SPEED_A,
    SPEED_B,
    WHEN,
    A,
    B,
    calm,
    find_contacts,
    resolve,
)
from fandle.core.physics.collision import VX, VY, WX, WY, X, Y, closing, collide
from fandle.core.physics.engine import BROKEN, STOPPED, TOO_MANY
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.moving import (
    AX,
    AY,
    HELD,
    IN,
    KIND,
    LEG,
    ON,
    OWN,
    STEADY,
    T0,
    WHAT,
    carry,
    plan,
    rail,
    release,
    touch,
)
from fandle.core.physics.slots import BALL_REST, LIGHT, MU_R, MU_S, RADIUS
from fandle.core.physics.state import EV_BALL, EV_POCKET, EV_STOP, EVENT, Event, Tape, write_event

MOST_EVENTS = 6000
MOST_PIECES = 12000
MOST_HUSH = 20  # rounds: what is left after that is the next event's


@kernel
def _gather(s: Floats, n: int, members: Ints, t: float, p: Floats, pieces: Floats, n_pc: int) -> tuple[int, int]:
    """Take to time t the two members, every ball that touches one of them, and so on.

    Returns (members, pieces).
    """
    reach = 2.0 * p[RADIUS] + NEAR_M
    free = np.empty(s.shape[0])
    for i in range(s.shape[0]):
        free[i] = s[i, ON]
    for k in range(2):
        i = members[k]
        n_pc = carry(s[i], i, t - s[i, T0], False, p, pieces, n_pc)
        release(s[i], p)
        free[i] = 0.0
    m = 2
    k = 0
    while k < m:
        a = s[members[k]]
        for i in range(n):
            if free[i] == 0.0:
                continue
            b = s[i]
            lasts = t - b[T0]
            since = 0.0 if b[KIND] == RESTING else lasts
            dx = b[X] + since * (b[VX] + 0.5 * b[AX] * since) - a[X]
            dy = b[Y] + since * (b[VY] + 0.5 * b[AY] * since) - a[Y]
            if dx * dx + dy * dy <= reach * reach:
                n_pc = carry(b, i, lasts, False, p, pieces, n_pc)
                release(b, p)
                free[i] = 0.0
                members[m] = i
                m += 1
        k += 1
    return m, n_pc


@kernel
def _look_round(s: Floats, n: int, i: int, t: float, pairs: Floats, p: Floats) -> None:
    """Make ball i's row of the pair table anew."""
    for j in range(n):
        if j < i:
            pairs[j, i] = touch(s[j], s[i], t, p)
        elif j > i:
            pairs[i, j] = touch(s[i], s[j], t, p)


@kernel
def _settle(a: Floats, b: Floats, nx: float, ny: float, light: float, p: Floats) -> bool:
    """Two balls that touch without nearing, but whose cloth drives them together: end that.

    A ball that pushes another spends its slip on the cloth: it goes on as it would roll,
    (5·v + 2·w)/7. Where both roll already, they go on side by side. Without this pressing balls
    would make ever smaller contacts without end. Returns whether anything was done.
    """
    kind_a, _, ax, ay = phase(a[VX], a[VY], a[WX], a[WY], p[MU_S], p[MU_R])
    kind_b, _, bx, by = phase(b[VX], b[VY], b[WX], b[WY], p[MU_S], p[MU_R])
    if closing(a, b, nx, ny) >= PRESSED or (ax - bx) * nx + (ay - by) * ny < STEADY:
        return False
    rolled = (5.0 * a[VX] + 2.0 * a[WY]) / 7.0, (5.0 * a[VY] - 2.0 * a[WX]) / 7.0
    rolled_b = (5.0 * b[VX] + 2.0 * b[WY]) / 7.0, (5.0 * b[VY] - 2.0 * b[WX]) / 7.0
    heavy = 1.0 / light
    slips_a, slips_b = kind_a == SLIDING and ax * nx + ay * ny > 0.0, kind_b == SLIDING and bx * nx + by * ny < 0.0
    if not slips_a and not slips_b:
        both = heavy + 1.0
        rolled = rolled_b = (heavy * rolled[0] + rolled_b[0]) / both, (heavy * rolled[1] + rolled_b[1]) / both
        slips_a = slips_b = True
    if slips_a:
        a[VX], a[VY], a[WX], a[WY] = rolled[0], rolled[1], -rolled[1], rolled[0]
    if slips_b:
        b[VX], b[VY], b[WX], b[WY] = rolled_b[0], rolled_b[1], -rolled_b[1], rolled_b[0]
    return True


@kernel
def _hush(s: Floats, contacts: Floats, p: Floats) -> None:
    """A contact too slow to bounce: nobody nears, nobody pushes on."""
    for _ in range(MOST_HUSH):
        calm(s, contacts, p)
        done = True
        for row in contacts:
            light = p[LIGHT] if row[A] == 0.0 else 1.0
            if _settle(s[int(row[A])], s[int(row[B])], row[NX], row[NY], light, p):
                done = False
        if done:
            return


@kernel
def _earliest(contacts: Floats) -> int:
    """The first of the contacts that closed first."""
    found = 0
    for k in range(1, contacts.shape[0]):
        if contacts[k, WHEN] < contacts[found, WHEN]:
            found = k
    return found


@kernel
def _blow(s: Floats, members: Ints, m: int, t: float, p: Floats, events: Floats, n_ev: int) -> int:
    """What happens among balls that touch, at least one pair closing; returns the events."""
    contacts = find_contacts(s, members, m, p)
    before = np.empty(s.shape[0])
    for i in range(m):
        before[members[i]] = math.hypot(s[members[i], VX], s[members[i], VY])
    fastest = 0.0
    for row in contacts:
        a, b = int(row[A]), int(row[B])
        row[SPEED_A], row[SPEED_B] = before[a], before[b]
        fastest = max(fastest, closing(s[a], s[b], row[NX], row[NY]))
    if fastest < PRESSED:
        _hush(s, contacts, p)
    elif contacts.shape[0] == 1:
        a, b = int(contacts[0, A]), int(contacts[0, B])
        contacts[0, PUSHED], contacts[0, WHEN] = fastest, 0.0
        collide(s[a], s[b], p[BALL_REST], p[LIGHT] if a == 0 else 1.0, p)
    else:
        resolve(s, members, m, contacts, p[BALL_REST], p)
    for _ in range(contacts.shape[0]):
        row = contacts[_earliest(contacts)]
        row[WHEN] = math.inf  # told
        if row[PUSHED] > 0.0 and n_ev < events.shape[0] - 1:
            fast, slow = int(row[A]), int(row[B])
            if row[SPEED_B] > row[SPEED_A]:
                fast, slow = slow, fast
            after = math.hypot(s[fast, VX], s[fast, VY])
            x, y = s[fast, X], s[fast, Y]
            write_event(events, n_ev, Event(EV_BALL, t, slow, x, y, before[fast], after, 0.0, 0.0, fast))
            n_ev += 1
    for i in range(m):
        s[members[i], HELD] = NOTHING
    return n_ev


@kernel
def _next(s: Floats, n: int, pairs: Floats) -> tuple[float, int, int]:
    """The next event: (when, ball, other ball or −1). Balls before rails: a blow is far shorter."""
    when, one, other = math.inf, -1, -1
    for i in range(n):
        for j in range(i + 1, n):
            if pairs[i, j] < when:
                when, one, other = pairs[i, j], i, j
    for i in range(n):
        if s[i, T0] + s[i, OWN] < when:
            when, one, other = s[i, T0] + s[i, OWN], i, -1
    return when, one, other


@kernel
def _decided(events: Floats, first: int, last: int, watch: int, met: bool) -> tuple[bool, bool]:
    """(is it known what becomes of the watched ball?, has the cue ball met it?) from the events since the last look.

    It is once the cue ball meets anything else first, and after that once the watched ball meets another ball,
    drops, or stops.
    """
    for i in range(first, last):
        kind, index, ball = int(events[i, EVENT.kind]), int(events[i, EVENT.which]), int(events[i, EVENT.ball])
        mine = ball == watch or (kind == EV_BALL and index == watch)
        if not met:
            if ball == 0 or (kind == EV_BALL and index == 0):
                if kind != EV_BALL or not mine:
                    return True, met
                met = True
        elif mine and kind in (EV_BALL, EV_POCKET, EV_STOP):
            return True, met
    return False, met


@kernel
def play_all(s: Floats, p: Floats, events: Floats, pieces: Floats) -> tuple[int, int, int]:
    """Play all balls until every one rests or is potted.

    s: (n, BALL_WIDTH), the first seven columns given, ON 1; in place. Returns (code, events, pieces).
    """
    return play_until(s, p, Tape(events, pieces), NOTHING, 0)


@kernel
def play_until(s: Floats, p: Floats, tape: Tape, watch: int, rails: int) -> tuple[int, int, int]:
    """The same, but no longer than until it is known what becomes of ball `watch` over so many rails.

    watch: an object ball that the cue ball is to send on, or NOTHING. On a small or a slow-dying bed the rest of a
    crowded shot can take thousands of contacts that a bank need not wait for.
    """
    events, pieces = tape.events, tape.pieces
    n = s.shape[0]
    t = 0.0
    n_ev = n_pc = seen = 0
    met = done = False
    pairs = np.full((n, n), math.inf)
    touched = np.empty(n, dtype=np.int64)
    for i in range(n):
        s[i, KIND], s[i, HELD], s[i, LEG], s[i, IN] = RESTING, NOTHING, 0.0, 0.0
        plan(s[i], t, p)
    for i in range(n):
        for j in range(i + 1, n):
            pairs[i, j] = touch(s[i], s[j], t, p)
    for _ in range(pieces.shape[0]):
        when, one, other = _next(s, n, pairs)
        if one < 0:
            return STOPPED, n_ev, n_pc
        if n_ev >= events.shape[0] - 2 * n or n_pc >= pieces.shape[0] - 2 * n:
            return TOO_MANY, n_ev, n_pc
        t = max(when, t)
        touched[0] = one
        m = 1
        if other < 0:
            ends = s[one, WHAT] == NOTHING
            n_pc = carry(s[one], one, s[one, OWN], ends, p, pieces, n_pc)
            if s[one, IN] != 0.0:
                release(s[one], p)
            elif not ends:
                n_ev = rail(s[one], one, t, p, events, n_ev)
                if n_ev < 0:
                    return BROKEN, 0, n_pc
        else:
            touched[1] = other
            m, n_pc = _gather(s, n, touched, t, p, pieces, n_pc)
            n_ev = _blow(s, touched, m, t, p, events, n_ev)
        for k in range(m):
            i = touched[k]
            if s[i, ON] != 0.0 and plan(s[i], t, p):
                write_event(events, n_ev, Event(EV_STOP, t, -1, s[i, X], s[i, Y], 0.0, 0.0, 0.0, 0.0, i))
                n_ev += 1
        for k in range(m):
            _look_round(s, n, touched[k], t, pairs, p)
        if watch >= 0:
            done, met = _decided(events, seen, n_ev, watch, met)
            seen = n_ev
            if done or s[watch, LEG] > rails:
                return STOPPED, n_ev, n_pc
    return TOO_MANY, n_ev, n_pc
