"""Where compiled kernels are kept, and that each is compiled once."""

import json
import os
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from fandle.core.physics import kernel_folder

ALONE = """
import json, sys
import numba
{before}
before = numba.config.CACHE_DIR
from fandle.core.physics import jit
from fandle.core.physics.touch import nearest_time
from fandle.core.physics.state import Arc
nearest_time(Arc(0.1, 0.1, 1.0, 1.0, 0.0, 0.0), 1.0)
print(json.dumps({{"folder": str(jit.cache_folder()), "theirs": before == numba.config.CACHE_DIR,
    "hits": sum(nearest_time.stats.cache_hits.values()), "path": str(nearest_time.stats.cache_path)}}))
"""


def alone(before: str = "", **env: str) -> dict[str, object]:
    """What a fresh process that imported numba first finds."""
    done = subprocess.run(
        [sys.executable, "-c", ALONE.format(before=before)], env={**os.environ, **env}, capture_output=True, text=True,
        check=True, timeout=120,
    )  # fmt: skip
    found: dict[str, object] = json.loads(done.stdout)
    return found


def test_the_folder_is_the_users_alone() -> None:
    folder = kernel_folder.cache_folder()
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert folder.stat().st_uid == os.geteuid()
    assert folder.name.startswith(kernel_folder.PREFIX)


def test_a_notebook_that_imported_numba_first_gets_it_and_keeps_its_own() -> None:
    found = alone("numba.config.CACHE_DIR = '/nowhere/mine'")
    assert found["theirs"]
    assert str(found["path"]).startswith(str(kernel_folder.cache_folder()))
    assert found["hits"] == 1


def test_outside_a_virtual_environment_it_lies_in_the_users_cache(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(sys, "prefix", sys.base_prefix)
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path))
    folder = kernel_folder.cache_folder.__wrapped__()
    assert folder.parent == tmp_path / "fandle"
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700


def test_a_folder_that_somebody_else_made_is_not_used(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """A link laid in the way of a name that can be guessed leads nowhere."""
    monkeypatch.setattr(sys, "prefix", sys.base_prefix)
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path))
    name = kernel_folder.cache_folder().name
    (tmp_path / "elsewhere").mkdir()
    (tmp_path / "fandle").mkdir()
    (tmp_path / "fandle" / name).symlink_to(tmp_path / "elsewhere")
    folder = kernel_folder.cache_folder.__wrapped__()
    assert tmp_path not in folder.parents
    assert not list((tmp_path / "elsewhere").iterdir())


def test_old_folders_are_removed(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    here, old, other = (
        tmp_path / f"{kernel_folder.PREFIX}now",
        tmp_path / f"{kernel_folder.PREFIX}before",
        tmp_path / "somebody's",
    )
    for folder in (here, old, other):
        folder.mkdir()
        (folder / "x").touch()
    monkeypatch.setattr(kernel_folder, "cache_folder", lambda: here)
    kernel_folder.forget_old()
    assert (here.exists(), old.exists(), other.exists()) == (True, False, True)


def test_how_far_another_process_is_stands_in_the_folder(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    here = tmp_path / f"{kernel_folder.PREFIX}now"
    here.mkdir()
    monkeypatch.setattr(kernel_folder, "cache_folder", lambda: here)
    assert (kernel_folder.progress(), kernel_folder.ready()) == (0.0, False)
    kernel_folder.tell(0.4)
    assert kernel_folder.progress() == 0.4
    (here / kernel_folder.PROGRESS).write_text("half written", "ascii")
    assert kernel_folder.progress() == 0.0
    kernel_folder.mark()
    assert (kernel_folder.progress(), kernel_folder.ready()) == (1.0, True)
