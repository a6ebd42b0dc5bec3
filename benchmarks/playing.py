"""Building engines before anything is measured: what a builder enters next, and the entry made as the demo's people make it."""

import uuid
from typing import Any

from django.contrib.auth.models import User

from demo.player import answer
from gurvo_core.walk import next_question
from tools.real_server import Person
from work import bridge, services
from work.models import Engine

BY_LEAD = ("hold_point", "sign_off")


def put_on(serial: str, family: str) -> None:
    """Put an engine on the floor."""
    by = User.objects.get(username="della")
    services.put_on_stand(serial=serial, family=family, purpose="", stand=None, promised=None, by=by)


def next_entry(serial: str) -> dict[str, Any]:
    """What is entered next at an engine."""
    ledger = bridge.ledger_of(Engine.objects.at_the_bench().get(pk=serial))
    return answer(ledger.shown, next_question(ledger.shown), ledger.folded.document)


def enter(serial: str, body: dict[str, Any]) -> None:
    """Make an entry; the lead makes his own."""
    by = User.objects.get(username="oren" if body["kind"] in BY_LEAD else "della")
    services.record(serial, entry_id=uuid.uuid4(), body=bridge.HOUSE.bodies.validate_python(body), by=by, proof=services.PROVEN)


class Page:
    """An engine's bench on somebody's screen: it names what it has with every entry, and is sent what changed."""

    def __init__(self, person: Person, serial: str) -> None:
        self.person, self.path = person, f"/api/engines/{serial}"
        self.look()

    def look(self) -> None:
        """Load all of it."""
        self.person.call("GET", self.path)
        self.has = self.person.tag

    def enter(self, body: dict[str, Any]) -> None:
        """Send an entry."""
        self.person.call("POST", f"{self.path}/entries", {"id": str(uuid.uuid4()), "entry": body, "has": self.has})
        self.has = self.person.tag
