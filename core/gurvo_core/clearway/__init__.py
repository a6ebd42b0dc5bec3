"""Clearway: what may be turned now, how camshafts rest, and a safe way from where shafts stand to where they must be.

``valves`` what can meet, ``gaps`` how far apart, ``ground`` the maps, ``rest`` what springs do, ``stands`` where shafts are, ``net`` and
``way`` the search, ``least`` the proof of a move, ``spare`` what is left at the timing there is, ``choose`` ways beside it. Everything is
as the document describes the engine, or as it was measured: bent parts, carbon and wrong pistons are not in it.
"""

__all__ = ["Ground", "Move", "Spare", "Stands", "find_way", "load_of", "spare_of", "ways_of"]

from gurvo_core.clearway.choose import ways_of
from gurvo_core.clearway.ground import Ground
from gurvo_core.clearway.rest import load_of
from gurvo_core.clearway.spare import Spare, spare_of
from gurvo_core.clearway.stands import Move, Stands
from gurvo_core.clearway.way import find_way
