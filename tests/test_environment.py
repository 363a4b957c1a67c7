"""What surrounds the product: scripts that hide no package, tools that install it in current versions."""

import importlib.metadata
import re
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
FOLDERS = ("bench", "tools", "campaign")  # a script's own folder is the first on its path


def test_no_script_bears_the_name_of_a_package() -> None:
    """`bench/coverage.py` hid the package from numba, so that no bench beside it that compiles could start."""
    taken = set(importlib.metadata.packages_distributions()) | set(sys.stdlib_module_names)
    hidden = [
        f"{folder}/{path.name}"
        for folder in FOLDERS
        for path in sorted((ROOT / folder).glob("*.py"))
        if path.stem in taken and path.stem != "__init__"
    ]
    assert hidden == []


LOCKED = re.findall(r"^(\w+)==(\S+)", (ROOT / "requirements/installers.txt").read_text(), re.M)


def test_what_installs_is_locked() -> None:
    assert [name for name, _ in LOCKED] == ["setuptools", "uv"]  # no pip: nothing needs it once uv is there


@pytest.mark.parametrize(("name", "version"), LOCKED)
def test_what_installs_is_in_the_locked_version(name: str, version: str) -> None:
    """Those that come with a fresh environment are years old, with holes that are known."""
    assert importlib.metadata.version(name) == version
