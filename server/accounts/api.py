"""The API of accounts: signing up, in and out, and taking everything away."""

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router
from ninja.throttling import AuthRateThrottle

from server.accounts.doors import DOOR, FromOurPages
from server.accounts.models import User
from server.accounts.schemas import ConfirmIn, CredentialsIn, PasswordIn, SessionOut
from server.common.schemas import ErrorOut

router = Router(tags=["accounts"])
CHECKS = [AuthRateThrottle(settings.SIGN_IN_RATE)]


def _session(request: HttpRequest) -> SessionOut:
    get_token(request)
    user = request.user
    return SessionOut(
        username=user.username if user.is_authenticated else "",
        is_demo=user.is_authenticated and user.username == settings.DEMO_USER,
        demo_available=User.objects.filter(username=settings.DEMO_USER).exists(),
    )


@router.get("/session", response=SessionOut, auth=None)
def get_session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request)


@router.post(
    "/session",
    response={200: SessionOut, 422: ErrorOut, 429: ErrorOut},
    auth=FromOurPages(),
    throttle=DOOR,
)
def sign_in(request: HttpRequest, credentials: CredentialsIn) -> SessionOut:
    """Signs in."""
    user = authenticate(request, username=credentials.username, password=credentials.password)
    if user is None:
        raise ValidationError({"password": "the name or the password is wrong"})
    login(request, user)
    return _session(request)


@router.post("/session/demo", response={200: SessionOut, 422: ErrorOut}, auth=FromOurPages())
def enter_demo(request: HttpRequest) -> SessionOut:
    """Signs in to the made-up workshop, while its data is loaded."""
    user = User.objects.filter(username=settings.DEMO_USER).first()
    if user is None:
        raise ValidationError("the demo workshop is not loaded here")
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.delete("/session", response=SessionOut)
def sign_out(request: HttpRequest) -> SessionOut:
    """Signs out."""
    logout(request)
    return _session(request)


@router.post(
    "/account",
    response={200: SessionOut, 422: ErrorOut, 429: ErrorOut},
    auth=FromOurPages(),
    throttle=DOOR,
)
def sign_up(request: HttpRequest, credentials: CredentialsIn) -> SessionOut:
    """Makes an account and signs in to it."""
    user = User(username=credentials.username.strip())
    user.set_password(credentials.password)
    faults: dict[str, list[str]] = {}
    try:
        validate_password(credentials.password, user)
    except ValidationError as error:
        faults["password"] = error.messages
    try:
        user.full_clean()
    except ValidationError as error:
        faults |= error.message_dict
    if faults:
        raise ValidationError(faults)
    with transaction.atomic():
        user.save()
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.post(
    "/account/password", response={200: SessionOut, 422: ErrorOut, 429: ErrorOut}, throttle=CHECKS
)
def change_password(request: HttpRequest, change: PasswordIn) -> SessionOut:
    """Changes the password."""
    user = _checked(request, change.old, "old")
    try:
        validate_password(change.new, user)
    except ValidationError as error:
        raise ValidationError({"new": error.messages}) from error
    user.set_password(change.new)
    user.save()
    update_session_auth_hash(request, user)
    return _session(request)


@router.post(
    "/account/delete", response={200: SessionOut, 422: ErrorOut, 429: ErrorOut}, throttle=CHECKS
)
def delete_account(request: HttpRequest, confirm: ConfirmIn) -> SessionOut:
    """Deletes the account with everything in it; the password confirms it."""
    user = _checked(request, confirm.password, "password")
    logout(request)
    user.delete()
    return _session(request)


def _checked(request: HttpRequest, password: str, field: str) -> User:
    """The signed-in user, whose password this must be. The demo workshop has none to change."""
    user = request.user
    assert isinstance(user, User)
    if user.username == settings.DEMO_USER:
        raise ValidationError("the demo workshop is everybody's: make an account of your own")
    if not user.check_password(password):
        raise ValidationError({field: "that is not the password"})
    return user
