"""The package as others get it: installed into a bare environment, one verb and one page."""

import json
import os
import signal
import subprocess
import sys
import tomllib
from collections.abc import Iterator
from importlib.metadata import version
from pathlib import Path

import pytest
from campaign.browser import free_port
from tests.web.test_first_minute import asked, until

ROOT = Path(__file__).parent.parent


@pytest.fixture(scope="module")
def bare(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An environment with the wheel and what the lock names, nothing else."""
    folder = tmp_path_factory.mktemp("wheel")
    uv, python = [sys.executable, "-m", "uv"], str(folder / "env" / "bin" / "python")
    install = [*uv, "pip", "install", "--quiet", "--python", python, "--no-deps"]

    def run(*command: str) -> None:
        done = subprocess.run(command, capture_output=True, text=True, timeout=300, check=False)
        assert done.returncode == 0, (command, done.stderr)

    run(*uv, "build", "--quiet", "--wheel", "--no-build-isolation", "--out-dir", str(folder), str(ROOT))
    run(*uv, "venv", "--quiet", "--python", sys.executable, str(folder / "env"))
    run(*install, "-r", str(ROOT / "requirements" / "runtime.txt"))
    run(*install, str(next(folder.glob("*.whl"))))
    return folder / "env"


@pytest.fixture
def page(bare: Path, tmp_path: Path) -> Iterator[str]:
    """Its server's address, kernels not compiled yet; it goes with everything that it started."""
    port = free_port()
    process = subprocess.Popen(
        [bare / "bin" / "fandle", "serve", "--demo", "--port", str(port), "--json"], cwd=tmp_path,
        env={"PATH": "", "HOME": str(tmp_path), "FANDLE_HOME": str(tmp_path / "home")}, start_new_session=True,
        stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
    )  # fmt: skip
    try:
        yield f"http://127.0.0.1:{port}"
    finally:
        os.killpg(process.pid, signal.SIGKILL)
        process.wait(30)


def test_a_verb_of_the_wheel(bare: Path, tmp_path: Path) -> None:
    done = subprocess.run(
        [bare / "bin" / "fandle", "table", "pool-9ft", "--json"], capture_output=True, text=True, check=True,
        cwd=tmp_path, timeout=120,
    )  # fmt: skip
    assert json.loads(done.stdout)["name"] == "pool-9ft"


def test_a_page_of_the_wheel(page: str) -> None:
    until(page, "compiling")
    status, text = asked(f"{page}/")
    assert status == 200
    assert b"The blocked seven" in text
    assert asked(f"{page}/static/icon.svg")[0] == 200


def test_the_version_has_one_home() -> None:
    told = tomllib.loads((ROOT / "pyproject.toml").read_text("utf-8"))["project"]["version"]
    assert version("fandle") == told
    printed = subprocess.run(
        [sys.executable, "-m", "fandle.cli", "--version"], capture_output=True, text=True, check=True, timeout=60
    )
    assert printed.stdout.strip() == f"fandle {told}"
    assert f"## {told}" in (ROOT / "CHANGELOG.md").read_text("utf-8")
