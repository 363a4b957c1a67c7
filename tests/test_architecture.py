"""The house keeps its shape: arrows run web → store → core and never back; modules stay small."""

import ast
import subprocess
import sys
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src/fandle"
MODULES = sorted(SOURCE.rglob("*.py"))
# which rooms each room may look into
ALLOWED = {
    "core": {"core"},
    "formats": {"core", "formats"},
    "store": {"core", "formats", "store"},
    "web": {"core", "formats", "store", "web"},
    "cli": {"core", "formats", "store", "web", "cli"},
}
OUTSIDE_CORE = {"fastapi", "starlette", "sqlalchemy", "alembic", "pydantic", "typer", "uvicorn", "jinja2"}


def imports(path: Path) -> set[str]:
    names = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            names |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            names.add(node.module)
            names |= {f"{node.module}.{alias.name}" for alias in node.names}
    return names


def room(path: Path) -> str:
    return path.relative_to(SOURCE).parts[0].removesuffix(".py")


@pytest.mark.parametrize("path", MODULES, ids=lambda p: str(p.relative_to(SOURCE)))
def test_arrows_never_run_back(path: Path) -> None:
    here = room(path)
    if here == "__init__":
        return
    for name in imports(path):
        parts = name.split(".")
        if parts[0] == "fandle" and len(parts) > 1:
            assert parts[1] in ALLOWED[here], f"{path} imports {name}"
        if here == "core":
            assert parts[0] not in OUTSIDE_CORE, f"{path} imports {name}"


@pytest.mark.parametrize("path", [*MODULES, *sorted((SOURCE / "web/static/js").glob("*.js"))], ids=lambda p: p.name)
def test_modules_stay_small(path: Path) -> None:
    assert len(path.read_text("utf-8").splitlines()) <= 400


def test_core_works_alone() -> None:
    """Importing the whole core pulls in no web and no database."""
    code = (
        f"import sys, fandle.core.warm; print([m for m in sys.modules if m.split('.')[0] in {sorted(OUTSIDE_CORE)!r}])"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, timeout=120)
    assert done.stdout.strip() == "[]"


def test_kernels_are_compiled_by_one_decorator() -> None:
    for path in MODULES:
        if path.name != "jit.py":
            assert "njit" not in path.read_text("utf-8"), path
