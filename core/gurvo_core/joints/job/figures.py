"""An entry's figures in N·m and degrees at the bolt, once, at the door."""

__all__ = ["per_set_of", "pull_si", "pulls_of", "typed_angle_deg", "typed_torque_nm"]

from gurvo_core.joints.job.book import JointBook
from gurvo_core.joints.job.entries import JointReady, Pull
from gurvo_core.joints.sequence import ALL
from gurvo_core.joints.wrench import setting_nm
from gurvo_core.ledger.entry import Typed
from gurvo_core.units import to_inside


def typed_torque_nm(typed: Typed, field: str = "torque.text") -> float:
    """Return a typed torque.

    Returned: as the scale showed it [N·m].
    Raises FigureError if it is no number, or no torque.
    """
    return to_inside(typed.text, typed.unit, "torque", field)


def typed_angle_deg(text: str, field: str = "angle") -> float:
    """Return a typed angle.

    text: as typed [deg].
    Returned: angle [deg].
    Raises FigureError if it is no number.
    """
    return to_inside(text, "deg", "angle", field)


def per_set_of(body: JointReady) -> float:
    """Return the torque at the bolt for one on the wrench's scale.

    body: with lever and extension, where there is one [mm].
    Returned: 1 without an extension [-].
    Raises FigureError if the extension reaches back to the hand.
    """
    if body.lever_mm is None or body.extension_mm is None:
        return 1.0
    return 1 / setting_nm(1.0, lever_mm=body.lever_mm, extension_mm=body.extension_mm, at_deg=body.extension_deg)


def pull_si(per_set: float, body: Pull) -> dict[str, float]:
    """Return the figures of a pull.

    per_set: torque at the bolt for one on the scale [-].
    Returned: ``torque_nm`` at the bolt [N·m], ``angle_deg`` and ``before_deg`` [deg], as far as they were typed.
    """
    figures = {}
    if body.torque:
        figures["torque_nm"] = typed_torque_nm(body.torque) * (per_set if body.trace is None else 1.0)
    if body.angle:
        figures["angle_deg"] = typed_angle_deg(body.angle)
    if body.before:
        figures["before_deg"] = typed_angle_deg(body.before, "before")
    return figures


def pulls_of(book: JointBook, body: JointReady) -> list[Pull]:
    """Return the pulls that were said with what was looked at, as entries of their own would have said them."""
    joint = book.joint_of(body.step)
    if joint is None or len(joint.spots) != 1:
        return []
    said, one = {(pull.stage, pull.turn): pull for pull in body.pulls}, joint.spots[0].id
    items = [item for item in book.segment(body.step) if (item.stage, item.turn) in said and item.fastener in (one, ALL)]
    return [
        Pull(kind="pull", step=body.step, fastener=item.fastener, wrench=body.wrench, **vars(said[item.stage, item.turn])) for item in items
    ]
