"""The house keeps its shape: layers, small modules, short functions, one decorator for kernels, words of one meaning."""

import ast
import re
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
SOURCE = ROOT / "src/fandle"
MODULES = sorted(SOURCE.rglob("*.py"))
SCRIPTS = sorted((SOURCE / "web/static/js").glob("*.js"))
MOST_LINES, MOST_OF_A_FUNCTION = 300, 40
OUTSIDE_CORE = {"fastapi", "starlette", "sqlalchemy", "alembic", "pydantic", "typer", "uvicorn", "jinja2"}


def name(path: Path) -> str:
    return str(path.relative_to(SOURCE))


def test_arrows_never_run_back() -> None:
    """The layers of pyproject.toml, by import-linter."""
    linter = Path(sys.executable).with_name("lint-imports")
    done = subprocess.run([linter], cwd=ROOT, capture_output=True, text=True, timeout=120, check=False)
    assert done.returncode == 0, done.stdout


@pytest.mark.parametrize("path", [*MODULES, *SCRIPTS], ids=name)
def test_modules_stay_small(path: Path) -> None:
    assert len(path.read_text("utf-8").splitlines()) <= MOST_LINES


def length(node: ast.FunctionDef | ast.AsyncFunctionDef) -> int:
    """Lines of a function without decorators, signature and docstring."""
    body = node.body[1:] if ast.get_docstring(node) else node.body
    return (body[-1].end_lineno or 0) - body[0].lineno + 1 if body else 0


@pytest.mark.parametrize("path", MODULES, ids=name)
def test_functions_stay_short(path: Path) -> None:
    """Event loops of the kernels and pages' contexts may be a little longer than the rest."""
    tree = ast.parse(path.read_text("utf-8"))
    functions = [n for n in ast.walk(tree) if isinstance(n, ast.FunctionDef | ast.AsyncFunctionDef)]
    too_long = {n.name: length(n) for n in functions if length(n) > MOST_OF_A_FUNCTION}
    allowed = {"run", "play_until"} if path.name in ("engine.py", "rack.py") else set()
    assert set(too_long) <= allowed, too_long


def test_core_works_alone() -> None:
    """Importing the whole core and the app pulls in no web and no database."""
    modules = [".".join(p.relative_to(SOURCE.parent).with_suffix("").parts) for p in MODULES]
    ours = [m.removesuffix(".__init__") for m in modules if m.startswith(("fandle.core", "fandle.app"))]
    code = (
        f"import sys, {', '.join(ours)}; print([m for m in sys.modules if m.split('.')[0] in {sorted(OUTSIDE_CORE)!r}])"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, timeout=120)
    assert done.stdout.strip() == "[]"


def test_kernels_are_compiled_by_one_module() -> None:
    for path in MODULES:
        if path.name != "jit.py":
            assert "njit" not in path.read_text("utf-8"), path


def test_benches_and_tools_stand_without_the_tests() -> None:
    for folder in ("bench", "tools", "campaign"):
        for path in (ROOT / folder).rglob("*.py"):
            assert not re.search(r"^\s*(from|import) tests\b", path.read_text("utf-8"), re.M), path


def taken_from(tree: ast.AST, names: set[str]) -> bool:
    return any(isinstance(node, ast.Name) and node.id in names for node in ast.walk(tree))


@pytest.mark.parametrize(
    "path",
    sorted(path for path in (ROOT / "tests").rglob("test_*.py") if "tests.amount" in path.read_text("utf-8")),
    ids=lambda path: path.stem,
)
def test_who_tries_a_part_is_marked_for_the_proofs_that_try_the_whole(path: Path) -> None:
    tree, names = ast.parse(path.read_text("utf-8")), {"amount", "WHOLE"}
    for node in tree.body:  # constants and helpers that take their numbers from it, in order
        if isinstance(node, ast.Assign) and taken_from(node.value, names):
            names |= {target.id for target in node.targets if isinstance(target, ast.Name)}
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("test_") and taken_from(node, names):
            names.add(node.name)
    for node in tree.body:
        if isinstance(node, ast.FunctionDef) and node.name.startswith("test_") and taken_from(node, names):
            assert "pytest.mark.proof" in map(ast.unparse, node.decorator_list), node.name


UNITS = ("_M", "_MM", "_S", "_MS", "_MPS", "_RAD", "_DEG", "_KB", "_MB")


def unit_constants(source: str) -> dict[str, str]:
    """A module's constants whose names end in a unit, as they are written."""
    found: dict[str, str] = {}
    for node in ast.parse(source).body:
        if not isinstance(node, ast.Assign):
            continue
        for target in node.targets:
            pairs = [(target, node.value)]
            if isinstance(target, ast.Tuple) and isinstance(node.value, ast.Tuple):
                pairs = list(zip(target.elts, node.value.elts, strict=True))
            found |= {
                name.id: ast.unparse(value)
                for name, value in pairs
                if isinstance(name, ast.Name) and name.id.isupper() and name.id.endswith(UNITS)
            }
    return found


def test_a_measure_of_one_name_has_one_value() -> None:
    values: dict[str, dict[str, str]] = {}
    for path in SOURCE.rglob("*.py"):
        for name, value in unit_constants(path.read_text("utf-8")).items():
            values.setdefault(name, {})[str(path.relative_to(SOURCE))] = value
    assert len(values) > 40
    assert {name: homes for name, homes in values.items() if len(set(homes.values())) > 1} == {}
