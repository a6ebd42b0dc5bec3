"""How entries at a joint are said on tape and paper."""

__all__ = ["ANGLE_WORDS", "DECIDED", "bolt_called"]

from gurvo_core.joints.sequence import ALL

ANGLE_WORDS = {"gauge": "by angle gauge", "wheel": "by degree wheel", "paint": "by paint marks", "eye": "by eye", "wrench": "by the wrench"}
DECIDED = {"go_on": "gone on with", "take_out": "taken out", "accepted": "accepted by the lead"}


def bolt_called(joint: str | None, step: str, fastener: str) -> str:
    """A fastener with its joint, as it was called."""
    name = joint or step
    return name if fastener == ALL else f"{name} {fastener}"
