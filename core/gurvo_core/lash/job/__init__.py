"""Valve clearances on the bench: which way they are reached, every stop, every valve, shims that go in.

``entries`` what is entered, ``kinds`` a file for each of them: how it is said, what is refused, what it does; ``rules`` and ``take`` what
they share. ``book`` a document's valves as they are set, ``state`` what stands, ``asks`` what is asked, ``show`` loose ends and view,
``sheet`` what shims would give, ``kept`` what is taken from stock.
"""

__all__ = ["ROOM", "LashState"]

from gurvo_core.lash.job.asks import ask_lash
from gurvo_core.lash.job.came_to import came_to
from gurvo_core.lash.job.kinds import KINDS
from gurvo_core.lash.job.paper import LashLine, lash_lines, papers_of
from gurvo_core.lash.job.show import facts_of, loose_ends_of, says_of, tells_of, view_of
from gurvo_core.lash.job.state import LashState, begin_lash
from gurvo_core.lash.job.take import hear_of_step, news_of
from gurvo_core.lash.job.view import (
    LashReadingQuestion,
    LashReadyQuestion,
    LashShimsQuestion,
    LashView,
)
from gurvo_core.ledger import Room, Table

ROOM: Room[LashState] = Room(
    name="lash",
    empty=begin_lash,
    kinds=KINDS,
    asks={"lash": ask_lash},
    questions=(LashReadyQuestion, LashReadingQuestion, LashShimsQuestion),
    facts=facts_of,
    loose_ends=loose_ends_of,
    shows=LashView,
    view=view_of,
    says=says_of,
    tells=tells_of,
    came_to=came_to,
    papers=papers_of,
    tables=(Table(name="lash", title="Valve clearances", row=LashLine, rows=lash_lines),),
    news=news_of,
    hears=hear_of_step,
)
