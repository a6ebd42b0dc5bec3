"""What the bench proposes to a draft of a family: gathered from its newest engines."""

__all__ = ["proposals_of"]

from gurvo_core.timing.job.measured import with_measured_card
from gurvo_core.writer.draft import written
from gurvo_core.writer.proposals import FromBench, Proposal, proposals_for
from work import bridge
from work.models import Engine
from work.times import minutes_of
from writer.bridge import draft_of, family_of
from writer.models import Draft

ENGINES = 12  # the newest: what was found long ago is in the book by now


def proposals_of(draft: Draft) -> list[Proposal]:
    """What the bench proposes, without what was left."""
    document = written(draft_of(draft)).document
    family = family_of(document)
    engines = Engine.objects.filter(revision__family=family).select_related("revision").order_by("-begun")[:ENGINES]
    found = proposals_for(document, [_told_by(engine) for engine in engines], minutes_of(family))
    return [one for one in found if one.id not in draft.left]


def _told_by(engine: Engine) -> FromBench:
    folded = bridge.ledger_of(engine).folded
    carded = with_measured_card(folded.states["timing"], f"measured on {engine.serial}")
    left_out = {step: done.because for step, done in folded.states["run"].done.items() if done.is_skipped}
    found = {pointer: one.fact.value for pointer, one in folded.states["found"].found.items()}
    return FromBench(engine.serial, found, carded["cam_card"] if carded else None, left_out)
