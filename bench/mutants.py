"""Do the tests notice? Breaks lines of one floor, one at a time, and runs the tests of that floor and those above it.

    python bench/mutants.py               # seed 13, 20 lines of core, 4 each of app, formats, store and web
    python bench/mutants.py --seed 7 --number 40 --only core/systems

A line is broken by turning a sign or a comparison, shifting a constant, or dropping a branch, in a copy of the source.
Survivors are printed with their line, to be looked at: either a test is missing, or the line means the same as before
(equivalent: list it in EQUIVALENT with the reason, and another is drawn in its place).
"""

import argparse
import ast
import itertools
import os
import random
import shutil
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SOURCE = "src/fandle"
# floor: (how many lines are broken, the folders and files of tests that stand guard over it)
FLOORS = {
    "core": (20, ("core",)),
    "app": (4, ("app", "web", "test_cli.py")),
    "formats": (4, ("formats", "web", "store", "test_cli.py")),
    "store": (4, ("store", "web", "test_cli.py")),
    "web": (4, ("web",)),
}
APART = ("physics", "migrations")  # compiled, and guarded by twins; run once in the life of a database
COMPARE = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip
SIGN = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}
# (file, part of the line): why breaking it changes nothing that can be seen
EQUIVALENT: dict[tuple[str, str], str] = {
    ("core/lines/bank_question.py", "return 0.1 if direction is None"): "a line without offset always has a direction",
    ("core/systems/equal_count.py", "abs(place - at) >= 0.3"): "at exactly 0.3 a number may stand or give way",
    ("core/table/landmarks.py", "'past' if away >= 0"): "a mark that is no way off a landmark was told before",
}


@dataclass(frozen=True)
class Mutant:
    """One broken line: where, what it says now, the whole source with it."""

    path: Path
    line: int
    before: str
    after: str
    source: str


def mutants_of(path: Path) -> list[Mutant]:
    """Every way in which one file can be broken."""
    source = path.read_text("utf-8")
    found = []
    plain = ast.unparse(ast.parse(source))
    for place, node in enumerate(ast.walk(ast.parse(source))):
        for change in _changes(node):
            tree = ast.parse(source)
            target = next(itertools.islice(ast.walk(tree), place, None))
            if not _apply(target, change):
                continue
            new = ast.unparse(tree)
            if new != plain:
                found.append(Mutant(path, getattr(node, "lineno", 0), *_line_of(plain, new), new))
    return found


def _changes(node: ast.AST) -> list[str]:
    if isinstance(node, ast.Compare) and type(node.ops[0]) in COMPARE:
        return ["compare"]
    if isinstance(node, ast.BinOp) and type(node.op) in SIGN:
        return ["sign"]
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub):
        return ["minus"]
    if isinstance(node, ast.Constant) and isinstance(node.value, int | float) and not isinstance(node.value, bool):
        return ["constant"]
    if isinstance(node, ast.If) and not node.orelse:
        return ["drop"]
    return []


def _apply(target: ast.AST, change: str) -> bool:
    """Break the node in its tree; False where that cannot be done."""
    if change == "compare" and isinstance(target, ast.Compare):
        target.ops[0] = COMPARE[type(target.ops[0])]()
    elif change == "sign" and isinstance(target, ast.BinOp):
        target.op = SIGN[type(target.op)]()
    elif change == "minus" and isinstance(target, ast.UnaryOp):
        target.op = ast.UAdd()
    elif change == "constant" and isinstance(target, ast.Constant) and isinstance(target.value, int | float):
        target.value = target.value + 1 if isinstance(target.value, int) else target.value * 1.5 + 0.1
    elif change == "drop" and isinstance(target, ast.If):
        target.test = ast.Constant(value=False)
    else:
        return False
    return True


def _line_of(before: str, after: str) -> tuple[str, str]:
    pairs = zip(before.splitlines(), after.splitlines(), strict=False)
    return next(((a.strip(), b.strip()) for a, b in pairs if a != b), ("", ""))


def is_equivalent(mutant: Mutant) -> bool:
    """Was it found before that this one changes nothing?"""
    name = _name(mutant.path)
    return any(name == file and part in mutant.after for file, part in EQUIVALENT)


def _name(path: Path) -> str:
    return path.relative_to(ROOT / SOURCE).as_posix()


def drawn(seed: int, number: int, floor: str, only: str) -> list[Mutant]:
    """So many lines: a file by its length, then one of its mutants; annotations and docstrings cannot be broken."""
    rng = random.Random(seed)
    files = sorted((ROOT / SOURCE / floor).rglob("*.py"))
    files = [p for p in files if not set(APART) & set(p.parts) and only in str(p)]
    every = {p: found for p in files if (found := mutants_of(p))}
    chosen: list[Mutant] = []
    while every and len(chosen) < number:
        path = rng.choices(list(every), [len(found) for found in every.values()])[0]
        mutant = rng.choice(every[path])
        if not is_equivalent(mutant) and all((m.path, m.line) != (mutant.path, mutant.line) for m in chosen):
            chosen.append(mutant)
    return chosen


def _nearest_first(mutant: Mutant, floor: str) -> list[str]:
    """The tests that guard a floor, those of the broken module's own package first: who notices mostly stands there."""
    named = [ROOT / "tests" / each for each in FLOORS[floor][1]]
    if floor != "core":
        return [str(p.relative_to(ROOT)) for p in named]
    folders = sorted(p for p in named[0].iterdir() if p.is_dir() and p.name != "__pycache__")
    folders += sorted(named[0].glob("test_*.py"))
    folders.sort(key=lambda p: (p.name != mutant.path.parent.name, p.name == "physics"))
    return [str(p.relative_to(ROOT)) for p in folders]


def noticed(mutant: Mutant, floor: str, copy: Path) -> bool:
    """Does a test fail on the broken copy?"""
    broken = copy / mutant.path.relative_to(ROOT)
    whole = broken.read_text("utf-8")
    broken.write_text(mutant.source, "utf-8")
    command = [
        sys.executable,
        "-m",
        "pytest",
        "-x",
        "-q",
        "-n",
        "2",
        "-m",
        "not browser",
        *_nearest_first(mutant, floor),
    ]
    env = {**os.environ, "PYTHONPATH": str(copy / "src"), "CI": "1", "PYTHONDONTWRITEBYTECODE": "1"}
    try:
        done = subprocess.run(command, cwd=copy, env=env, capture_output=True, timeout=900, check=False)
        return done.returncode != 0
    except subprocess.TimeoutExpired:
        return True  # a loop that never ends is noticed, too
    finally:
        broken.write_text(whole, "utf-8")


def _copied() -> Path:
    copy = Path(tempfile.mkdtemp())
    for part in ("src", "tests", "campaign", "tools", "bench", "requirements", "examples", "docs"):
        shutil.copytree(ROOT / part, copy / part, ignore=shutil.ignore_patterns("__pycache__", "screenshots"))
    for part in ("pyproject.toml", "README.md", "CHANGELOG.md"):
        shutil.copy(ROOT / part, copy / part)
    return copy


def main() -> None:
    """Draw, break, test, tell."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--seed", type=int, default=13)
    parser.add_argument("--number", type=int, help="of lines on each floor")
    parser.add_argument("--only", default="", help="a part of the path, such as core/systems or web")
    asked = parser.parse_args()
    copy, tried, alive = _copied(), 0, 0
    for floor, (usual, _) in FLOORS.items():
        for mutant in drawn(asked.seed, asked.number or usual, floor, asked.only):
            seen = noticed(mutant, floor, copy)
            tried, alive = tried + 1, alive + (not seen)
            where = f"{_name(mutant.path)}:{mutant.line}"
            told = f"{tried:2} {'noticed ' if seen else 'SURVIVED'} {where}: {mutant.before}  ->  {mutant.after}"
            print(told[:400], flush=True)
    print(f"{tried - alive} of {tried} noticed")
    sys.exit(0 if alive <= tried // 6 else 1)


if __name__ == "__main__":
    main()
