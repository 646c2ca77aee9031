"""Every refusal and failure as one JSON form: `{"errors": [{"field", "reason", "accepted"}]}`, in the trade's words."""

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DataError, DBAPIError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from starlette.exceptions import HTTPException

from pliant_coil.core.ring_file.document import RingFile
from pliant_coil.core.ring_file.faults import MOST_FAULTS, fault_from
from pliant_coil.core.trade.sizes import SYSTEMS
from pliant_coil.core.words.refusal import Fault, Refusal, fault
from pliant_coil.core.words.say import Reader, write
from pliant_coil.services.scope import Forbidden, NotFound
from pliant_coil.services.sign_in import SignInNeeded, TooSoon
from pliant_coil.web_api.heavy import TooBusy
from pliant_coil.web_api.logs import LARGEST_BODY, TooLarge


class Problem(BaseModel):
    """One thing that is wrong."""

    field: str
    reason: str
    accepted: str


class Problems(BaseModel):
    """Why a request was refused."""

    errors: list[Problem]


REFUSED: dict[int | str, dict[str, object]] = {
    422: {"model": Problems, "description": "Refused, with the field and the reason"},
    413: {"model": Problems, "description": "More than any ring file holds"},
}
BUSY: dict[int | str, dict[str, object]] = {503: {"model": Problems, "description": "Too many wait; Retry-After says when"}}
SLOWED: dict[int | str, dict[str, object]] = {429: {"model": Problems, "description": "Too many wrong passwords; Retry-After says when"}}
MISSING: dict[int | str, dict[str, object]] = {404: {"model": Problems, "description": "There is no such ring"}}


_NO_JSON = fault("", "this isn't JSON that can be read", "a JSON object in UTF-8")


def _answer(status: int, *faults: Fault, reader: Reader = Reader()) -> JSONResponse:
    errors = [{"field": f.field, "reason": write(f.reason, reader), "accepted": write(f.accepted, reader)} for f in faults]
    return JSONResponse({"errors": errors}, status)


def install(app: FastAPI) -> None:
    """Teach `app` to answer every error in this form."""
    log = structlog.get_logger("problems")

    @app.exception_handler(Refusal)
    async def refused(request: Request, refusal: Refusal) -> JSONResponse:
        return _answer(422, *refusal.faults, reader=_reader_of(request))

    @app.exception_handler(RequestValidationError)
    async def invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        faults: dict[str, Fault] = {}
        for detail in error.errors()[:MOST_FAULTS]:
            found = _request_fault(detail)
            faults.setdefault(found.field, found)
        return _answer(422, *faults.values())

    @app.exception_handler(NotFound)
    async def missing(_: Request, error: NotFound) -> JSONResponse:
        return _answer(404, fault("", str(error)))

    @app.exception_handler(SignInNeeded)
    async def unknown(_: Request, error: SignInNeeded) -> JSONResponse:
        return _answer(401, fault("", str(error)))

    @app.exception_handler(Forbidden)
    async def forbidden(_: Request, error: Forbidden) -> JSONResponse:
        return _answer(403, fault("", str(error)))

    @app.exception_handler(TooSoon)
    async def too_soon(_: Request, error: TooSoon) -> JSONResponse:
        answer = _answer(429, fault("password", str(error)))
        answer.headers["retry-after"] = str(error.seconds)
        return answer

    @app.exception_handler(TooLarge)
    async def too_large(_: Request, __: TooLarge) -> JSONResponse:
        return _answer(413, fault("", "that is more than any ring file holds", f"up to {LARGEST_BODY} bytes"))

    @app.exception_handler(HTTPException)
    async def http(request: Request, error: HTTPException) -> JSONResponse:
        # FastAPI wraps what went wrong while a body was read.
        if isinstance(error.__cause__, TooLarge):
            return await too_large(request, error.__cause__)
        if error.status_code == 400:
            return _answer(422, _NO_JSON)
        return _answer(error.status_code, fault("", str(error.detail)))

    @app.exception_handler(DataError)
    async def unstorable(_: Request, __: DataError) -> JSONResponse:
        return _answer(422, fault("", "holds characters that can't be kept", "ordinary text"))

    @app.exception_handler(OperationalError)
    @app.exception_handler(PoolTimeout)
    async def unavailable(_: Request, error: Exception) -> JSONResponse:
        log.error("database", error=type(error).__name__)
        answer = _answer(503, fault("", "the record book doesn't answer just now; look whether it was saved before you save again"))
        answer.headers["retry-after"] = "2"
        return answer

    @app.exception_handler(TooBusy)
    async def busy(_: Request, __: TooBusy) -> JSONResponse:
        answer = _answer(503, fault("", "more is being asked here just now than can be kept up with", "the same again in a moment"))
        answer.headers["retry-after"] = "1"
        return answer

    @app.exception_handler(DBAPIError)
    async def database(request: Request, error: DBAPIError) -> JSONResponse:
        return await (unavailable if error.connection_invalidated else unexpected)(request, error)

    @app.exception_handler(Exception)
    async def unexpected(request: Request, error: Exception) -> JSONResponse:
        log.error("unexpected", path=request.url.path, exc_info=error)
        return _answer(500, fault("", "something went wrong on our side; nothing was changed"))


def _reader_of(request: Request) -> Reader:
    """For whom a refusal is written; the usual reader where the request says it wrongly."""
    systems = tuple(code for code in request.query_params.get("sizes", "").split(",") if code in SYSTEMS)
    return Reader("in" if request.query_params.get("units") == "in" else "mm", systems or ("us", "uk"))


def _request_fault(detail: dict[str, object]) -> Fault:
    place, *steps = detail["loc"] if isinstance(detail["loc"], list | tuple) else (detail["loc"],)
    if detail["type"] == "json_invalid":
        return _NO_JSON
    if place == "body" and not steps:
        return fault("", "a JSON object is missing" if detail["type"] == "missing" else "this isn't a JSON object", "a JSON object")
    # Bodies that hold a ring file under `file` are named from inside it, as everywhere.
    inner = steps[1:] if place == "body" and steps[0] == "file" and len(steps) > 1 else steps
    return fault_from({**detail, "loc": tuple(inner)}, RingFile if place == "body" else None)
