"""Hands out the web app's page, and says what went wrong outside the API's own doors. The page is never cached; the files it names have
hashed names and are kept for ever.
"""

import errno
import sys

from django.conf import settings
from django.db import OperationalError
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from config.problems import refuse

NOT_BUILT = "<!doctype html><title>Gurvo</title><p>The web app is not built yet. Start Gurvo with ./gurvo demo or ./gurvo serve."


@require_safe
@never_cache
@ensure_csrf_cookie
def web_app(_request: HttpRequest) -> HttpResponse:
    """Serve index.html for every route of the web app."""
    page = settings.WEB_DIST / "index.html"
    return HttpResponse(page.read_text("utf-8") if page.exists() else NOT_BUILT)


def _said(request: HttpRequest, status: int, code: str, sentence: str) -> HttpResponse:
    """A Problem for programs, one sentence for people."""
    if request.path.startswith("/api/"):
        return refuse(status, code, sentence)
    return HttpResponse(f"<!doctype html><title>Gurvo</title><p>{sentence}", status=status)


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:  # noqa: ARG001 - Django names it
    """What cannot be read at all."""
    return _said(request, 400, "request", "This request cannot be read; load the page again and try once more.")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:  # noqa: ARG001 - Django names it
    """A path that nobody answers."""
    return _said(request, 404, "missing", "There is nothing here by that name.")


def server_error(request: HttpRequest) -> HttpResponse:
    """A fault of ours, or a disk that is full, or a database that a restore has for itself."""
    error = sys.exc_info()[1]
    if _is_full(error):
        sentence = (
            "The disk of Gurvo's machine is full: nothing was taken, nothing is lost. Make room there; what you typed goes out by itself."
        )
        return _said(request, 507, "disk_full", sentence)
    if isinstance(error, OperationalError):
        return _said(request, 503, "busy", "The database is not to be had just now; what you typed is kept, and it is tried again.")
    return _said(request, 500, "fault", "Something went wrong in Gurvo itself; nothing was taken. Tell the lead what you did.")


def _is_full(error: BaseException | None) -> bool:
    if isinstance(error, OSError):
        return error.errno in (errno.ENOSPC, errno.EDQUOT)
    return isinstance(error, OperationalError) and "full" in str(error)
