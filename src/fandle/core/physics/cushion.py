"""Ball on cushion: the impulse stepped through compression and restitution.

Model: Mathavan, Jackson & Parkin, Proc. IMechE C 224 (2010) 1863-1873. A rigid ball
meets the nose at height h, sinθ = (h − R)/R. The nose presses the ball down, so there is
Coulomb friction both at the nose (μw) and at the cloth (μs); restitution is energetic.

Frame: t along the cushion, n into it, z up, right-handed. Velocities per unit mass:
`w = R·ω`, so the ball's radius and mass drop out (solid sphere, I = 2/5 m R²).
"""

import math

from fandle.core.physics.jit import kernel

MAX_STEPS = 4000
STIFF = 1.0  # of 1 / the rate at which a dying slip turns, per step
CLOSING = 0.5  # part of a slip that one step may close
TURN_PER_STEP = 0.2  # rad: how far the slip at the nose may turn in one step
CLOTH_TURN = 1.0  # rad: the same at the cloth, whose friction is a quarter of it
STRAIGHT = 1e-3  # rad: a dying slip that turns less till its end is taken as straight
SMALLEST_STEP = 1 / 256  # of the plain step, when a slip direction swings round
SNAP = 2e-4  # of the ball's speed: a slip this small that friction can hold is ended at once
STEEP = 4.0  # vn² may grow by this much in the last step in work; from a slower vn that step would blow up
MOST_HALVINGS = 50  # of the last step in impulse
ROUNDING = 1e-12  # of the energy: what rounding may add
ZERO = 1e-10  # of the ball's speed: what counts as no slip


@kernel
def _friction(
    s1: float, s2: float, b1: float, b2: float, a1: float, a2: float, limit: float, tiny: float
) -> tuple[float, float]:
    """Friction on the ball for slip (s1, s2): sliding, sticking, or setting off.

    b: rate of slip without this friction; a: rate of slip per unit of it.
    """
    size = math.sqrt(s1 * s1 + s2 * s2)
    if size > tiny:
        return -limit * s1 / size, -limit * s2 / size
    f1, f2 = -b1 / a1, -b2 / a2
    if f1 * f1 + f2 * f2 <= limit * limit:
        return f1, f2
    d1, d2 = b1, b2
    for _ in range(12):  # onset: the direction d with d ∥ b − limit·A·d
        size = math.sqrt(d1 * d1 + d2 * d2)
        d1, d2 = b1 - limit * a1 * d1 / size, b2 - limit * a2 * d2 / size
    size = math.sqrt(d1 * d1 + d2 * d2)
    return -limit * d1 / size, -limit * d2 / size


@kernel
def _held_forces(
    st: float,
    sz: float,
    ut: float,
    un: float,
    s: float,
    c: float,
    mu_w: float,
    mu_s: float,
    tiny_nose: float,
    tiny: float,
) -> tuple[float, float, float, float]:
    """Friction where a slip is nought: nose and cloth depend on each other, so iterate.

    The coupling is weak (a pass shrinks the error at least by 0.6): 60 passes are plenty.
    """
    ft, fz, gt, gn = 0.0, 0.0, 0.0, 0.0
    for _ in range(60):
        ft_old, fz_old = ft, fz
        ft, fz = _friction(st, sz, (1 - 2.5 * s) * gt, s * c + (2.5 - s) * gn, 3.5, 2.5 + s * s, mu_w, tiny_nose)
        press = max(s - c * fz, 0.0)
        gt, gn = _friction(ut, un, (1 - 2.5 * s) * ft, -c + (2.5 - s) * fz, 3.5, 3.5, mu_s * press, tiny)
        if abs(ft - ft_old) + abs(fz - fz_old) < 1e-15:
            break
    return ft, fz, gt, gn


@kernel
def _forces(
    vt: float,
    vn: float,
    wt: float,
    wn: float,
    wz: float,
    s: float,
    c: float,
    mu_w: float,
    mu_s: float,
    tiny_nose: float,
    tiny: float,
    held: bool,
    h1: float,
    h2: float,
) -> tuple[float, float, float, float]:
    """Friction per unit of normal impulse: at the nose (along t, up its face), at the cloth (t, n).

    held: take (h1, h2) as the direction of slip at the nose.
    """
    st = vt + wn * s - wz * c
    sz = wt - s * vn
    ut = vt - wn
    un = vn + wt
    nose = st * st + sz * sz
    cloth = ut * ut + un * un
    if nose > tiny_nose * tiny_nose and cloth > tiny * tiny:
        q = -mu_w / math.sqrt(nose)
        ft, fz = q * st, q * sz
        if held:
            ft, fz = -mu_w * h1, -mu_w * h2
        q = -mu_s * max(s - c * fz, 0.0) / math.sqrt(cloth)  # the cloth can push, not pull
        return ft, fz, q * ut, q * un
    if cloth > tiny * tiny:  # the nose holds the ball: the balance is linear
        share = mu_s / math.sqrt(cloth)
        fz = (-s * c + (2.5 - s) * share * un * s) / (2.5 + s * s + (2.5 - s) * share * un * c)
        press = s - c * fz
        gt, gn = -share * press * ut, -share * press * un
        ft = -(1 - 2.5 * s) * gt / 3.5
        if press >= 0.0 and ft * ft + fz * fz <= mu_w * mu_w:
            return ft, fz, gt, gn
    return _held_forces(st, sz, ut, un, s, c, mu_w, mu_s, tiny_nose, tiny)


@kernel
def _rates(f: tuple[float, float, float, float], s: float, c: float) -> tuple[float, float, float, float, float]:
    """Rates of (vt, vn, wt, wn, wz) per unit of normal impulse under the frictions f."""
    ft, fz, gt, gn = f
    return ft + gt, -c - s * fz + gn, 2.5 * (fz + gn), 2.5 * (s * ft - gt), -2.5 * c * ft


@kernel
def _slip_step(
    s1: float,
    s2: float,
    d1: float,
    d2: float,
    limit: float,
    turn: float,
    step: float,
    smallest: float,
    tiny: float,
) -> float:
    """Longest step that neither runs past the end of a slip nor lets it swing round.

    Near its end a slip turns at a rate of about 7/2·limit/|slip|, which also bounds the step
    an explicit scheme can take.
    """
    size = math.sqrt(s1 * s1 + s2 * s2)
    if size <= tiny:
        return step
    step = min(step, max(STIFF * size / (3.5 * limit), smallest))
    closing = -(s1 * d1 + s2 * d2) / size
    if closing * step > CLOSING * size:
        step = CLOSING * size / closing
    turning = abs(s1 * d2 - s2 * d1) / (size * size)
    if turning * step > turn:
        step = min(step, max(turn / turning, smallest))
    return step


@kernel
def _scale(mode: int, dvn: float, vn: float, c: float) -> float:
    """Turn rates per impulse into rates per impulse, per n-velocity or per work done."""
    if mode == 1:
        return 1.0 / dvn
    if mode == 2:
        return 1.0 / (-c * vn)
    return 1.0


@kernel
def _plan(
    vt: float,
    vn: float,
    wt: float,
    wn: float,
    wz: float,
    r: tuple[float, float, float, float, float],
    s: float,
    c: float,
    mu_w: float,
    mu_s: float,
    plain: float,
    smallest: float,
    tiny: float,
) -> tuple[float, bool, float, float]:
    """The next step: (length, is the slip at the nose taken as straight, its direction).

    A slip that creeps to its end along one line is stiff but simple: its direction is held
    and the step ends where it does. Otherwise the plain step is shortened where a slip ends
    or swings round.
    """
    s1, s2 = vt + wn * s - wz * c, wt - s * vn
    d1, d2 = r[0] + r[3] * s - r[4] * c, r[2] - s * r[1]
    step = _slip_step(vt - wn, vn + wt, r[0] - r[3], r[1] + r[2], mu_s * s, CLOTH_TURN, plain, smallest, tiny)
    size = math.sqrt(s1 * s1 + s2 * s2)
    if size > tiny:
        closing = -(s1 * d1 + s2 * d2) / size
        end = min(step, size / closing) if closing > 0.0 else step
        if abs(s1 * d2 - s2 * d1) * end < STRAIGHT * size * size:
            return end, True, s1 / size, s2 / size
    step = _slip_step(s1, s2, d1, d2, mu_w, TURN_PER_STEP, step, smallest, tiny)
    return step, False, 0.0, 0.0


@kernel
def _step(
    vt: float,
    vn: float,
    wt: float,
    wn: float,
    wz: float,
    work: float,
    r: tuple[float, float, float, float, float],
    step: float,
    mode: int,
    s: float,
    c: float,
    mu_w: float,
    mu_s: float,
    tiny: float,
    held: bool,
    h1: float,
    h2: float,
) -> tuple[float, float, float, float, float, float]:
    """One classical Runge-Kutta step in impulse (mode 0), n-velocity (1) or work (2).

    r: the rates at the start.
    """
    q = _scale(mode, r[1], vn, c)
    k0, k1, k2, k3, k4, k5 = q * r[0], q * r[1], q * r[2], q * r[3], q * r[4], q * c * vn
    a0, a1, a2, a3, a4, a5 = k0, k1, k2, k3, k4, k5
    for stage in range(3):
        reach = step if stage == 2 else 0.5 * step
        weight = 1.0 if stage == 2 else 2.0
        n_now = vn + reach * k1
        f = _forces(
            vt + reach * k0, n_now, wt + reach * k2, wn + reach * k3, wz + reach * k4,
            s, c, mu_w, mu_s, tiny, tiny, held, h1, h2,
        )  # fmt: skip
        d0, d1, d2, d3, d4 = _rates(f, s, c)
        q = _scale(mode, d1, n_now, c)
        k0, k1, k2, k3, k4, k5 = q * d0, q * d1, q * d2, q * d3, q * d4, q * c * n_now
        a0 += weight * k0
        a1 += weight * k1
        a2 += weight * k2
        a3 += weight * k3
        a4 += weight * k4
        a5 += weight * k5
    h = step / 6.0
    return vt + h * a0, vn + h * a1, wt + h * a2, wn + h * a3, wz + h * a4, work + h * a5


@kernel
def _snap(
    vt: float,
    vn: float,
    wt: float,
    wn: float,
    wz: float,
    s: float,
    c: float,
    mu_w: float,
    mu_s: float,
    size: float,
    tiny: float,
) -> tuple[float, float, float, float, float]:
    """End a small slip at the nose with the one friction impulse that ends it, if it would stick.

    The whole impulse of friction while a slip dies is the same however it dies, so this
    replaces the last, ever shorter steps (checked: finer steps agree to 1e-6 of the speed).
    """
    st = vt + wn * s - wz * c
    sz = wt - s * vn
    if st * st + sz * sz > size * size or st * st + sz * sz <= tiny * tiny:
        return vt, vn, wt, wn, wz
    r = _rates(_forces(vt, vn, wt, wn, wz, s, c, mu_w, mu_s, size, tiny, False, 0.0, 0.0), s, c)
    if abs(r[0] + r[3] * s - r[4] * c) + abs(r[2] - s * r[1]) > 1e-9:
        return vt, vn, wt, wn, wz
    ut, un = vt - wn, vn + wt
    slip = math.sqrt(ut * ut + un * un)
    share = mu_s * c / slip if slip > tiny else 0.0  # cloth friction per unit of fz, along û
    fz = -sz / (2.5 + s * s + (2.5 - s) * share * un)
    gt, gn = share * ut * fz, share * un * fz
    ft = -(st + (1 - 2.5 * s) * gt) / 3.5
    f = ft, fz, gt, gn
    d = _rates(f, s, 0.0)
    return (
        vt + d[0],
        vn + d[1],
        wt + d[2],
        wn + d[3],
        wz - 2.5 * c * ft,
    )


@kernel
def _energy(vt: float, vn: float, wt: float, wn: float, wz: float) -> float:
    """v²/2 + w²/5: kinetic energy per unit mass of a solid sphere."""
    return 0.5 * (vt * vt + vn * vn) + 0.2 * (wt * wt + wn * wn + wz * wz)


@kernel
def _no_richer(
    after: tuple[float, float, float, float, float, float], before: float
) -> tuple[float, float, float, float, float]:
    """The state after, with no more energy than came in: what the steps' error adds is taken off all of it."""
    vt, vn, wt, wn, wz, _ = after
    energy = _energy(vt, vn, wt, wn, wz)
    if energy <= before * (1.0 + ROUNDING):
        return vt, vn, wt, wn, wz
    share = math.sqrt(before / energy)
    return share * vt, share * vn, share * wt, share * wn, share * wz


@kernel
def bounce(
    vt: float,
    vn: float,
    wt: float,
    wn: float,
    wz: float,
    sin_theta: float,
    restitution: float,
    mu_w: float,
    mu_s: float,
    steps: float,
) -> tuple[float, float, float, float, float]:
    """Velocities after the cushion, from those before it.

    vt, vn: m/s along and into the cushion (vn > 0). wt, wn, wz: R·ω in m/s.
    steps: plain steps per phase; the end of compression, of restitution and of a slip are
    landed on exactly. Returns (vt, vn, wt, wn, wz), all NaN where the impact never ends. A ball
    that lies at the nose with no speed into it to speak of is only turned back, nothing else.
    """
    s = sin_theta
    c = math.sqrt(1.0 - s * s)
    size = math.sqrt(vt * vt + vn * vn + wt * wt + wn * wn + wz * wz)
    tiny = ZERO * size
    if vn <= tiny:
        return vt, -restitution * abs(vn), wt, wn, wz
    before = _energy(vt, vn, wt, wn, wz)
    plain = vn / (c * steps)
    smallest = plain * SMALLEST_STEP
    work = 0.0
    released = False
    goal = 0.0
    for _ in range(MAX_STEPS):
        vt, vn, wt, wn, wz = _snap(vt, vn, wt, wn, wz, s, c, mu_w, mu_s, SNAP * size, tiny)
        f = _forces(vt, vn, wt, wn, wz, s, c, mu_w, mu_s, tiny, tiny, False, 0.0, 0.0)
        r = _rates(f, s, c)
        step, held, h1, h2 = _plan(vt, vn, wt, wn, wz, r, s, c, mu_w, mu_s, plain, smallest, tiny)
        if not released and vn + step * r[1] <= 0.0:
            vt, vn, wt, wn, wz, work = _step(vt, vn, wt, wn, wz, work, r, -vn, 1, s, c, mu_w, mu_s, tiny, held, h1, h2)
            vn = 0.0
            released = True
            goal = work * (1.0 - restitution * restitution)
            continue
        after = _step(vt, vn, wt, wn, wz, work, r, step, 0, s, c, mu_w, mu_s, tiny, held, h1, h2)
        if not released or after[5] > goal:
            vt, vn, wt, wn, wz, work = after
        elif vn == 0.0:  # the very first step overshoots, and work is no variable to step in here
            plain = 0.25 * plain
        elif -2.0 * r[1] * (work - goal) < STEEP * c * vn * vn:
            after = _step(vt, vn, wt, wn, wz, work, r, work - goal, 2, s, c, mu_w, mu_s, tiny, held, h1, h2)
            return _no_richer(after, before)
        else:  # the ball has hardly turned: the end of restitution is closed in on in impulse
            low, high = 0.0, step
            for _ in range(MOST_HALVINGS):
                middle = 0.5 * (low + high)
                after = _step(vt, vn, wt, wn, wz, work, r, middle, 0, s, c, mu_w, mu_s, tiny, held, h1, h2)
                if after[5] > goal:
                    low = middle
                else:
                    high = middle
            return _no_richer(after, before)
    nan = math.nan
    return nan, nan, nan, nan, nan
