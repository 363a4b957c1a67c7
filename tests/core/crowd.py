"""A bare rig for many balls: play them raw, and audit what was written about them. SI."""

import math
import random
from dataclasses import replace

import numpy as np
from campaign.audit import POOL, Array
from campaign.scenes import triangle

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.shot.stroke import Stroke
from fandle.core.table.model import Table

R = POOL.ball_radius
PERFECT = replace(POOL, ball_restitution=1.0, ball_friction_floor=0.0, ball_friction_rise=0.0)
POOL_IDS = ["cue", *(str(k) for k in range(1, 16))]
SNOOKER_IDS = ["cue", "yellow", "green", "brown", "blue", "pink", "black", *(f"red{k}" for k in range(1, 16))]


def random_places(rng: random.Random, count: int, frozen: float, table: Table = POOL) -> Array:
    """Up to `count` balls on the bed, off the pockets; this share of them frozen to another one."""
    r, length, width = table.ball_radius, table.length, table.width
    low, high = 3 * r, (length - 3 * r, width - 3 * r)
    places: list[tuple[float, float]] = []
    for _ in range(40 * count):
        if len(places) == count:
            break
        if places and rng.random() < frozen:
            (x, y), a = rng.choice(places), rng.uniform(0, 2 * math.pi)
            x, y = x + 2 * r * math.cos(a), y + 2 * r * math.sin(a)
        else:
            x, y = rng.uniform(low, high[0]), rng.uniform(low, high[1])
            if rng.random() < 0.2:
                y = rng.choice([r, width - r])
                x = x if abs(x - length / 2) > 0.15 else 0.6
        inside = r <= x <= length - r and r <= y <= width - r
        corner = min(x, length - x) < low and min(y, width - y) < low
        if inside and not corner and all(math.hypot(x - u, y - v) >= 2 * r for u, v in places):
            places.append((x, y))
    return np.array(places)


def random_stroke(rng: random.Random) -> Stroke:
    """Any stroke short of a miscue, from a breath to a break."""
    speed = rng.uniform(0.05, 12.0) if rng.random() < 0.8 else rng.uniform(0.001, 0.1)
    offset, clock = 0.5 * math.sqrt(rng.random()), rng.uniform(0, 2 * math.pi)
    return Stroke(speed, offset * math.cos(clock), offset * math.sin(clock))


def break_shot(table: Table = POOL) -> Layout:
    """A full rack, the cue ball on the head spot."""
    return Layout(table, "eight-ball", (Ball("cue", 2.0, 2.0), *triangle(table)))
