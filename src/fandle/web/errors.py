"""The one place where errors become HTTP. Every fault is a sentence; no folder of this machine is named in one."""

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from sqlalchemy.exc import SQLAlchemyError
from starlette.exceptions import HTTPException

from fandle.core.errors import BadInputError, EngineError
from fandle.formats.base import fault_sentence
from fandle.store.errors import NameTakenError, NotFoundError, StoreError
from fandle.web.devices import TooManyTriesError
from fandle.web.gate import SECURITY, RefusedError
from fandle.web.work import RETRY_S, BusyError, ClientGoneError

LOG = logging.getLogger(__name__)
GONE = 499  # the client closed the request: nobody reads this


def fault(status: int, message: str, field: str = "", headers: dict[str, str] | None = None) -> JSONResponse:
    """A fault as every route tells it."""
    return JSONResponse({"error": message, "field": field}, status, headers)


def handle_errors(app: FastAPI) -> None:
    """Give the application its error handlers."""
    _trade_errors(app)
    _store_errors(app)

    @app.exception_handler(RefusedError)
    def refused(_: Request, error: RefusedError) -> JSONResponse:
        return fault(error.status, error.sentence, error.field)

    @app.exception_handler(BusyError)
    def busy(_: Request, error: BusyError) -> JSONResponse:
        return fault(503, str(error), "", {"Retry-After": str(RETRY_S)})

    @app.exception_handler(ClientGoneError)
    def gone(_: Request, error: ClientGoneError) -> JSONResponse:
        return fault(GONE, str(error))

    @app.exception_handler(TooManyTriesError)
    def tries(_: Request, error: TooManyTriesError) -> JSONResponse:
        return fault(429, str(error), "code", {"Retry-After": "60"})

    @app.exception_handler(HTTPException)
    def http(_: Request, error: HTTPException) -> JSONResponse:
        told = {
            400: "the body is not JSON: send the question as JSON",
            404: "there is nothing at this address: look at /openapi.json for those that are",
            405: "this address does not take that method",
        }
        return fault(error.status_code, told.get(error.status_code, str(error.detail)), "", dict(error.headers or {}))

    @app.exception_handler(Exception)
    def unforeseen(_: Request, error: Exception) -> JSONResponse:
        LOG.error("unforeseen", exc_info=error)  # outside the gate, so the headers come from here
        return fault(500, "something went wrong here; what it was stands in the server's log", "", SECURITY)


def _trade_errors(app: FastAPI) -> None:
    @app.exception_handler(BadInputError)
    def bad_input(_: Request, error: BadInputError) -> JSONResponse:
        return fault(422, str(error), error.field)

    @app.exception_handler(EngineError)
    def engine(_: Request, error: EngineError) -> JSONResponse:
        return fault(422, str(error))

    @app.exception_handler(RequestValidationError)
    def validation(_: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        if first["type"] == "json_invalid":
            return fault(400, "the body is not JSON: send the question as JSON", "body")
        return fault(422, fault_sentence(first), ".".join(str(part) for part in first["loc"]))


def _store_errors(app: FastAPI) -> None:
    @app.exception_handler(NotFoundError)
    def not_found(_: Request, error: NotFoundError) -> JSONResponse:
        return fault(404, str(error))

    @app.exception_handler(NameTakenError)
    def taken(_: Request, error: NameTakenError) -> JSONResponse:
        return fault(409, str(error), "name")

    @app.exception_handler(StoreError)
    def store(_: Request, error: StoreError) -> JSONResponse:
        return fault(503, str(error))

    @app.exception_handler(SQLAlchemyError)
    def reading(_: Request, error: SQLAlchemyError) -> JSONResponse:
        LOG.error("the database refuses", exc_info=error)
        return fault(503, "the data folder does not answer: check its disk, then try again")
