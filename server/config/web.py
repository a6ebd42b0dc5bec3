"""Hands out the web app's page. It is never cached; the files it names have hashed names and are kept for ever."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

NOT_BUILT = "<!doctype html><title>Gurvo</title><p>The web app is not built yet. Start Gurvo with ./gurvo demo or ./gurvo serve."


@require_safe
@never_cache
@ensure_csrf_cookie
def web_app(_request: HttpRequest) -> HttpResponse:
    """Serve index.html for every route of the web app."""
    page = settings.WEB_DIST / "index.html"
    return HttpResponse(page.read_text("utf-8") if page.exists() else NOT_BUILT)
