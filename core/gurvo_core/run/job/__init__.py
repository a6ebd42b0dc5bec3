"""The run of work on the bench: steps done, things on, turning over, hold points, sealants.

``entries`` what is entered, ``kinds`` a file for each of them: how it is said, what is refused, what it does; ``named``, ``words``,
``rules`` and ``take`` what they share. ``state`` what stands, ``standing`` what it comes to, ``fields`` what a step asks, ``asks`` what is
asked, ``show`` the loose ends and the permission to turn.
"""

__all__ = ["ROOM", "RunState"]

from gurvo_core.ledger import Room
from gurvo_core.run.job.asks import ask_step, ask_variant, blocks_step, plan_facts
from gurvo_core.run.job.kinds import KINDS
from gurvo_core.run.job.paper import papers_of
from gurvo_core.run.job.show import holds_of, left_of, loose_ends_of, reach_of, view_of, wary_of
from gurvo_core.run.job.state import RunState, begin_run
from gurvo_core.run.job.take import hear_of_step, news_of
from gurvo_core.run.job.view import HoldQuestion, RunView, StepQuestion, TurnQuestion

ROOM: Room[RunState] = Room(
    name="run",
    empty=begin_run,
    kinds=KINDS,
    asks={"run": ask_step, "variant": ask_variant},
    blocks=blocks_step,
    questions=(StepQuestion, TurnQuestion, HoldQuestion),
    facts=plan_facts,
    loose_ends=loose_ends_of,
    holds=holds_of,
    reach=reach_of,
    wary=wary_of,
    shows=RunView,
    view=view_of,
    left=left_of,
    papers=papers_of,
    news=news_of,
    hears=hear_of_step,
)
