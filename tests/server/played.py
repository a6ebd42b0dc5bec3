"""An engine brought to where a test begins: what its bench asks is answered by the server's own door, past the API."""

import uuid
from typing import Any

from django.contrib.auth.models import User
from django.test import TestCase

from demo.player import answer
from gurvo_core.walk import next_question
from work import bridge, services
from work.models import Engine


def play_until(serial: str, until: str = "") -> Any:
    """Answer what is asked, the lead what is his and Bo all else, until a question or its kind comes up; return that question.

    The house keeps what an entry came to once it has held, within a test's own transaction too: else each is folded anew.
    """
    people = {name: User.objects.get(username=name) for name in ("bo", "lena")}
    ledger = bridge.ledger_of(Engine.objects.at_the_bench().get(pk=serial))
    while (question := next_question(ledger.shown)) and until not in (question.key, question.kind):
        body = bridge.HOUSE.bodies.validate_python(answer(ledger.shown, question, ledger.folded.document))
        by = people["lena" if body.kind in ("hold_point", "sign_off") else "bo"]
        with TestCase.captureOnCommitCallbacks(execute=True):
            ledger = services.record(serial, entry_id=uuid.uuid4(), body=body, by=by, proof=services.PROVEN).ledger
    return question
