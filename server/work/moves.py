"""An engine's place in the shop, as its ledger has it: stand, builder, at work or not. The rows follow the entries."""

from typing import Any

from django.contrib.auth.models import User

from gurvo_core.ledger import Body
from gurvo_core.work.whereabouts import Moved
from shop.errors import Conflict, Refusal
from shop.roles import may_record, role_of, shown_name
from work.models import Engine


def named(engine: Engine, body: Body) -> Body:
    """A move with what its builder is called, once it is clear that it can be; other entries as they are."""
    if not isinstance(body, Moved):
        return body
    builder = User.objects.filter(username=body.builder, is_active=True).first()
    if builder is None or not may_record(role_of(builder)):
        raise Refusal(f"Nobody called {body.builder} builds here; choose a builder or the lead.", "entry.builder")
    taken = Engine.objects.filter(stand=body.stand).exclude(pk=engine.pk).first() if body.stand else None
    if taken is not None:
        raise Conflict(f"Stand {body.stand} holds {taken.serial}; choose a free stand.", "entry.stand")
    return body.model_copy(update={"builder_name": shown_name(builder)})


def follow(body: Body) -> dict[str, Any]:
    """What of an engine's row a move sets."""
    if not isinstance(body, Moved):
        return {}
    because = body.reason if body.whereabouts == "set aside" else ""
    builder = User.objects.get(username=body.builder)
    return {"stand": body.stand, "builder": builder, "whereabouts": body.whereabouts, "aside_because": because}
