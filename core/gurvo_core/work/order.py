"""For whom an engine is built: customer, job number, what was complained of. Kept in its ledger; the last word of it holds."""

__all__ = ["ROOM", "ForWhom", "OrderState", "OrderView"]

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import StringConstraints

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Body, Facts, Kind, LedgerEntry, Objection, Room, View, Words, need
from gurvo_core.ledger.entry import Reason

Short = Annotated[str, StringConstraints(max_length=120, strip_whitespace=True)]


class ForWhom(Body):
    """Whose engine it is, under which job, and what he complained of; all of it as it is from now on."""

    kind: Literal["for_whom"]
    customer: Short = ""
    job: Short = ""
    complaint: Reason = ""


class OrderView(View):
    """For whom it is, as far as that was said."""

    customer: str
    job: str
    complaint: str


@dataclass(frozen=True, kw_only=True)
class OrderState:
    """The last word of it."""

    said: ForWhom | None = None


def _begin(_document: EngineDocument) -> OrderState:
    return OrderState()


def _take(_now: OrderState, _entry: LedgerEntry, body: ForWhom) -> OrderState:
    return OrderState(said=body)


def _check(now: OrderState, body: ForWhom, _facts: Facts) -> Iterator[Objection]:
    is_said = bool(body.customer or body.job or body.complaint)
    yield from need(is_said, "customer", "say for whom, under which job, or what was complained of")
    yield from need(now.said is None or now.said != body, "customer", "this is what stands already")


def _words(body: ForWhom) -> Words:
    job = f"job {body.job}" if body.job else ""
    detail = " · ".join(filter(None, (job if body.customer else "", body.complaint)))
    return Words(title="For whom", value=body.customer or job, detail=detail)


def _view(now: OrderState, _facts: Facts) -> OrderView | None:
    return OrderView(customer=now.said.customer, job=now.said.job, complaint=now.said.complaint) if now.said else None


ROOM: Room[OrderState] = Room(
    name="order",
    empty=_begin,
    kinds=(Kind(body=ForWhom, does="keep", words=_words, take=_take, check=_check),),
    shows=OrderView,
    view=_view,
)
