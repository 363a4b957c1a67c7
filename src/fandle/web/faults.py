"""How a fault is told: one JSON shape for programs, a page in the room's look for whoever opens an address."""

import json
from collections.abc import Sequence
from typing import Any

from fastapi import Request
from fastapi.responses import JSONResponse
from starlette.responses import Response
from typing_extensions import TypedDict

from fandle.core.errors import BadInputError, FandleError

CODES = {
    400: "bad_request", 401: "no_pass", 403: "refused", 404: "not_found", 405: "wrong_method", 408: "slow",
    409: "taken", 411: "no_length", 413: "too_large", 415: "wrong_type", 421: "wrong_host", 422: "invalid",
    429: "too_many_tries", 499: "gone", 500: "failed", 503: "busy",
}  # fmt: skip
TITLES = {404: "There is nothing here", 422: "This address is not understood", 503: "Not just now"}


class Fault(TypedDict):
    """What is wrong with a question: a sentence, a short word for programs, which part of it, and the balls meant."""

    error: str
    code: str
    field: str
    balls: list[str]


# what a route may answer besides what it is asked for
FAULTS: dict[int | str, dict[str, Any]] = {
    400: {"model": Fault, "description": "The body is not JSON."},
    422: {"model": Fault, "description": "The question cannot be; the sentence says what to do."},
}
KEPT: dict[int | str, dict[str, Any]] = {
    **FAULTS,
    404: {"model": Fault, "description": "Nothing of that name is kept."},
    409: {"model": Fault, "description": "The name is in use, or the record was changed meanwhile."},
    503: {"model": Fault, "description": "The disk or the folder refuses; nothing was saved."},
}


def fault_body(status: int, error: str, field: str = "", code: str = "", balls: Sequence[str] = ()) -> Fault:
    """A fault as every route tells it. code: where none is given, the status says it in a word."""
    return {"error": error, "code": code or CODES.get(status, "failed"), "field": field, "balls": list(balls)}


def fault_line(error: FandleError) -> str:
    """What went wrong after an answer of lines had begun: its last line."""
    return json.dumps(fault_body(422, str(error), code=error.code)) + "\n"


def of_input(error: BadInputError) -> Fault:
    """A question that cannot be."""
    return fault_body(422, str(error), error.field, error.code, error.balls)


def fault_response(request: Request, status: int, body: Fault, headers: dict[str, str] | None = None) -> Response:
    """The fault as JSON, or as a page where a person opened the address in a browser."""
    if request.method == "GET" and "text/html" in request.headers.get("accept", ""):
        context: dict[str, Any] = {
            "title": TITLES.get(status, "That did not work"),
            "sentence": f"{body['error'][:1].upper()}{body['error'][1:]}.",
        }
        page: Response = request.app.state.templates.TemplateResponse(request, "fault.html", context, status, headers)
        return page
    return JSONResponse(body, status, headers)
