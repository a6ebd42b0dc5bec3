"""A session in which nobody has done anything for long ends; looking by itself, as an open page does, is not doing."""

from collections.abc import Callable
from time import time

from django.conf import settings
from django.contrib.auth import SESSION_KEY
from django.http import HttpRequest, HttpResponse

Handler = Callable[[HttpRequest], HttpResponse]
DONE_AT = "done_at"
LOOKS = ("GET", "HEAD", "OPTIONS")
NOTED_EVERY_S = 60


def idle_limit(get_response: Handler) -> Handler:
    """End a session that has been left alone."""

    def answer(request: HttpRequest) -> HttpResponse:
        if request.path.startswith("/api/") and SESSION_KEY in request.session:
            left_alone_s = time() - request.session.get(DONE_AT, time())
            if left_alone_s > settings.SESSION_IDLE_S:
                request.session.flush()
            elif DONE_AT not in request.session or (request.method not in LOOKS and left_alone_s > NOTED_EVERY_S):
                request.session[DONE_AT] = time()
        return get_response(request)

    return answer
