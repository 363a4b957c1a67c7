"""Do two versions of Fandle answer alike? Random situations, asked on the command line of both, compared.

    python bench/same_answers.py aa83cf2            # this checkout against a commit
    python bench/same_answers.py aa83cf2 --number 50 --seed 7

Each situation is one layout on one of the five tables: a kick, a bank, all counts, a counted bank, a shot.
Answers are compared as they are printed; `--within 1e-9` allows numbers that much.
"""

import argparse
import json
import math
import os
import random
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

HERE = Path(__file__).resolve().parent
# bed (m) and ball radius (m), only to lay balls out: the tables themselves are the program's
TABLES = {
    "pool-9ft": (2.54, 1.27, 0.0286, "nine-ball"),
    "pool-8ft": (2.2352, 1.1176, 0.0286, "eight-ball"),
    "pool-7ft": (1.9812, 0.9906, 0.0286, "straight"),
    "snooker-12ft": (3.569, 1.778, 0.02625, "snooker"),
    "carom-10ft": (2.84, 1.42, 0.0308, "three-cushion"),
}
NAMES = {"snooker": ["red1", "red2", "blue", "pink", "red3", "black"], "three-cushion": ["white", "red"]}
POOL = [str(n) for n in range(1, 10)]
RAILS = ("near", "far", "head", "foot")
POCKETS = ("head-near", "side-near", "foot-near", "foot-far", "side-far", "head-far")


def layout(rng: random.Random) -> dict[str, Any]:
    """Balls at random on one of the tables, written with four decimals."""
    name = rng.choice(list(TABLES))
    length, width, r, game = TABLES[name]
    ids = NAMES.get(game, POOL)
    ids = ["cue", *rng.sample(ids, rng.randint(1, len(ids)))]
    placed: list[tuple[float, float]] = []
    while len(placed) < len(ids):
        x, y = rng.uniform(2.2 * r, length - 2.2 * r), rng.uniform(2.2 * r, width - 2.2 * r)
        if all(math.dist((x, y), other) > 2.1 * r for other in placed):
            placed.append((x, y))
    balls = [
        {"id": i, "x": round(x / length * 8, 4), "y": round(y / width * 4, 4)}
        for i, (x, y) in zip(ids, placed, strict=True)
    ]
    return {"format": "fandle-layout/1", "table": name, "game": game, "balls": balls, "target": ids[1]}


def order(rng: random.Random, most: int) -> str:
    """Rails at random, none twice in a row."""
    rails = [rng.choice(RAILS)]
    for _ in range(rng.randint(0, most - 1)):
        rails.append(rng.choice([rail for rail in RAILS if rail != rails[-1]]))
    return ",".join(rails)


def questions(rng: random.Random, path: str, laid: dict[str, Any]) -> list[list[str]]:
    """What is asked of one layout, as arguments of the command."""
    tip = 0.5 * math.sqrt(rng.random())
    turn = rng.uniform(-math.pi, math.pi)
    stroke = [
        "--speed", f"{rng.uniform(1.5, 6):.3f}", "--side", f"{tip * math.sin(turn):.3f}",
        "--up", f"{tip * math.cos(turn):.3f}", "--cue", rng.choice(("ideal", "house", "slim")),
    ]  # fmt: skip
    asked = [
        ["aim", path, "--rails", order(rng, 3), "--hit", f"{rng.choice((0, 0, 0.5, -0.3))}", *stroke, "--json"],
        ["simulate", path, "--direction", f"{rng.uniform(-180, 180):.4f}", *stroke, "--json"],
        ["count", path, "--all", "--json"],
    ]
    if laid["table"] != "carom-10ft":
        rails = order(rng, 2)
        pocket = ["--pocket", rng.choice(POCKETS)] if rng.random() < 0.5 else []
        asked.append(["aim", path, "--rails", rails, "--kind", "bank", *pocket, *stroke, "--json"])
        asked.append(["count", path, "--method", "M3", "--kind", "bank", "--rails", rails.split(",")[0], "--json"])
    return asked


def worker() -> None:
    """Answer questions from standard input with the version on PYTHONPATH."""
    import contextlib
    import io

    from fandle.cli import main

    for line in sys.stdin:
        out, err = io.StringIO(), io.StringIO()
        code = None
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            try:
                main(json.loads(line))
            except SystemExit as done:
                code = done.code
        print(json.dumps([code, out.getvalue(), err.getvalue()]), flush=True)


class Version:
    """A version of Fandle that answers."""

    def __init__(self, tree: Path) -> None:
        self.process = subprocess.Popen(
            [sys.executable, str(Path(__file__).resolve()), "worker"], stdin=subprocess.PIPE, stdout=subprocess.PIPE,
            text=True, env={**os.environ, "PYTHONPATH": str(tree / "src")},
        )  # fmt: skip

    def ask(self, arguments: list[str]) -> None:
        """Ask; both versions then work at the same time."""
        if self.process.stdin is None:
            raise RuntimeError("the worker has no pipe")
        self.process.stdin.write(json.dumps(arguments) + "\n")
        self.process.stdin.flush()

    def answer(self) -> tuple[int, Any, str]:
        """(exit code, parsed output, fault)."""
        if self.process.stdout is None:
            raise RuntimeError("the worker has no pipe")
        code, out, err = json.loads(self.process.stdout.readline())
        return code, json.loads(out) if out else None, err


def alike(one: Any, other: Any, within: float) -> bool:
    """Are two parsed answers the same, numbers within so much?"""
    if isinstance(one, dict) and isinstance(other, dict):
        return one.keys() == other.keys() and all(alike(one[k], other[k], within) for k in one)
    if isinstance(one, list) and isinstance(other, list):
        return len(one) == len(other) and all(alike(a, b, within) for a, b in zip(one, other, strict=True))
    if isinstance(one, float) and isinstance(other, float):
        return abs(one - other) <= within
    return bool(one == other)


def worktree(commit: str) -> Path:
    """A commit checked out beside this one."""
    folder = Path(tempfile.mkdtemp()) / "other"
    subprocess.run(["git", "worktree", "add", "--detach", str(folder), commit], cwd=HERE, check=True)
    return folder


def main() -> None:
    """Compare, print what differs, exit 1 where anything does."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("other", help="a commit, or a folder with another checkout")
    parser.add_argument("--number", type=int, default=300)
    parser.add_argument("--seed", type=int, default=13)
    parser.add_argument("--within", type=float, default=0.0)
    asked = parser.parse_args()
    other = Path(asked.other) if Path(asked.other).is_dir() else worktree(asked.other)
    versions = [Version(HERE.parent), Version(other)]
    rng, total, differ, shown = random.Random(asked.seed), 0, 0, 0
    codes: dict[str, int] = {}
    with tempfile.TemporaryDirectory() as folder:
        for number in range(asked.number):
            laid = layout(rng)
            path = Path(folder) / f"{number}.fandle.json"
            path.write_text(json.dumps(laid))
            for question in questions(rng, str(path), laid):
                for version in versions:
                    version.ask(question)
                here, there = (version.answer() for version in versions)
                total += 1
                codes[f"{question[0]} {here[0]}"] = codes.get(f"{question[0]} {here[0]}", 0) + 1
                if not alike(list(here), list(there), asked.within):
                    differ += 1
                    if shown < 5:
                        shown += 1
                        print(json.dumps(laid), question, *here, *there, sep="\n  ")
    print(f"{asked.number} situations, {total} answers (verb and exit code: {codes}): {differ} differ")
    sys.exit(1 if differ else 0)


if __name__ == "__main__":
    worker() if sys.argv[1:] == ["worker"] else main()
