"""A blow through several balls that touch: Hertzian contacts, all at once, in small steps.

While a blow runs through a rack the balls hardly move, so their places are held and only
speeds and contact depths are stepped (leapfrog). Every step reads one state and then applies
all impulses, so the order of the balls does not matter. Restitution e: unloading gives back e²
of the loading force, so a lone pair leaves with e times its speed, as in `collision`. Hertz 1882
(force ∝ depth^1.5); positions held over a contact is common practice, no published source.
"""

import math

import numpy as np

from fandle.core.physics.collision import VX, VY, WX, WZ, X, Y, closing, friction_impulse, push_apart, slip_between
from fandle.core.physics.jit import Floats, Ints, kernel
from fandle.core.physics.slots import LIGHT, MU_FALL, MU_FLOOR, MU_RISE, RADIUS, STIFF

NEAR_M = 2e-5  # a gap this small closes while a blow lasts (a hard one dents 0.3 mm deep)
STEPS = 48  # a blow between two lone balls
MOST_BLOWS = 40  # lone blows, in steps: a blow through the longest row is over long before
CALM = 1e-12  # m/s: no slower contact is calmed
CALM_SHARE = 0.2  # of the closing speed a pass gives up; half of it would end it for a lone pair
MOST_CALM = 2000
MOST_CONTACTS = 80  # 22 discs touch at 3·22 − √(12·22 − 3) < 50 places
# columns of a contact: ball, ball, n, depth, impulse so far, speeds at the step when it closed, that
# step, and the three impulses of the present step
A, B, NX, NY, DEPTH, PUSHED, SPEED_A, SPEED_B, WHEN, PUSH, ALONG, UP = range(12)
CONTACT_WIDTH = 12


@kernel
def find_contacts(s: Floats, members: Ints, m: int, p: Floats) -> Floats:
    """The contacts among the members, one a row, from the lower ball number to the higher."""
    found = np.zeros((MOST_CONTACTS, CONTACT_WIDTH))
    reach = 2.0 * p[RADIUS]
    count = 0
    for i in range(m):
        for j in range(m):
            a, b = members[i], members[j]
            if a >= b or count == MOST_CONTACTS:
                continue
            dx, dy = s[b, X] - s[a, X], s[b, Y] - s[a, Y]
            size = math.sqrt(dx * dx + dy * dy)
            if size <= reach + NEAR_M:
                row = found[count]
                row[A], row[B], row[NX], row[NY] = a, b, dx / size, dy / size
                row[DEPTH] = min(reach - size, 0.0)
                row[WHEN] = -1.0
                count += 1
    return found[:count]


@kernel
def lightness(ball: int, p: Floats) -> float:
    """Mass of an object ball over that of this one: 1 but for the cue ball, number 0."""
    return p[LIGHT] if ball == 0 else 1.0


@kernel
def energy(s: Floats, members: Ints, m: int, p: Floats) -> float:
    """Kinetic energy of the members per unit mass of an object ball, m²/s²."""
    total = 0.0
    for i in range(m):
        row = s[members[i]]
        mass = 1.0 / lightness(members[i], p)
        total += 0.5 * mass * (row[VX] ** 2 + row[VY] ** 2)
        for k in range(WX, WZ + 1):
            total += 0.2 * mass * row[k] ** 2
    return total


@kernel
def _drift(s: Floats, contacts: Floats, dt: float) -> None:
    for row in contacts:
        row[DEPTH] += dt * closing(s[int(row[A])], s[int(row[B])], row[NX], row[NY])


@kernel
def _speed(row: Floats) -> float:
    return math.sqrt(row[VX] * row[VX] + row[VY] * row[VY])


@kernel
def _kick(s: Floats, rise: Floats, contacts: Floats, dt: float, step: int, restitution: float, p: Floats) -> bool:
    """One kick of every pressed contact, all from the same state; is any still pressed?

    rise: the balls' vertical speeds, which friction gives them while the blow lasts.
    """
    active = False
    for row in contacts:
        row[PUSH] = 0.0
        if row[DEPTH] <= 0.0:
            continue
        i, j = int(row[A]), int(row[B])
        a, b = s[i], s[j]
        near = closing(a, b, row[NX], row[NY])
        if row[WHEN] < 0.0:
            row[WHEN], row[SPEED_A], row[SPEED_B] = step, _speed(a), _speed(b)
        push = p[STIFF] * row[DEPTH] * math.sqrt(row[DEPTH]) * dt
        if near < 0.0:
            push *= restitution * restitution
        active = True
        along, upwards = slip_between(a, b, row[NX], row[NY])
        upwards += rise[i] - rise[j]
        slip = math.sqrt(along * along + upwards * upwards)
        light = lightness(i, p)
        drag = friction_impulse(slip, push, p[MU_FLOOR], p[MU_RISE], p[MU_FALL], 3.5 * (1.0 + light))
        share = -drag / slip if slip > 0.0 else 0.0
        row[PUSH], row[ALONG], row[UP] = push, share * along, share * upwards
    for row in contacts:
        if row[PUSH] > 0.0:
            i, j = int(row[A]), int(row[B])
            light = lightness(i, p)
            push_apart(s[i], s[j], row[NX], row[NY], row[PUSH], row[ALONG], row[UP], light)
            rise[i] += light * row[UP]
            rise[j] -= row[UP]
            row[PUSHED] += row[PUSH]
    return active


@kernel
def resolve(s: Floats, members: Ints, m: int, contacts: Floats, restitution: float, p: Floats) -> None:
    """Run a blow through the contacts until none is pressed any more; `s` in place."""
    fastest = 0.0
    for row in contacts:
        fastest = max(fastest, closing(s[int(row[A])], s[int(row[B])], row[NX], row[NY]))
    if fastest <= 0.0:
        return
    before = energy(s, members, m, p)
    deepest = (0.625 * fastest * fastest / p[STIFF]) ** 0.4
    dt = 2.943 * deepest / fastest / STEPS  # 2.943·deepest/speed is how long a Hertzian blow lasts
    rise = np.zeros(s.shape[0])
    for step in range(STEPS * MOST_BLOWS):
        _drift(s, contacts, 0.5 * dt)
        active = _kick(s, rise, contacts, dt, step, restitution, p)
        _drift(s, contacts, 0.5 * dt)
        if not active and step > 0:
            break
    _not_more(s, members, m, before, p)


@kernel
def calm(s: Floats, contacts: Floats, p: Floats) -> None:
    """End a contact too slow to bounce: no pair nears any more, no ball has gained by it.

    All pairs at once give up a share of their closing speed small enough for a ball with six
    neighbours, over and over.
    """
    for _ in range(MOST_CALM):
        fastest = 0.0
        for row in contacts:
            near = closing(s[int(row[A])], s[int(row[B])], row[NX], row[NY])
            row[PUSH] = max(CALM_SHARE * near, 0.0)
            fastest = max(fastest, near)
        if fastest <= CALM:
            break
        for row in contacts:
            if row[PUSH] > 0.0:
                i, j = int(row[A]), int(row[B])
                push_apart(s[i], s[j], row[NX], row[NY], row[PUSH], 0.0, 0.0, lightness(i, p))
                row[PUSHED] += row[PUSH]
                row[WHEN] = 0.0


@kernel
def _not_more(s: Floats, members: Ints, m: int, before: float, p: Floats) -> None:
    """Take away what energy the finite steps added, from the motion about the common centre."""
    after = energy(s, members, m, p)
    if after <= before:
        return
    cx, cy, mass = 0.0, 0.0, 0.0
    for i in range(m):
        own = 1.0 / lightness(members[i], p)
        cx += own * s[members[i], VX]
        cy += own * s[members[i], VY]
        mass += own
    cx, cy = cx / mass, cy / mass
    common = 0.5 * mass * (cx * cx + cy * cy)
    if after - common <= 0.0:
        return
    keep = math.sqrt(max(before - common, 0.0) / (after - common)) * (1.0 - 1e-15)
    for i in range(m):
        row = s[members[i]]
        row[VX] = cx + keep * (row[VX] - cx)
        row[VY] = cy + keep * (row[VY] - cy)
        for k in range(WX, WZ + 1):
            row[k] *= keep
