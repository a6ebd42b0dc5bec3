"""Found facts on the bench: what is asked before a step, what was found or is not known, and what the lead is handed of it."""

__all__ = ["ROOM", "FoundState", "as_next_revision"]

from gurvo_core.found.job.asks import ask_first
from gurvo_core.found.job.kinds import KINDS
from gurvo_core.found.job.paper import papers_of
from gurvo_core.found.job.show import as_next_revision, facts_of, fill, view_of
from gurvo_core.found.job.state import FoundState, begin_found
from gurvo_core.found.job.view import FoundQuestion, FoundView
from gurvo_core.ledger import Room

ROOM: Room[FoundState] = Room(
    name="found",
    empty=begin_found,
    kinds=KINDS,
    questions=(FoundQuestion,),
    asks_first=ask_first,
    facts=facts_of,
    fill=fill,
    shows=FoundView,
    view=view_of,
    papers=papers_of,
)
