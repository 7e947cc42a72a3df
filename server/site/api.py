"""The API: every router, and what becomes of every kind of error."""

from typing import Any

from django.core.exceptions import NON_FIELD_ERRORS, ObjectDoesNotExist, ValidationError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, Throttled
from ninja.errors import ValidationError as RequestError
from ninja.security import django_auth

from carpentry.language import CarpentryError
from server.accounts.api import router as accounts
from server.book.api import router as book
from server.common.schemas import ConflictOut, ErrorOut, ProblemOut
from server.common.workbooks import TooLarge
from server.days.api import router as days
from server.documents.api import router as documents
from server.history.models import Conflict
from server.history.showing import shown
from server.plans.api import router as plans
from server.projects.api import router as projects
from server.projects.measures import router as measures
from server.projects.shapes import router as shapes
from server.projects.workshop import router as workshop
from server.rack.api import router as rack
from server.shop.api import router as shop
from server.sizes.api import router as sizes
from server.stocks.api import router as materials
from server.tools.api import router as tools
from server.trips.api import router as trips
from server.yards.api import router as yards

api = NinjaAPI(title="Grain Tally", version="1", auth=django_auth, docs_url=None)
for router in (
    accounts,
    workshop,
    projects,
    measures,
    shapes,
    plans,
    yards,
    sizes,
    materials,
    rack,
    tools,
    trips,
    shop,
    days,
    book,
    documents,
):
    api.add_router("", router)


def _answer(request: HttpRequest, status: int, detail: str, problems: list[ProblemOut]) -> Any:
    error = ErrorOut(detail=detail, problems=problems)
    return api.create_response(request, error, status=status)


@api.exception_handler(CarpentryError)
def carpentry_error(request: HttpRequest, error: CarpentryError) -> HttpResponse:
    problems = [ProblemOut(place=p.place, message=p.message) for p in error.problems]
    return _answer(request, 422, problems[0].message if problems else "wrong input", problems)


@api.exception_handler(ValidationError)
def validation_error(request: HttpRequest, error: ValidationError) -> HttpResponse:
    by_field = error.message_dict if hasattr(error, "error_dict") else {"": error.messages}
    problems = [
        ProblemOut(place="" if field == NON_FIELD_ERRORS else field, message=message)
        for field, messages in by_field.items()
        for message in messages
    ]
    return _answer(request, 422, problems[0].message, problems)


@api.exception_handler(RequestError)
def request_error(request: HttpRequest, error: RequestError) -> HttpResponse:
    problems = [
        ProblemOut(place=str(fault["loc"][-1]), message=str(fault["msg"])) for fault in error.errors
    ]
    return _answer(request, 422, "the request is not well formed", problems)


@api.exception_handler(Http404)
def not_found(request: HttpRequest, error: Http404) -> HttpResponse:
    return _answer(request, 404, "there is nothing of yours here", [])


@api.exception_handler(ObjectDoesNotExist)
def gone(request: HttpRequest, error: ObjectDoesNotExist) -> HttpResponse:
    return _answer(request, 404, "this is not there any more", [])


@api.exception_handler(AuthenticationError)
def not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return _answer(request, 401, "sign in to go on", [])


@api.exception_handler(Throttled)
def throttled(request: HttpRequest, error: Throttled) -> HttpResponse:
    return _answer(request, 429, "too many attempts: wait a minute and try again", [])


@api.exception_handler(TooLarge)
def too_large(request: HttpRequest, error: TooLarge) -> HttpResponse:
    return _answer(request, 413, "the file is over 5 MB, or unpacks to too much", [])


@api.exception_handler(Conflict)
def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
    seen = error.subject.revision(error.seen_version)
    answer = ConflictOut(
        detail="this was changed somewhere else meanwhile; what you typed is kept",
        seen=seen.snapshot if seen else None,
        current=shown(error.subject),
    )
    return api.create_response(request, answer, status=409)
