"""Doors that are open to nobody in particular: who knocks comes from our own pages, and not too
often."""

import hashlib
import json
from typing import Any

from django.conf import settings
from django.contrib import admin
from django.http import HttpRequest, HttpResponse
from ninja.security import APIKeyCookie
from ninja.throttling import SimpleRateThrottle


class FromOurPages(APIKeyCookie):
    """Lets anybody in whose request carries the token that only our pages can send."""

    param_name = settings.CSRF_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return "anybody"


class AddressThrottle(SimpleRateThrottle):
    """So many attempts from one address."""

    def get_cache_key(self, request: HttpRequest) -> str | None:
        return f"door-address-{_hashed(self.get_ident(request) or '')}"


class AccountThrottle(SimpleRateThrottle):
    """So many attempts at one account, from wherever they come."""

    def get_cache_key(self, request: HttpRequest) -> str | None:
        name = request.POST.get("username", "")
        if request.content_type == "application/json":
            try:
                name = json.loads(request.body)["username"]
            except (ValueError, KeyError, TypeError):
                return None
        return f"door-account-{_hashed(str(name).strip().lower())}"


def _hashed(text: str) -> str:
    return hashlib.sha256(text.encode("utf-8", "replace")).hexdigest()


DOOR = [AddressThrottle(settings.SIGN_IN_RATE), AccountThrottle(settings.ACCOUNT_RATE)]


def admin_sign_in(request: HttpRequest) -> HttpResponse:
    """The admin's door, with the same throttles."""
    if request.method == "POST" and not all(one.allow_request(request) for one in DOOR):
        told = "too many attempts: wait a minute and try again"
        return HttpResponse(told, status=429, content_type="text/plain")
    return admin.site.login(request)
