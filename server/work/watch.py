"""Looks after the shop's file while the server runs: an edit by other hands shows within a minute, at the bench and on the Floor."""

__all__ = ["Watch"]

import logging
import os
from collections.abc import Callable
from itertools import cycle, islice
from threading import Event, Thread
from time import monotonic

from django.db import DatabaseError, connection
from django.db.models import Q

from work.models import Engine
from work.seals import document_digest
from work.verifying import engine_looked_at, engine_verified, shop_verified

EVERY_S = float(os.environ.get("GURVO_WATCH_S", "20"))
AT_MOST = 0.1  # of the time for engines at work, and as much for all of them: a large shop is gone through in several rounds
AT_WORK = Q(whereabouts="at work", summary__signed=False)
CANNOT_LOOK = (DatabaseError, ValueError, KeyError, TypeError)
LOG = logging.getLogger(__name__)


class Watch:
    """Goes round and round: the daybook each time, engines at work first, then the others, each as far as the time goes."""

    def __init__(self, clock: Callable[[], float] = monotonic) -> None:
        self._clock, self._stop, self._at_work_at, self._others_at = clock, Event(), 0, 0

    def start(self) -> None:
        """Look from now on, beside whatever the server does."""
        Thread(target=self._go_round, name="watch", daemon=True).start()

    def _go_round(self) -> None:
        while not self._stop.wait(EVERY_S):
            try:
                self.look()
            except CANNOT_LOOK:  # the next round looks again; the server goes on
                LOG.exception("the watch could not look")
            finally:
                connection.close()

    def look(self) -> None:
        """One round."""
        document_digest.cache_clear()  # what this process knows of documents may be from before the edit
        shop_verified()
        self._at_work_at = self._as_far_as_time_goes(engine_looked_at, _serials(AT_WORK), self._at_work_at)
        self._others_at = self._as_far_as_time_goes(engine_verified, _serials(Q()), self._others_at)

    def _as_far_as_time_goes(self, look_at: Callable[[str], object], serials: list[str], first: int) -> int:
        """Look at some engines from one on, all of them where time allows; return where the next round goes on."""
        ends, seen = self._clock() + EVERY_S * AT_MOST, 0
        for serial in islice(cycle(serials), first, first + len(serials)):
            if seen and self._clock() > ends:
                break
            try:
                look_at(serial)
            except CANNOT_LOOK:  # one that cannot be looked at keeps nobody from looking at the others
                LOG.exception("the watch could not look at %s", serial)
            seen += 1
        return (first + seen) % max(1, len(serials))


def _serials(which: Q) -> list[str]:
    return list(Engine.objects.filter(which).order_by("serial").values_list("serial", flat=True))
