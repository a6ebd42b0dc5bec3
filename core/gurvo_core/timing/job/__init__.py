"""The timing on the bench: wheel, true TDC, degreeing.

``entries`` what is entered, ``kinds`` a file for each of them: how it is said, what is refused, what it does; ``words``, ``rules`` and
``take`` what they share. ``state`` what stands, ``asks`` what is asked, ``true_tdc``, ``cams`` and ``crank_at`` the figures, ``view`` and
``show`` what is shown.
"""

__all__ = ["ROOM", "TRUE_TDC", "TimingState", "TimingView"]

from gurvo_core.ledger import Room, Step
from gurvo_core.timing.job.asks import ask_cams, ask_setup, ask_tdc
from gurvo_core.timing.job.came_to import came_to
from gurvo_core.timing.job.kinds import KINDS
from gurvo_core.timing.job.show import (
    TRUE_TDC,
    care_of,
    facts_of,
    holds_of,
    loose_ends_of,
    reach_of,
    says_of,
    tells_of,
    verdict_of,
    view_of,
    warnings_of,
)
from gurvo_core.timing.job.state import TimingState, begin
from gurvo_core.timing.job.view import (
    LiftQuestion,
    SetupQuestion,
    TdcQuestion,
    TimingView,
    WheelCheckQuestion,
)

ROOM: Room[TimingState] = Room(
    name="timing",
    empty=begin,
    kinds=KINDS,
    steps=(
        Step(key="wheel", title="Set up the wheel", does="set_up_wheel"),
        Step(key="tdc", title="Find true TDC", does="find_tdc"),
        Step(key="degree", title="Degree the cam", does="degree"),
    ),
    asks={"set_up_wheel": ask_setup, "find_tdc": ask_tdc, "degree": ask_cams},
    questions=(SetupQuestion, WheelCheckQuestion, TdcQuestion, LiftQuestion),
    facts=facts_of,
    loose_ends=loose_ends_of,
    holds=holds_of,
    care=care_of,
    reach=reach_of,
    warnings=warnings_of,
    shows=TimingView,
    view=view_of,
    verdict=verdict_of,
    says=says_of,
    tells=tells_of,
    came_to=came_to,
)
