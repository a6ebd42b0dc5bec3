"""Pictures on the bench: taken and bound to a step, with rings and arrows beside them; wanted before a cover, needed where the book says.

``entries`` what is entered, ``state`` and ``kinds`` what stands of it, ``show`` what is wanted and asked.
"""

__all__ = ["ROOM", "PicturesState"]

from gurvo_core.ledger import Room
from gurvo_core.pictures.job.kinds import KINDS
from gurvo_core.pictures.job.show import PictureQuestion, PicturesView, ask_first, facts_of, view_of
from gurvo_core.pictures.job.state import PicturesState, begin_pictures

ROOM: Room[PicturesState] = Room(
    name="pictures",
    empty=begin_pictures,
    kinds=KINDS,
    questions=(PictureQuestion,),
    asks_first=ask_first,
    facts=facts_of,
    shows=PicturesView,
    view=view_of,
)
