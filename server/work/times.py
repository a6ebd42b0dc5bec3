"""How long steps took in this shop: kept beside the ledger as they are recorded, and only ever used as medians."""

from collections import defaultdict
from datetime import timedelta

from config.written_once import insert_one
from gurvo_core.ledger import Body, LedgerEntry
from gurvo_core.run.job.entries import StepDone
from gurvo_core.run.ready import own_minutes
from work.models import Engine, StepTime

LONGEST = timedelta(hours=4)  # a longer pause was dinner, or another engine
KEPT = 25  # builds a step's median is taken of, the newest


def keep_time(engine: Engine, body: Body, before: LedgerEntry | None, after: LedgerEntry) -> None:
    """Keep how long a step took, from the entry before it by the same person."""
    taken = minutes_taken(body, before, after)
    if taken is not None:
        insert_one(StepTime(engine=engine, family=engine.about.family, step=taken[0], minutes=taken[1]))


def minutes_taken(body: Body, before: LedgerEntry | None, after: LedgerEntry) -> tuple[str, float] | None:
    """Which step an entry ends and how long it took, from the entry before it by the same person; None where that says nothing."""
    if not isinstance(body, StepDone) or before is None or before.by != after.by:
        return None
    taken = after.at - before.at
    return (body.step, taken.total_seconds() / 60) if timedelta() < taken <= LONGEST else None


def minutes_of(family: str) -> dict[str, float]:
    """The shop's own medians of a family's steps [min]."""
    taken: dict[str, list[float]] = defaultdict(list)
    for step, minutes in StepTime.objects.filter(family=family).order_by("-pk").values_list("step", "minutes")[: KEPT * 100]:
        if len(taken[step]) < KEPT:
            taken[step].append(minutes)
    return own_minutes(taken)
