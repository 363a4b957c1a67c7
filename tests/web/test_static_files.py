"""The page's own files: kept for good under an address that changes with them, asked for anew under the plain one."""

import re
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fandle.web.static_files import FOLDER, version


def test_a_versioned_file_lasts_and_the_plain_one_is_asked_for_anew(client: TestClient) -> None:
    lasting = client.get(f"/static/{version()}/js/main.js")
    plain = client.get("/static/js/main.js")
    assert plain.text == (FOLDER / "js" / "main.js").read_text("utf-8")
    assert lasting.text != plain.text
    assert lasting.headers["content-type"] == plain.headers["content-type"]
    assert "immutable" in lasting.headers["cache-control"]
    assert plain.headers["cache-control"] == "no-cache"
    assert client.get("/static/000000000000/js/main.js").status_code == 404
    assert client.get("/").headers["cache-control"] == "no-store"


def test_every_page_names_the_files_of_this_version(client: TestClient) -> None:
    for path in ("/", "/compare", "/handbook", "/handbook/M3", "/log", "/club"):
        found = set(re.findall(r'(?:href|src)="(/static/[^"]+)"', client.get(path).text))
        assert len(found) > 5
        assert all(each.startswith(f"/static/{version()}/") for each in found), path
        assert all(client.get(each).status_code == 200 for each in found)


def with_imports(name: str, found: set[str]) -> set[str]:
    """A script and all that it brings along."""
    if name not in found:
        found.add(name)
        text = (FOLDER / "js" / name).read_text("utf-8")
        brought = re.findall(r'^import .*?from "\./([\w-]+\.js)";', text, re.MULTILINE)
        for each in [*brought, *(["main.js"] if name == "start.js" else [])]:
            with_imports(each, found)
    return found


def test_the_table_rooms_scripts_and_styles_are_light(client: TestClient) -> None:
    # asked: at most 120 kB beside Bootstrap and fonts, as the browser reads them; fewer still come over the wire
    named = set(re.findall(r'(?:href|src)="/static/\w+/((?:js|css)/[^"]+)"', client.get("/").text))
    assert {"js/start.js", "js/settings.js", "js/theme.js", "css/table.css", "css/page.css"} <= named
    scripts: set[str] = set()
    for each in named:
        if each.startswith("js/"):
            with_imports(each.removeprefix("js/"), scripts)
    ours = {each for each in named if each.startswith("css/")} | {f"js/{each}" for each in scripts}
    assert len(scripts) > 30
    assert sum(len(client.get(f"/static/{version()}/{each}").content) for each in ours) < 120_000


def test_a_file_of_others_and_one_asked_for_as_written_come_whole(client: TestClient) -> None:
    for path in ("vendor/bootstrap/bootstrap.min.css", "icon.svg"):
        assert client.get(f"/static/{version()}/{path}").content == (FOLDER / path).read_bytes()


def test_a_browser_that_looks_for_an_icon_by_itself_finds_it(client: TestClient) -> None:
    found = client.get("/favicon.ico")
    assert found.headers["content-type"] == "image/svg+xml"
    assert found.content == (FOLDER / "icon.svg").read_bytes()


@pytest.mark.parametrize("script", sorted((FOLDER / "js").glob("*.js")), ids=lambda path: path.name)
def test_no_template_stands_inside_another(script: Path) -> None:
    """The packer takes the blanks out of a template literal inside another's `${}`: "already.The count"."""
    for number, line in enumerate(script.read_text("utf-8").splitlines(), 1):
        assert not re.search(r"`[^`]*\$\{[^}`]*`", line), f"line {number}: {line.strip()}"
