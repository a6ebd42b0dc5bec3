"""The traces of a joint's pulls, to be laid over each other."""

__all__ = ["trace_lines"]

from collections.abc import Callable

from gurvo_core.errors import ReadingError
from gurvo_core.joints.job.entries import Pull
from gurvo_core.joints.job.kept import open_trace
from gurvo_core.joints.job.state import JointsState
from gurvo_core.joints.job.view import TraceLine
from gurvo_core.joints.trace import analyse, thin
from gurvo_core.ledger import Body

SHOWN_POINTS = 400


def trace_lines(now: JointsState, step_id: str, body_at: Callable[[int], Body]) -> list[TraceLine]:
    """Return the traces of the pulls of a joint that stand. Returned: in the order of the pulls, each thinned for a drawing [deg, N·m]."""
    joint, lines = now.book.joint_of(step_id), list[TraceLine]()
    if joint is None:
        return lines
    pulls, apart = now.of_joint(joint.joint.id), {one.item.key for one in now.judged.get(joint.joint.id, ())}
    for item in joint.items:
        pull = pulls.get(item.key)
        body = body_at(pull.seq) if pull is not None and pull.has_trace else None
        if not isinstance(body, Pull) or body.trace is None:
            continue
        trace = open_trace(body.trace)
        small = thin(trace, SHOWN_POINTS)
        try:
            flags = list(analyse(trace).flags)
        except ReadingError as error:
            flags = [error.rule]
        lines.append(
            TraceLine(
                fastener=item.fastener,
                stage=item.stage,
                turn=item.turn,
                is_apart=item.key in apart,
                angle_deg=[round(float(one), 1) for one in small.angle_deg],
                torque_nm=[round(float(one), 2) for one in small.torque_nm],
                flags=flags,
            )
        )
    return lines
