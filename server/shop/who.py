"""Whoever is signed in stands in the daybook as who did it."""

__all__ = ["note_who"]

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from shop.confirming import is_fresh
from shop.daybook import does
from shop.script_keys import key_of

Handler = Callable[[HttpRequest], HttpResponse]
NOBODY = "nobody signed in"


def note_who(get_response: Handler) -> Handler:
    """Say who it is while a request is answered; asked for only when something is written down."""

    def answer(request: HttpRequest) -> HttpResponse:
        with does(lambda: _doer(request)):
            return get_response(request)

    return answer


def _doer(request: HttpRequest) -> tuple[str, str]:
    if not request.user.is_authenticated:
        return NOBODY, ""
    if key_of(request):
        return request.user.get_username(), f"by the key “{key_of(request)[:26]}”"
    return request.user.get_username(), "by password, just before" if is_fresh(request) else "signed in"
