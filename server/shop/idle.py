"""A session in which nobody has done anything for long: first it asks who is there, at last it ends.

Looking by itself, as an open page does, is not doing.
"""

from collections.abc import Callable
from time import time

from django.conf import settings
from django.contrib.auth import HASH_SESSION_KEY, SESSION_KEY
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.utils.crypto import constant_time_compare

from config.problems import refuse
from shop.models import Shop

Handler = Callable[[HttpRequest], HttpResponse]
DONE_AT = "done_at"
LEFT_ALONE = "left_alone"
LOOKS = ("GET", "HEAD", "OPTIONS")
NOTED_EVERY_S = 45
SHORTEST_S = 60


def idle_limit(get_response: Handler) -> Handler:
    """End a session that nobody has used for very long; before that, take nothing from one that was left alone."""

    def answer(request: HttpRequest) -> HttpResponse:
        if not request.path.startswith("/api/") or SESSION_KEY not in request.session:
            return get_response(request)
        alone_s = time() - request.session.get(DONE_AT, time())
        if alone_s > settings.SESSION_IDLE_S:
            request.session.flush()
        elif _is_left_alone(request, alone_s):
            if request.method not in LOOKS and not request.path.startswith("/api/session"):
                return _who_is_there()
        elif DONE_AT not in request.session or (request.method not in LOOKS and alone_s > NOTED_EVERY_S):
            request.session[DONE_AT] = time()
        return get_response(request)

    return answer


def _is_left_alone(request: HttpRequest, alone_s: float) -> bool:
    """Whether nobody was there for longer than the shop lets a bench stand; once it is so, it stays so until somebody shows who he is."""
    if alone_s > SHORTEST_S and not is_left_alone(request):
        minutes = Shop.objects.values_list("alone_minutes", flat=True).first()
        if minutes and alone_s > 60 * minutes:
            leave_alone(request)
    return is_left_alone(request)


def _who_is_there() -> HttpResponse:
    sentence = "Gurvo was left alone; show with your PIN or password who is here, then it goes on."
    return refuse(401, "left_alone", sentence)


def is_left_alone(request: HttpRequest) -> bool:
    """Whether the session waits for somebody to show who he is."""
    return bool(request.session.get(LEFT_ALONE))


def leave_alone(request: HttpRequest) -> None:
    """From now on somebody must show who he is before anything is taken."""
    request.session[LEFT_ALONE] = True


def come_back(request: HttpRequest) -> None:
    """Somebody has shown who he is."""
    request.session.pop(LEFT_ALONE, None)
    request.session[DONE_AT] = time()


def still_signed_in(session_key: str | None, user_id: int) -> bool:
    """Whether a session that began something long still holds: not ended, its person not gone, his password the same."""
    kept = Session.objects.filter(session_key=session_key, expire_date__gt=timezone.now()).first()
    user = User.objects.filter(pk=user_id, is_active=True).first()
    if kept is None or user is None:
        return False
    said = kept.get_decoded()
    return said.get(SESSION_KEY) == str(user_id) and constant_time_compare(said.get(HASH_SESSION_KEY, ""), user.get_session_auth_hash())
