"""The clearway on the bench: where shafts stand, what may be turned, the way to where a step wants them, gaps that were measured.

``entries`` what is entered, ``kinds`` a file for each of them. ``whereabouts`` where shafts stand, ``thought`` what follows from it,
``asks`` the way move by move, ``show`` permission and loose ends, ``measured`` a gap and what it says of the others, ``words`` how it is
said.
"""

__all__ = ["ROOM", "ClearwayState"]

from gurvo_core.clearway.job.asks import ask_moves
from gurvo_core.clearway.job.kinds import KINDS
from gurvo_core.clearway.job.paper import papers_of
from gurvo_core.clearway.job.show import facts_of, loose_ends_of, reach_of, view_of, warnings_of, wary_of
from gurvo_core.clearway.job.state import ClearwayState, begin_clearway
from gurvo_core.clearway.job.view import ClearwayView, MoveQuestion
from gurvo_core.ledger import Room

ROOM: Room[ClearwayState] = Room(
    name="clearway",
    empty=begin_clearway,
    kinds=KINDS,
    questions=(MoveQuestion,),
    asks_first=ask_moves,
    loose_ends=loose_ends_of,
    facts=facts_of,
    reach=reach_of,
    wary=wary_of,
    warnings=warnings_of,
    shows=ClearwayView,
    view=view_of,
    papers=papers_of,
)
