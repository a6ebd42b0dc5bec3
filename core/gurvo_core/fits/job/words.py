"""How entries at a fit are said on tape and paper."""

__all__ = ["say_chosen", "say_decided", "say_reading", "say_ready"]

from collections import Counter

from gurvo_core.fits.job.entries import FitChosen, FitDecided, FitReading, FitsReady
from gurvo_core.ledger import Words

DECIDED = {"accepted": "accepted by the lead", "read_again": "is read again", "replaced": "has another part"}


def say_ready(body: FitsReady) -> Words:
    """With what it is read."""
    said = [f"gauge {body.gauge}"] if body.gauge else ["no gauge named"]
    said += [f"set by {body.standard.text} {body.standard.unit}"] if body.standard else []
    said += [f"part {body.part_c} °C"] if body.part_c else ["temperature not looked at"]
    said += [f"gauge {body.gauge_c} °C"] if body.gauge_c else []
    said += [f"at a radius of {body.read_at.text} {body.read_at.unit}"] if body.read_at else []
    said += [f"plunger {body.plunger_deg}° aslant"] if body.plunger_deg else []
    return Words(title=f"{body.called or body.fit}, before the first reading", detail=", ".join(said))


def say_reading(body: FitReading) -> Words:
    """One reading."""
    sign = "+" if body.from_nominal and not body.reading.text.lstrip().startswith(("-", "+")) else ""
    detail = "from what it was set to" if body.from_nominal else ""
    return Words(
        title=body.called or f"{body.place} {body.side}",
        value=f"{sign}{body.reading.text} {body.reading.unit}",
        detail=", ".join(filter(None, [detail, f"gauge {body.gauge}" if body.gauge else ""])),
    )


def say_chosen(body: FitChosen) -> Words:
    """Which sizes, and how many of each."""
    counts = Counter(body.sizes.values())
    value = ", ".join(f"{count} × {size}" for size, count in sorted(counts.items()))
    where = "; ".join(f"{place}: {size}" for place, size in body.sizes.items())
    return Words(title=f"{body.called or body.fit}, sizes chosen", value=value, detail=where + (f"; lot {body.lot}" if body.lot else ""))


def say_decided(body: FitDecided) -> Words:
    """What is done about a place."""
    return Words(title=body.called or body.place, value=DECIDED[body.decision], detail=body.reason, look_again=body.decision != "accepted")
