"""What the first start asks for: how long it was cranked for pressure, when its oil is changed; on the card and on the first page."""

__all__ = ["first_start"]

from datetime import timedelta
from typing import Any

from django.utils import timezone

from work import bridge


def first_start(ledger: bridge.Ledger) -> dict[str, Any]:
    """Return it as far as the document says, and the bench did."""
    run = ledger.folded.states["run"]
    prime, start = (next((one.step for one in run.plan.doing(does)), None) for does in ("prime", "first_start"))
    started, primed = (run.done.get(step.id) if step else None for step in (start, prime))
    days = start.oil_change_days if start else None
    return {
        "seconds": prime.seconds if prime else None,
        "primed": primed.answers.get("seconds", "") if primed else "",
        "cautions": start.cautions if start else (),
        "hours": start.oil_change_hours if start else None,
        "days": days,
        "due": timezone.localtime(started.at) + timedelta(days=days) if started and days else None,
    }
