"""Fits on the bench: with what a side is read, every reading, sizes from stock, what is done about a place that is not in.

``entries`` what is entered, ``kinds`` a file for each of them: how it is said, what is refused, what it does; ``named``, ``rules`` and
``take`` what they share. ``book`` a document's fits as they are measured, ``state`` what stands, ``asks`` what is asked, ``show`` loose
ends and view, ``sheet`` all of one fit with what would settle it and what stock would give, ``kept`` what the shop keeps of it.
"""

__all__ = ["ROOM", "FitsState"]

from gurvo_core.fits.job.asks import ask_measure
from gurvo_core.fits.job.came_to import came_to
from gurvo_core.fits.job.kinds import KINDS
from gurvo_core.fits.job.paper import FitLine, fit_lines, papers_of
from gurvo_core.fits.job.show import loose_ends_of, says_of, tells_of, view_of
from gurvo_core.fits.job.state import FitsState, begin_fits
from gurvo_core.fits.job.take import hear_of_step, news_of
from gurvo_core.fits.job.view import FitChosenQuestion, FitReadingQuestion, FitsReadyQuestion, FitsView
from gurvo_core.ledger import Room, Table

ROOM: Room[FitsState] = Room(
    name="fits",
    empty=begin_fits,
    kinds=KINDS,
    asks={"measure": ask_measure},
    questions=(FitsReadyQuestion, FitReadingQuestion, FitChosenQuestion),
    loose_ends=loose_ends_of,
    shows=FitsView,
    view=view_of,
    says=says_of,
    tells=tells_of,
    came_to=came_to,
    papers=papers_of,
    tables=(Table(name="fits", title="Clearances", row=FitLine, rows=fit_lines),),
    news=news_of,
    hears=hear_of_step,
)
