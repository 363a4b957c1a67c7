"""The API's own documentation: FastAPI's page, its scripts and styles shipped with the application."""

from fastapi import APIRouter, Request
from fastapi.openapi.docs import get_swagger_ui_html
from fastapi.responses import HTMLResponse

from fandle.web import address

router = APIRouter()
ASSETS = f"{address.STATIC}/vendor/swagger-ui-dist"
# the page sets itself up in a script of its own, and draws with styles and pictures written into it
POLICY = (
    "default-src 'none'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "connect-src 'self'; base-uri 'none'; frame-ancestors 'none'"
)


@router.get(address.DOCS, include_in_schema=False)
def docs(request: Request) -> HTMLResponse:
    """Every route, what it takes and what it answers; each can be tried."""
    page = get_swagger_ui_html(
        openapi_url=str(request.app.openapi_url),
        title="Fandle: the API",
        swagger_js_url=f"{ASSETS}/swagger-ui-bundle.js",
        swagger_css_url=f"{ASSETS}/swagger-ui.css",
        swagger_favicon_url=f"{address.STATIC}/icon.svg",
    )
    page.headers["Content-Security-Policy"] = POLICY
    return page
