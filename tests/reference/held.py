"""What is told, held against the second simulator.

Events of random layouts, chances and resting places of lines under errors of our own, and the list of orders against a
sweep. Random layouts without frozen balls, on rigid cushions: the second simulator has neither.
"""

import math
import random
import statistics
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from tests.reference.games import Came, came_of, mark_scatter, turned
from tests.reference.replay import Numbers, Rubber, numbers_of, replay, rubber_of, struck

from fandle.app.choose import plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.rules import balls_on
from fandle.core.choice.told import Line
from fandle.core.errors import BadInputError, FandleError
from fandle.core.layout.ball import Ball
from fandle.core.layout.games import id_order
from fandle.core.layout.model import Layout
from fandle.core.player.scatter import CLUB
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import finish
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS
from fandle.formats.tables import table_json

Floats = NDArray[np.float64]
THREADS = 2
POCKETS = ("head-near", "head-far", "foot-near", "foot-far", "side-near", "side-far")  # as its falls are numbered
APART_M = 0.004  # from any other ball, from any rail
DRAWS = 500  # of each line
SWEPT, WIDE = 3600, 5  # directions, and how many side by side make an order of 0.4°
GAMES = {
    "nine-ball": ("pool-9ft", "pool-8ft", "pool-7ft"), "straight": ("pool-9ft", "pool-7ft"),
    "snooker": ("snooker-12ft",), "three-cushion": ("carom-10ft",),
}  # fmt: skip


@dataclass(frozen=True)
class World:
    """A layout as the second simulator has it: numbers, rubber, balls that lie still, the cue ball first."""

    layout: Layout
    numbers: Numbers
    rubber: Rubber
    balls: Floats
    names: tuple[str, ...]

    @classmethod
    def of(cls, layout: Layout) -> "World":
        """From a layout."""
        told = table_json(layout.table)
        balls = (layout.cue, *layout.object_balls())
        still = np.zeros((len(balls), 7))
        still[:, :2] = [layout.metres(ball) for ball in balls]
        rubber = rubber_of(layout.table.length, layout.table.width, told["pockets"])
        return cls(layout, numbers_of(told), rubber, still, tuple(ball.id for ball in balls))

    def shot(self, direction: float, speed: float, side: float, up: float, short: bool = False) -> tuple[Came, Floats]:
        """(what came of it, where the balls stopped, NaN where they are gone)."""
        balls = self.balls.copy()
        balls[0] = struck(balls[0, 0], balls[0, 1], direction, speed, side, up)
        ends, there, events = replay(balls, self.numbers, self.rubber, short)
        return came_of(events), np.where(there[:, None], ends[:, :2], np.nan)


def layout_of(rng: random.Random, game: str) -> Layout:
    """Up to six balls apart from one another and from the rails."""
    table = STANDARDS[rng.choice(GAMES[game])]
    names = id_order(game) if game == "three-cushion" else id_order(game)[: rng.randint(1, 6)]
    while True:
        balls = [Ball(name, rng.uniform(0.3, 7.7), rng.uniform(0.3, 3.7)) for name in ("cue", *names)]
        try:
            laid = Layout(table, game, tuple(balls))
        except BadInputError:
            continue
        at = [laid.metres(ball) for ball in balls]
        pairs = [math.dist(a, b) for n, a in enumerate(at) for b in at[:n]]
        if min(pairs) > 2 * table.ball_radius + APART_M:
            return laid


def stroke_of(rng: random.Random) -> Stroke:
    """Any level stroke with an ideal cue."""
    return Stroke(rng.uniform(1.2, 5.0), rng.uniform(-0.3, 0.3), rng.uniform(-0.3, 0.3))


@dataclass(frozen=True)
class Events:
    """Of n shots: how many met the same rails and the same ball first, and how far apart their first and their third
    rail were, mm."""

    n: int
    same: int
    first_mm: tuple[float, ...]
    third_mm: tuple[float, ...]


def events(seed: int, count: int) -> Events:
    """Random shots at random layouts, played by both to the first ball."""
    rng, same = random.Random(seed), 0
    apart: tuple[list[float], list[float]] = ([], [])
    for n in range(count):
        laid, stroke = layout_of(rng, list(GAMES)[n % len(GAMES)]), stroke_of(rng)
        direction, world = rng.uniform(-math.pi, math.pi), World.of(laid)
        ours, table = play(laid, stroke, direction), laid.table
        met = [event for event in ours.events if event.ball == "cue" and event.kind in ("rail", "jaw", "ball")]
        before = next((k for k, event in enumerate(met) if event.kind == "ball"), len(met))
        theirs, _ = world.shot(direction, stroke.speed, stroke.side, stroke.up)
        rails = [-1 if event.rail is None else event.rail.number for event in met[:before]]
        first = world.names[theirs.first] if theirs.first else None
        if first != ours.first_ball or list(theirs.rails) != rails:
            continue
        same += 1
        for kth, into in ((0, apart[0]), (2, apart[1])):
            if len(rails) > kth:
                place = met[kth].x * table.diamond_x, met[kth].y * table.diamond_y
                into.append(1000 * math.dist(place, theirs.places[kth]))
    return Events(count, same, tuple(apart[0]), tuple(apart[1]))


@dataclass(frozen=True)
class Told:
    """A share as it was told, and as it was replayed: of which verdict, its range, how often of how many."""

    verdict: str
    p: float
    low: float
    high: float
    came: float

    @property
    def inside(self) -> bool:
        """Is what came within the range, its own chance error over so many draws taken into account?"""
        own = (self.high - self.low) / 2 / 1.96
        theirs = math.sqrt(max(self.came * (1 - self.came), 1e-3) / DRAWS)
        return abs(self.p - self.came) <= 1.96 * math.hypot(own, theirs)


def chances(seed: int, count: int) -> tuple[list[Told], list[float]]:
    """(shares of lines, told and replayed with errors of our own, the share of ends in each line's half ellipse)."""
    rng, told, halves = random.Random(seed), list[Told](), list[float]()
    lines = 0
    while lines < count:
        game = list(GAMES)[rng.randrange(len(GAMES))]
        laid, stroke = layout_of(rng, game), stroke_of(rng)
        goal = rng.choice(("hit", "pot")) if game != "three-cushion" else "hit"
        try:
            found = finish(plan(Situation(laid, stroke), wish_of(goal, CLUB, "this", None, 300, 0, laid), THREADS))
        except FandleError:
            continue
        fit = [line for line in found.lines if line.kind not in ("bank", "push", "curve")]
        for line in rng.sample(fit, min(len(fit), 3)):
            lines += 1
            shares, half = _replayed(World.of(laid), line, goal, np.random.default_rng(lines))
            told += shares
            halves += [] if half is None else [half]
    return told, halves


def _replayed(world: World, line: Line, goal: str, rng: np.random.Generator) -> tuple[list[Told], float | None]:
    """A line's shot under a club player's errors: (its shares, the share of ends inside its ellipse)."""
    shots = _shots(world, line, rng)
    with ThreadPoolExecutor(THREADS) as pool:
        came = list(pool.map(lambda shot: world.shot(*shot), shots))
    on = {world.names.index(name) for name in balls_on(world.layout)}
    verdicts = [_verdicts(world, line, on, each) for each, _ in came]
    names = {"three-cushion": ("legal",)}.get(world.layout.game, ("hit", "legal", *(["pot"] if goal == "pot" else [])))
    shares = []
    for name in names:
        share = line.chance.share(name)
        shares.append(Told(name, share.p, *share.range, statistics.fmean(each[name] for each in verdicts)))
    return shares, _inside(world, line, np.array([ends[0] for _, ends in came]))


def _shots(world: World, line: Line, rng: np.random.Generator) -> list[tuple[float, float, float, float]]:
    """Direction, speed, side and height with errors drawn anew, from the figures of a club player."""
    stroke, table, times = line.stroke, world.layout.table, line.scatter
    n, tip = DRAWS, times * CLUB.tip_mm / 1000 / table.ball_radius
    at = line.direction + math.radians(times * CLUB.direction_deg) * rng.standard_normal(n)
    if line.mark_error:
        rail = line.rails[0] if line.kind != "point" else line.run.rails[0]
        along, unit = (0, table.diamond_x) if rail.is_long else (1, table.diamond_y)
        across = {Rail.NEAR: 0.0, Rail.HEAD: 0.0, Rail.FAR: table.width, Rail.FOOT: table.length}[rail]
        start = world.layout.metres(world.layout.cue)
        gap, angle = across - start[1 - along], line.direction
        slope = math.cos(angle) / math.sin(angle) if along == 0 else math.tan(angle)
        mark = (start[along] + gap * slope) / unit
        sd = times * mark_scatter(mark, CLUB.mark._asdict())
        at = at + [turned(start, (along, across, unit), mark, off) for off in sd * rng.standard_normal(n)]
    speed = stroke.speed * np.maximum(1 + times * CLUB.speed_part * rng.standard_normal(n), 0.05)
    side, up = stroke.side + tip * rng.standard_normal(n), stroke.up + tip * rng.standard_normal(n)
    return list(zip(at.tolist(), speed.tolist(), side.tolist(), up.tolist(), strict=True))


def _verdicts(world: World, line: Line, on: set[int], came: Came) -> dict[str, bool]:
    """Hit, legal and pot by the rules of the game."""
    game, hit = world.layout.game, came.first in on
    if game == "three-cushion":
        return {"legal": came.second_after >= 3}
    in_off = any(ball == 0 for ball, _ in came.down)
    legal = hit and not in_off and (game == "snooker" or came.clean)
    down = [(world.names[ball], POCKETS[pocket]) for ball, pocket in came.down if ball]
    if game == "straight":
        pot = (line.target, line.pocket) in down
    elif game == "snooker":
        pot = bool(down) and all(world.names.index(name) in on for name, _ in down)
    else:
        pot = bool(down)
    return {"hit": hit, "legal": legal, "pot": legal and pot}


def _inside(world: World, line: Line, ends: Floats) -> float | None:
    """Which part of where the cue ball stopped lies in the ellipse that is said to hold half; None where it is gone."""
    rest, table = line.after.rest, world.layout.table
    there = ends[~np.isnan(ends[:, 0])]
    if rest.gone > 0.3 or len(there) < 0.6 * DRAWS or min(rest.a, rest.b) < 5.0:
        return None
    off = there - [rest.x * table.diamond_x, rest.y * table.diamond_y]
    turn = math.radians(rest.turn_deg)
    a = (off[:, 0] * math.cos(turn) + off[:, 1] * math.sin(turn)) / (rest.a / 1000)
    b = (-off[:, 0] * math.sin(turn) + off[:, 1] * math.cos(turn)) / (rest.b / 1000)
    return float((a * a + b * b <= 1.0).mean())


def orders(seed: int, count: int) -> tuple[int, list[str]]:
    """(orders of 0.4° or more that a sweep by the second simulator finds, those that the list lacks or refuses)."""
    rng, seen, faults = random.Random(seed), 0, list[str]()
    for n in range(count):
        laid, stroke = layout_of(rng, ("nine-ball", "straight", "snooker")[n % 3]), Stroke(rng.uniform(1.2, 5.0))
        wish = replace(wish_of("hit", CLUB, "this", None, 40, 0, laid), every=True)
        found, world = finish(plan(Situation(laid, stroke), wish, THREADS)), World.of(laid)
        told = {(line.target, tuple(rail.number for rail in line.rails)) for line in found.lines}
        refused = {(no.target, tuple(rail.number for rail in no.rails)) for no in found.refused if no.kind != "jump"}
        for way in _ways(world, stroke.speed, set(found.on)):
            seen += 1
            if way not in told:
                faults.append(f"seed {seed}, layout {n}: {way} is not told{', and refused' * (way in refused)}")
    return seen, faults


def _ways(world: World, speed: float, on: set[str]) -> set[tuple[str, tuple[int, ...]]]:
    """Every (ball on, rails before it) that so many directions side by side come to."""
    at = [math.tau * (k + 0.5) / SWEPT for k in range(SWEPT)]
    with ThreadPoolExecutor(THREADS) as pool:
        came = [each for each, _ in pool.map(lambda way: world.shot(way, speed, 0.0, 0.0, True), at)]
    ways = [
        (world.names[each.first], each.rails)
        if each.first and not each.jaw and len(each.rails) <= 4 and world.names[each.first] in on
        else None
        for each in came
    ]
    wide = [way for k, way in enumerate(ways) if all(ways[(k + step) % SWEPT] == way for step in range(WIDE))]
    return {way for way in wide if way is not None}
