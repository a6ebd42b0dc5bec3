"""The gauge that entries about valve clearances name."""

__all__ = ["feelers_named"]


from gurvo_core.lash.job.entries import LashReading, LashReady
from gurvo_core.ledger import LENGTH_GAUGES, NamedGauge


def feelers_named(body: LashReady | LashReading) -> tuple[NamedGauge, ...]:
    """The set of feelers, where one is named."""
    return (NamedGauge("gauge", body.gauge, LENGTH_GAUGES, "set of feelers"),) if body.gauge else ()
