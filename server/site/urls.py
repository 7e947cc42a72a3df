"""Addresses: the API, the admin, and one page for everything else."""

from pathlib import Path

from django.conf import settings
from django.contrib import admin
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from server.accounts.doors import admin_sign_in
from server.site.api import api


@never_cache
@ensure_csrf_cookie
def index(request: HttpRequest) -> HttpResponse:
    """The front end's page; it finds its own way from the address."""
    page = settings.INDEX_PAGE
    if not page.exists():
        raise Http404("the front end is not built: run make serve")
    return HttpResponse(page.read_bytes(), content_type="text/html; charset=utf-8")


def root_file(request: HttpRequest, name: str, content_type: str) -> FileResponse:
    """A file of the front end's build that browsers look for at the root."""
    file = Path(settings.INDEX_PAGE).parent / name
    if not file.exists():
        raise Http404
    return FileResponse(file.open("rb"), content_type=content_type)


urlpatterns = [
    path("admin/login/", admin_sign_in),
    path("admin/", admin.site.urls),
    path("api/", api.urls),
    path("favicon.ico", root_file, {"name": "favicon.svg", "content_type": "image/svg+xml"}),
    path("sw.js", never_cache(root_file), {"name": "sw.js", "content_type": "text/javascript"}),
    re_path(r"^(?!api/|static/|admin/).*$", index),
]
