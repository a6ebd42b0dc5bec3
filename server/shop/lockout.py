"""Wrong passwords, by person and place: a pause that grows, so that nobody is kept out at his own bench by tries made elsewhere."""

from datetime import timedelta
from typing import Any

from axes.helpers import get_client_ip_address
from axes.models import AccessFailureLog
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from config.problems import refuse

FREE_TRIES = 5
FIRST_PAUSE_S, LONGEST_PAUSE_S = 15, 900
REMEMBERED = timedelta(hours=24)


def pause_s(failures: int) -> int:
    """How long to wait after so many wrong tries within a day [s]: four times as long after each five. The try that shuts the door
    may or may not be counted yet.
    """
    rounds = max(0, round(failures / FREE_TRIES) - 1)
    return int(min(LONGEST_PAUSE_S, FIRST_PAUSE_S * 4**rounds))


def pause(request: HttpRequest | None = None) -> timedelta:
    """The pause that holds for whoever asks, at the place where he asks."""
    if request is None:
        return timedelta(seconds=LONGEST_PAUSE_S)
    tries = AccessFailureLog.objects.filter(username=getattr(request, "tried_name", ""), ip_address=get_client_ip_address(request))
    return timedelta(seconds=pause_s(tries.filter(attempt_time__gt=timezone.now() - REMEMBERED).count()))


def locked_out(request: HttpRequest, _credentials: Any = None) -> HttpResponse:
    """Answer with a Problem, like every other refusal."""
    wait = round(pause(request).total_seconds())
    words = f"{wait} seconds" if wait < 120 else f"{wait // 60} minutes"
    sentence = f"Too many wrong tries with this name at this place. Wait {words}, or ask the lead to unlock it; other places are not shut."
    return refuse(429, "locked_out", sentence, field="password")
