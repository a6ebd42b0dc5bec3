"""How a step of a family should look: one picture that the lead has named, shown to the next builder before he looks."""

__all__ = ["example_of", "examples_of", "name_example"]

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from shop.errors import Forbidden, Refusal
from shop.roles import may_write_documents, role_of, shown_name
from work import bridge
from work.models import Engine, Example


def examples_of(engine: Engine) -> list[Example]:
    """Return those of an engine's family."""
    return list(Example.objects.filter(family=engine.about.family).order_by("step"))


def example_of(engine: Engine, step: str) -> Example:
    """Return that of one step, which there is."""
    return Example.objects.get(family=engine.about.family, step=step)


@transaction.atomic
def name_example(engine: Engine, *, step: str, digest: str, by: User) -> None:
    """Name a picture that was taken at a step of an engine as the way that step should look."""
    if not may_write_documents(role_of(by)):
        raise Forbidden("The lead names how a step should look; show it to him.")
    taken = bridge.ledger_of(engine).folded.states["pictures"].taken
    if not any(one.digest == digest and one.step == step for one in taken):
        raise Refusal("No such picture was taken of this step; choose one of its own.", "digest")
    Example.objects.update_or_create(
        family=engine.about.family,
        step=step,
        defaults={"digest": digest, "serial": engine.serial, "by_name": shown_name(by), "at": timezone.now()},
    )
