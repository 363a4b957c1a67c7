"""Are the ranges of the chances honest? 300 pairs of line and stroke, each on a layout and with a seed of its own.

Each chance of `fandle plan` comes with a 95 % range from 300 draws. Here the same shot is drawn 20,000 times by a
plain script that shares nothing with the plan but the engine, from what the plan's JSON says: direction, stroke, mark,
player. Told is in how many of the pairs the chance so found lies in the range: 92 to 98 % is honest. Half an hour.
"""

import json
import math
import random
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fandle.core.physics.batch import Strokes, play_batch
from fandle.core.table.rails import Rail
from fandle.core.table.standards import STANDARDS
from fandle.formats.files import layout_of

PAIRS, DRAWS, SEED = 300, 20_000, 7
MARKED = ("kick", "rail-first")
LIKELY = (0.03, 0.97)
GAMES = {"nine-ball": "pool-9ft", "straight": "pool-9ft", "ten-ball": "pool-8ft"}


def layout(rng: random.Random) -> dict[str, Any]:
    """A few balls in the open."""
    game = rng.choice(list(GAMES))
    table = STANDARDS[GAMES[game]]
    places: list[tuple[float, float]] = []
    wanted = rng.randint(2, 6)
    while len(places) < wanted:
        place = rng.uniform(0.4, 7.6), rng.uniform(0.4, 3.6)
        apart = min((math.dist(place, other) for other in places), default=9.0)
        if apart * table.diamond_x > 2.2 * table.ball_radius:
            places.append(place)
    ids = ["cue", *sorted(rng.sample([str(n) for n in range(1, 10)], wanted - 1), key=int)]
    balls = [{"id": name, "x": x, "y": y} for name, (x, y) in zip(ids, places, strict=True)]
    return {"format": "fandle-layout/1", "table": table.name, "game": game, "balls": balls, "target": ids[1]}


def plan(laid: dict[str, Any], seed: int, speed: float) -> dict[str, Any]:
    """The plan, asked on the command line."""
    with tempfile.NamedTemporaryFile("w", suffix=".fandle.json") as file:
        json.dump(laid, file)
        file.flush()
        fandle = Path(sys.executable).with_name("fandle")
        done = subprocess.run(
            [fandle, "plan", file.name, "--strokes", "this", "--seed", str(seed), "--speed", f"{speed:.2f}", "--json"],
            capture_output=True, text=True, check=False,
        )  # fmt: skip
    told: dict[str, Any] = json.loads(done.stdout)
    return told


def redrawn(
    laid: dict[str, Any], player: dict[str, Any], line: dict[str, Any], rng: np.random.Generator
) -> tuple[float, float]:
    """(chance of a hit, of a legal hit) of a line by 20,000 plain draws."""
    place = layout_of(laid)
    table, start = place.table, place.metres(place.cue)
    e = rng.standard_normal((DRAWS, 5))
    at = math.radians(line["direction"]) + math.radians(player["direction_deg"]) * e[:, 0]
    if line["kind"] in MARKED:
        rail = Rail(line["rail"])
        unit = table.diamond_x if rail.is_long else table.diamond_y
        edge = 0.0 if not rail.at_end else (table.width if rail.is_long else table.length)
        meant, off = line["aim"]["nose"], player["mark_diamonds"][line["mark"]["grade"]] * e[:, 4]

        def towards(mark: NDArray[np.float64]) -> NDArray[np.float64]:
            x, y = (mark * unit, edge) if rail.is_long else (edge, mark * unit)
            found: NDArray[np.float64] = np.arctan2(y - start[1], x - start[0])
            return found

        at = at + np.angle(np.exp(1j * (towards(meant + off) - towards(meant))))
    s, tip = line["stroke"], player["tip_mm"] / 1000 / table.ball_radius
    strokes = np.empty((DRAWS, 5))
    strokes[:, 0] = s["speed"] * np.maximum(1 + player["speed_part"] * e[:, 1], 0.05)
    strokes[:, 1], strokes[:, 2] = s["side"] + tip * e[:, 2], s["up"] + tip * e[:, 3]
    strokes[:, 3], strokes[:, 4] = math.radians(s["elevation"]), math.inf
    rows = Strokes(at, strokes, np.tile(start, (DRAWS, 1)), np.zeros(DRAWS, np.int64))
    out = play_batch(rows, table.params()[None], place.obstacles(), threads=2)
    names = [ball.id for ball in place.object_balls()]
    on = [min(names, key=int)] if laid["game"] != "straight" else names
    hit = np.isin(out.first, [names.index(name) + 1 for name in on])
    rail_met = (out.rails_after > 0).any(axis=1) | (out.down > 0).any(axis=1)
    return float(hit.mean()), float((hit & rail_met & ~(out.down == 0).any(axis=1)).mean())


def main() -> None:
    """Ask, draw, count."""
    rng, plain = random.Random(SEED), np.random.default_rng(SEED + 1)
    inside = {"hit": 0, "legal": 0}
    pairs = dict.fromkeys(inside, 0)
    seed = 0
    while min(pairs.values()) < PAIRS:
        seed += 1
        laid = layout(rng)
        found = plan(laid, seed, rng.uniform(1.5, 5.0))
        lines = [line for line in found["lines"] if not any(r["code"] == "reach" for r in line["against"])]
        if not lines:
            continue
        line = rng.choice(lines[:8])
        for name, true in zip(inside, redrawn(laid, found["player"], line, plain), strict=True):
            if LIKELY[0] <= true <= LIKELY[1] and pairs[name] < PAIRS:
                chance = line["chance"][name]
                pairs[name] += 1
                inside[name] += chance["lo"] <= true <= chance["hi"]
    for name, n in pairs.items():
        print(f"{name:<6} inside the range {inside[name] / n:.1%} of {n}")


if __name__ == "__main__":
    main()
