"""What was found and measured on an engine, written into its document: the family's next revision, if the lead takes it."""

__all__ = ["measured_of"]

from typing import Any

from gurvo_core.found.job import as_next_revision
from gurvo_core.timing.job.measured import with_measured_card
from work import bridge
from work.models import Engine


def measured_of(engine: Engine) -> dict[str, Any] | None:
    """The document of an engine with what was found of it and measured of cams without a card; None where that is nothing."""
    folded = bridge.ledger_of(engine).folded
    note = f"measured on {engine.serial}"
    found = as_next_revision(folded.base, folded.states["found"], note)
    carded = with_measured_card(folded.states["timing"], note)
    if found is None and carded is None:
        return None
    plain = {**(found or {}), **(carded or {})}
    plain["origins"] = {**(found or {}).get("origins", {}), **(carded or {}).get("origins", {})}
    return plain
