"""Pulls as they ended: of every fastener the last that has a figure."""

__all__ = ["came_to"]

from collections.abc import Iterator

from gurvo_core.joints.job.pulled import Pulled
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.sequence import Item
from gurvo_core.ledger.came_to import CameTo


def came_to(now: JointsState) -> Iterator[CameTo]:
    """The torque [N·m] or angle [deg] at which each fastener was left, as far as somebody read it."""
    for joint_id, pulls in now.pulls.items():
        joint = now.book.joints.get(joint_id)
        if joint is None:
            continue
        last: dict[str, tuple[Item, Pulled]] = {}
        for item in joint.items:  # in order, so that the last one stays
            pulled = pulls.get(item.key)
            if pulled is not None and (pulled.torque_nm is not None or pulled.angle_deg is not None):
                last[item.fastener] = (item, pulled)
        for fastener, (item, pulled) in last.items():
            figures = joint.figures(item)
            name = f"{joint.joint.name}, stage {item.stage}"
            if figures.angle_deg is not None and pulled.angle_deg is not None:
                limits = figures.least_deg, figures.most_deg
                yield CameTo("pull", joint_id, name, fastener, pulled.angle_deg, "deg", pulled.angle_by or "", pulled.seq, *limits)
            elif pulled.torque_nm is not None:
                limits = figures.least_nm, figures.most_nm
                yield CameTo("pull", joint_id, name, fastener, pulled.torque_nm, "N·m", pulled.wrench or "", pulled.seq, *limits)
