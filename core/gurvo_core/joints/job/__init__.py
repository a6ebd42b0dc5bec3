"""Joints on the bench: what is looked at before the first pull, every pull, bolts found loose or replaced, what is done about one that
stands apart.

``entries`` what is entered, ``kinds`` a file for each of them: how it is said, what is refused, what it does; ``named``, ``words``,
``rules`` and ``take`` what they share. ``book`` a document's joints as they are pulled, ``state`` what stands, ``judged`` each pull against
its window and its siblings, ``asks`` what is asked, ``show`` loose ends and view.
"""

__all__ = ["ROOM", "JointsState"]

from gurvo_core.joints.job.asks import ask_tighten
from gurvo_core.joints.job.came_to import came_to
from gurvo_core.joints.job.kinds import KINDS
from gurvo_core.joints.job.paper import papers_of
from gurvo_core.joints.job.show import loose_ends_of, pull_lines, says_of, tells_of, view_of
from gurvo_core.joints.job.state import JointsState, begin_joints
from gurvo_core.joints.job.take import hear_of_step, news_of
from gurvo_core.joints.job.view import JointReadyQuestion, JointsView, PullLine, PullQuestion
from gurvo_core.ledger import Room, Table

ROOM: Room[JointsState] = Room(
    name="joints",
    empty=begin_joints,
    kinds=KINDS,
    asks={"tighten": ask_tighten},
    questions=(JointReadyQuestion, PullQuestion),
    loose_ends=loose_ends_of,
    shows=JointsView,
    view=view_of,
    says=says_of,
    tells=tells_of,
    came_to=came_to,
    papers=papers_of,
    tables=(Table(name="pulls", title="Pulls", row=PullLine, rows=pull_lines),),
    news=news_of,
    hears=hear_of_step,
)
