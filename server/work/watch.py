"""Looks after the shop's file while the server runs: an edit by other hands shows within a minute, at the bench and on the Floor."""

__all__ = ["Watch"]

import logging
import os
from collections.abc import Callable
from itertools import cycle, islice
from threading import Event, Thread
from time import monotonic

from django.db import DatabaseError, connection

from work.models import Engine
from work.seals import document_digest
from work.verifying import engine_looked_at, engine_verified, shop_verified

EVERY_S = float(os.environ.get("GURVO_WATCH_S", "20"))
AT_MOST = 0.1  # of the time: a large shop is gone through in several rounds
LOG = logging.getLogger(__name__)


class Watch:
    """Goes round and round: the daybook each time, engines at work first, then the others, as far as the time goes."""

    def __init__(self, clock: Callable[[], float] = monotonic) -> None:
        self._clock, self._stop, self._others_at = clock, Event(), 0

    def start(self) -> None:
        """Look from now on, beside whatever the server does."""
        Thread(target=self._go_round, name="watch", daemon=True).start()

    def _go_round(self) -> None:
        while not self._stop.wait(EVERY_S):
            try:
                self.look()
            except (DatabaseError, ValueError, KeyError, TypeError):  # the next round looks again; the server goes on
                LOG.exception("the watch could not look")
            finally:
                connection.close()

    def look(self) -> None:
        """One round."""
        ends = self._clock() + EVERY_S * AT_MOST
        document_digest.cache_clear()  # what this process knows of documents may be from before the edit
        shop_verified()
        for serial in _at_work():
            engine_looked_at(serial)
        others = list(Engine.objects.order_by("serial").values_list("serial", flat=True))
        for serial in islice(cycle(others), self._others_at, self._others_at + len(others)):
            if self._clock() > ends:
                return
            engine_verified(serial)
            self._others_at = (self._others_at + 1) % len(others)


def _at_work() -> list[str]:
    return list(Engine.objects.filter(whereabouts="at work", summary__signed=False).values_list("serial", flat=True))
