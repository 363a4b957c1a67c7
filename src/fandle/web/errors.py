"""The one place where errors become HTTP. Every fault is a sentence; no folder of this machine is named in one."""

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from sqlalchemy.exc import SQLAlchemyError
from starlette.exceptions import HTTPException
from starlette.responses import Response

from fandle.core.errors import BadInputError, EngineError
from fandle.formats.base import fault_code, fault_sentence
from fandle.store.errors import ChangedError, NameTakenError, NotFoundError, StoreError
from fandle.web.bodies import RefusedError
from fandle.web.devices import TooManyTriesError
from fandle.web.faults import fault_body, fault_response, of_input
from fandle.web.gate import SECURITY
from fandle.work.solvers import RETRY_S, BusyError, ClientGoneError

LOG = logging.getLogger(__name__)
GONE = 499  # the client closed the request: nobody reads this


def handle_errors(app: FastAPI) -> None:
    """Give the application its error handlers."""
    _trade_errors(app)
    _store_errors(app)
    _server_errors(app)


def _server_errors(app: FastAPI) -> None:
    @app.exception_handler(RefusedError)
    def refused(request: Request, error: RefusedError) -> Response:
        return fault_response(request, error.status, error.body)

    @app.exception_handler(BusyError)
    def busy(request: Request, error: BusyError) -> Response:
        return fault_response(request, 503, fault_body(503, str(error)), {"Retry-After": str(RETRY_S)})

    @app.exception_handler(ClientGoneError)
    def gone(request: Request, error: ClientGoneError) -> Response:
        return fault_response(request, GONE, fault_body(GONE, str(error)))

    @app.exception_handler(TooManyTriesError)
    def tries(request: Request, error: TooManyTriesError) -> Response:
        return fault_response(request, 429, fault_body(429, str(error), "code"), {"Retry-After": "60"})

    @app.exception_handler(HTTPException)
    def http(request: Request, error: HTTPException) -> Response:
        told = {
            400: "the body is not JSON: send the question as JSON",
            404: "there is nothing at this address: check its spelling, or see /docs for those that there are",
            405: "this address does not take that method",
        }
        status = error.status_code
        body = fault_body(status, told.get(status, str(error.detail)))
        return fault_response(request, status, body, dict(error.headers or {}))

    @app.exception_handler(Exception)
    def unforeseen(request: Request, error: Exception) -> Response:
        LOG.error("unforeseen", exc_info=error)  # outside the gate, so the headers come from here
        told = fault_body(500, "something went wrong here; what it was stands in the server's log")
        return fault_response(request, 500, told, SECURITY)


def _trade_errors(app: FastAPI) -> None:
    @app.exception_handler(BadInputError)
    def bad_input(request: Request, error: BadInputError) -> Response:
        return fault_response(request, 422, of_input(error))

    @app.exception_handler(EngineError)
    def engine(request: Request, error: EngineError) -> Response:
        return fault_response(request, 422, fault_body(422, str(error), code=error.code))

    @app.exception_handler(RequestValidationError)
    def validation(request: Request, error: RequestValidationError) -> Response:
        first = error.errors()[0]
        if first["type"] == "json_invalid":
            told = fault_body(400, "the body is not JSON: send the question as JSON", "body", "not_json")
            return fault_response(request, 400, told)
        place = ".".join(str(part) for part in first["loc"])
        return fault_response(request, 422, fault_body(422, fault_sentence(first), place, fault_code(first)))


def _store_errors(app: FastAPI) -> None:
    @app.exception_handler(NotFoundError)
    def not_found(request: Request, error: NotFoundError) -> Response:
        return fault_response(request, 404, fault_body(404, str(error)))

    @app.exception_handler(NameTakenError)
    def taken(request: Request, error: NameTakenError) -> Response:
        return fault_response(request, 409, fault_body(409, str(error), "name"))

    @app.exception_handler(ChangedError)
    def changed(request: Request, error: ChangedError) -> Response:
        return fault_response(request, 409, fault_body(409, str(error), code="changed"))

    @app.exception_handler(StoreError)
    def store(request: Request, error: StoreError) -> Response:
        return fault_response(request, 503, fault_body(503, str(error), code="no_disk"))

    @app.exception_handler(SQLAlchemyError)
    def reading(request: Request, error: SQLAlchemyError) -> Response:
        LOG.error("the database refuses", exc_info=error)
        told = "the data folder does not answer: check its disk, then try again"
        return fault_response(request, 503, fault_body(503, told, code="no_disk"))
