"""The README's examples run and give what they say; its pictures exist."""

import json
import re
import shlex
from pathlib import Path

import pytest
from tests.conftest import CONTRACT_LAYOUT, fandle

ROOT = Path(__file__).parent.parent
README = (ROOT / "README.md").read_text("utf-8")


def test_the_notebook_example(capsys: pytest.CaptureFixture[str]) -> None:
    code = re.findall(r"```python\n(.*?)```", README, re.S)[0]
    exec(compile(code, "README.md", "exec"), {})
    assert capsys.readouterr().out.strip() == re.findall(r"print.*# (\S+)", code)[0]


def test_the_command_lines(tmp_path: Path) -> None:
    path = tmp_path / "layout.fandle.json"
    path.write_text(json.dumps(CONTRACT_LAYOUT))
    block = re.findall(r"```sh\n(.*?)```", README, re.S)[0]
    for line in block.splitlines():
        words = shlex.split(line.replace("layout.fandle.json", str(path)))
        assert words[0] == "fandle"
        done = fandle(*words[1:])
        assert done.returncode == 0, done.stderr
        assert done.stdout


def test_links_lead_somewhere() -> None:
    for page in (ROOT / "README.md", ROOT / "docs/formats.md"):
        for link in re.findall(r"\]\(([^)#]+)\)", page.read_text("utf-8")):
            assert (page.parent / link).exists(), f"{page.name}: {link}"
