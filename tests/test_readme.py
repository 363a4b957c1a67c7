"""The README's examples run and give what they say; its pictures exist."""

import json
import re
import shlex
from pathlib import Path

import jsonschema
import pytest
from tests.conftest import fandle
from tests.demo import demo_practice

from fandle.cli import main
from fandle.core.table.standards import standard_table
from fandle.formats.check import read_check
from fandle.formats.files import read_layout
from fandle.store.database import Database
from fandle.store.demo_data import demo_club
from fandle.store.queries import fill_demo

ROOT = Path(__file__).parent.parent
README = (ROOT / "README.md").read_text("utf-8")
BLOCKS = re.findall(r"```sh\n(.*?)```", README, re.S)
EXAMPLES = ROOT / "examples"


def test_the_notebook_example(capsys: pytest.CaptureFixture[str]) -> None:
    code = re.findall(r"```python\n(.*?)```", README, re.S)[0]
    exec(compile(code, "README.md", "exec"), {})
    assert capsys.readouterr().out.splitlines() == re.findall(r"print.*# (.+)", code)


def in_process(arguments: list[str], capsys: pytest.CaptureFixture[str]) -> str:
    """What a command prints, run here."""
    capsys.readouterr()
    with pytest.raises(SystemExit, match="0"):
        main(arguments)
    return capsys.readouterr().out


@pytest.mark.parametrize("line", BLOCKS[0].splitlines())
def test_the_command_lines(line: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> None:
    """As they stand there, from the folder that holds the examples; with --json each answers as its schema says (of the
    plans, which take seconds, one)."""
    monkeypatch.chdir(ROOT)
    words = shlex.split(line)
    assert words[0] == "fandle"
    printed = in_process(words[1:], capsys)
    assert printed
    if words[1] == "plan" and "--json" not in words:
        return
    verb = "instead" if "--hold" in words else words[1]
    told = json.loads(printed if "--json" in words else in_process([*words[1:], "--json"], capsys))
    for answer in told if isinstance(told, list) else [told]:
        jsonschema.validate(answer, json.loads((ROOT / f"docs/schemas/{verb}.schema.json").read_text("utf-8")))


def test_the_examples_are_one_a_game_a_log_a_check_and_drills() -> None:
    layouts = [read_layout(path.read_text("utf-8")) for path in sorted(EXAMPLES.glob("*.fandle.json"))]
    assert {layout.game for layout in layouts} == {
        "eight-ball", "nine-ball", "ten-ball", "straight", "snooker", "three-cushion",
    }  # fmt: skip
    seen = read_check((EXAMPLES / "evening.check.json").read_text("utf-8"), standard_table("pool-9ft"))
    assert len({one.setup.id for one in seen}) == 6


def test_the_commands_that_keep_the_data(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.chdir(tmp_path)
    database = Database.open(tmp_path / "home")
    fill_demo(database, demo_club(), demo_practice)
    database.close()
    (tmp_path / "examples").symlink_to(EXAMPLES)
    said = {}
    for line in BLOCKS[1].splitlines():
        done = fandle(*shlex.split(line)[1:], env={"FANDLE_HOME": str(tmp_path / "home")})
        assert done.returncode == 0, done.stderr
        said[line.split()[1]] = done.stdout
    assert {"evening.sqlite3", "log.json"} <= {path.name for path in tmp_path.iterdir()}
    assert "0 new of 12 attempts" in said["import"]
    assert len(said["log"].splitlines()) == 6  # the figures, then five attempts
    assert len(json.loads(said["layouts"])) == len(demo_club()["layouts"])


def test_links_lead_somewhere() -> None:
    for page in (*ROOT.glob("*.md"), *(ROOT / "docs").rglob("*.md"), ROOT / "bench/README.md"):
        for link in re.findall(r"\]\(([^)#]+)\)", page.read_text("utf-8")):
            assert link.startswith("http") or (page.parent / link).exists(), f"{page.name}: {link}"
