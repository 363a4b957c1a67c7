"""What a verb loads: help prints at once, and a table's numbers need no engine."""

import json
import subprocess
import sys

import pytest

LOADED = """
import contextlib, io, json, sys
from fandle.cli import main
with contextlib.redirect_stdout(io.StringIO()), contextlib.suppress(SystemExit):
    main(sys.argv[1:])
print(json.dumps(sorted(sys.modules)))
"""
HEAVY = {"numpy", "numba", "scipy", "pydantic", "sqlalchemy", "fastapi", "uvicorn", "fandle.formats", "fandle.app"}
VERBS = ("simulate", "aim", "count", "plan", "table", "squirt", "check", "diagnose", "drill", "serve", "export")


def loaded(*args: str) -> set[str]:
    """The modules of a fresh process after one command."""
    done = subprocess.run(
        [sys.executable, "-c", LOADED, *args], capture_output=True, text=True, check=True, timeout=120
    )
    return set(json.loads(done.stdout))


def test_help_loads_nothing_of_the_trade() -> None:
    found = loaded("--help")
    assert found & HEAVY == set()
    assert {name for name in found if name.startswith("fandle.core")} <= {"fandle.core", "fandle.core.errors"}


@pytest.mark.parametrize("verb", VERBS)
def test_nor_does_the_help_of_a_verb(verb: str) -> None:
    assert {name for name in loaded(verb, "--help") if name.startswith("fandle.")} & {
        "fandle.core.table", "fandle.core.physics", "fandle.formats", "fandle.app", "fandle.store", "fandle.web",
    } == set()  # fmt: skip


def test_a_table_needs_no_engine() -> None:
    assert loaded("table", "pool-9ft", "--json") & {"numba", "scipy", "sqlalchemy"} == set()


def test_a_plain_aim_needs_no_database_and_no_server() -> None:
    found = loaded("aim", "examples/nine-ball.fandle.json", "--rails", "far", "--json")
    assert "fandle.core.lines.kick" in found
    assert found & {"sqlalchemy", "fastapi", "uvicorn"} == set()


def test_a_verb_that_plays_has_the_engine_compiled_first(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    from fandle.cli import main
    from fandle.core.physics import kernel_folder
    from fandle.work import compiling

    said: list[str] = []
    monkeypatch.setattr(kernel_folder, "ready", lambda: False)
    monkeypatch.setattr(compiling, "compile_meanwhile", lambda: said.append("compiling"))
    for args in (["aim", "--help"], ["table", "pool-9ft"], ["aim", "examples/nine-ball.fandle.json", "--rails", "far"]):
        assert said == []
        with pytest.raises(SystemExit):
            main(args)
    assert said == ["compiling"]
    assert "aim at the far rail" in capsys.readouterr().out


def test_help_names_what_there_is() -> None:
    """Help is printed without the trade, so that its lists are written out: here they are held against it."""
    from fandle.app.cues import SIDE
    from fandle.core.player.body import BUILDS, HANDS
    from fandle.core.player.scatter import PLAYERS
    from fandle.core.shot.cue import CUES, HOUSE
    from fandle.core.table.condition import CLOTHS, RUBBERS

    def told(verb: str) -> str:
        done = subprocess.run(
            [sys.executable, "-m", "fandle.cli", verb, "--help"], capture_output=True, text=True, check=True,
            env={"COLUMNS": "400", "PATH": ""}, timeout=120,
        )  # fmt: skip
        return done.stdout

    assert all(name in told("table") for name in (*CLOTHS, *RUBBERS))
    assert all(name in told("plan") for name in (*PLAYERS, *BUILDS, *HANDS))
    assert all(name in told("count") for name in CUES)
    assert f"[default: {HOUSE.name}]" in told("count")
    assert f"[default: {SIDE:g}]" in told("squirt")
