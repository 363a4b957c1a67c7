"""Bring Bootstrap, fonts and the API's page from the npm registry into web/static/vendor, with licences.

Run by hand when a version changes: python tools/vendor.py [package …]. Needs npm.
"""

import shutil
import subprocess
import sys
import tarfile
import tempfile
from pathlib import Path

ROOT = Path(__file__).parent.parent
VENDOR = ROOT / "src/fandle/web/static/vendor"
TESTS = ROOT / "tests/browser/vendor"
SANS = [f"files/ibm-plex-sans-latin-{w}-normal.woff2" for w in (400, 600)]
CONDENSED = [f"files/ibm-plex-sans-condensed-latin-{w}-normal.woff2" for w in (400, 500, 600, 700)]

BOOTSTRAP, SASS = "5.3.9", "1.89.2"

# package, version, files wanted, folder
PACKAGES = (
    ("bootstrap", BOOTSTRAP, ["dist/js/bootstrap.bundle.min.js"], VENDOR),
    ("@fontsource/ibm-plex-sans", "5.3.0", SANS, VENDOR),
    ("@fontsource/ibm-plex-sans-condensed", "5.3.0", CONDENSED, VENDOR),
    ("swagger-ui-dist", "5.35.0", ["swagger-ui-bundle.js", "swagger-ui.css"], VENDOR),
    ("axe-core", "4.14.1", ["axe.min.js"], TESTS),
)


def fetch(name: str, version: str, files: list[str], into: Path) -> None:
    """Take some files of one package, its licence and its version."""
    folder = into / name.rpartition("/")[2]
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    with tempfile.TemporaryDirectory() as temporary:
        subprocess.run(["npm", "pack", "--ignore-scripts", "--silent", f"{name}@{version}"], cwd=temporary, check=True)
        (archive,) = Path(temporary).glob("*.tgz")
        with tarfile.open(archive) as tar:
            for wanted in [*files, "LICENSE"]:
                source = tar.extractfile(f"package/{wanted}")
                if source is None:
                    raise SystemExit(f"{name}@{version} has no {wanted}")
                data = source.read()
                if wanted.endswith((".css", ".js")):  # maps are not shipped
                    data = b"\n".join(x for x in data.splitlines() if b"sourceMappingURL=" not in x)
                (folder / Path(wanted).name).write_bytes(data)
    (folder / "VERSION").write_text(f"{name} {version}\n")


def compile_bootstrap() -> None:
    """The parts of Bootstrap that tools/bootstrap.scss names, as one style sheet."""
    with tempfile.TemporaryDirectory() as temporary:
        npm = ["npm", "install", "--ignore-scripts", "--silent", "--no-save", "--prefix", temporary]
        subprocess.run([*npm, f"bootstrap@{BOOTSTRAP}", f"sass@{SASS}"], check=True)
        modules = Path(temporary) / "node_modules"
        sass = [modules / ".bin/sass", "--style=compressed", "--no-source-map", "--no-charset", "--quiet-deps"]
        options = ["--silence-deprecation=import", f"--load-path={modules}"]
        target = VENDOR / "bootstrap/bootstrap.min.css"
        subprocess.run(
            [*map(str, sass), *map(str, options), str(ROOT / "tools/bootstrap.scss"), str(target)], check=True
        )


if __name__ == "__main__":
    wanted = sys.argv[1:]  # some packages only
    for package in PACKAGES:
        if not wanted or package[0] in wanted:
            fetch(*package)
            if package[0] == "bootstrap":
                compile_bootstrap()
