"""The page's own files: under an address that changes with their content, so that a browser keeps them for good.

`/static/VERSION/js/main.js` may be kept for ever, and comes without its comments and blanks; `/static/js/main.js` is
the file as it is written, asked for anew each time.
"""

import hashlib
from functools import cache
from pathlib import Path
from typing import Any

import rcssmin
import rjsmin
from fastapi import FastAPI, Response
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from fastapi.templating import Jinja2Templates

from fandle.web import address

FOLDER = Path(__file__).parent / "static"
VENDOR = FOLDER / "vendor"
FOR_EVER = "public, max-age=31536000, immutable"
QUICK = 4  # compression: a phone's wireless gains, this machine hardly loses


class Lasting(StaticFiles):
    """Files that never change under their address."""

    def file_response(self, full_path: Any, *args: Any, **kwargs: Any) -> Any:
        """The file, to be kept."""
        response = super().file_response(full_path, *args, **kwargs)
        if (short := shortened(str(full_path))) is not None:
            response = Response(short, media_type=response.media_type)
        response.headers["Cache-Control"] = FOR_EVER
        return response


@cache
def shortened(path: str) -> str | None:
    """A script or a style sheet of ours without comments and blanks; None for other files and those of others."""
    file = Path(path)
    packers = {".js": rjsmin.jsmin, ".css": rcssmin.cssmin}
    if file.suffix not in packers or VENDOR in file.parents:
        return None
    return str(packers[file.suffix](file.read_text("utf-8")))


@cache
def version() -> str:
    """Named by what the files hold."""
    digest = hashlib.sha256()
    for path in sorted(path for path in FOLDER.rglob("*") if path.is_file()):
        digest.update(path.read_bytes())
    return digest.hexdigest()[:12]


def mount(app: FastAPI, templates: Jinja2Templates) -> None:
    """Serve the files, and tell the templates where they are."""
    lasting = f"{address.STATIC}/{version()}"
    templates.env.globals["static"] = lasting
    app.mount(lasting, GZipMiddleware(Lasting(directory=FOLDER), compresslevel=QUICK), name="lasting")
    app.mount(address.STATIC, StaticFiles(directory=FOLDER), name="static")

    @app.get("/favicon.ico", include_in_schema=False)
    def favicon() -> FileResponse:
        """The icon, where a browser looks for one by itself: beside a file or a JSON answer, which names none."""
        return FileResponse(FOLDER / "icon.svg", media_type="image/svg+xml")
