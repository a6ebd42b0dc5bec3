"""How a joint's figures are said: torques in every unit a wrench may have, windows, what a bolt is."""

__all__ = ["about_joint", "torque_in", "window_words"]

from functools import lru_cache

from gurvo_core.engine import Joint
from gurvo_core.joints.job.view import TorqueIn
from gurvo_core.joints.judge import Window
from gurvo_core.joints.wrench import TORQUES
from gurvo_core.units import per_unit

FEW, MANY = 10.0, 100.0  # below the one a figure has a decimal, below the other a half is said
EXACT = 1e-6


@lru_cache(maxsize=4096)
def torque_in(value_nm: float | None) -> list[TorqueIn]:
    """Return a torque in every unit. value_nm: torque [N·m]."""
    if value_nm is None:
        return []
    return [TorqueIn(unit=unit, text=_plain(value_nm / per_unit(unit))) for unit in TORQUES]


def _plain(value: float) -> str:
    return (
        f"{value:.1f}".removesuffix(".0") if value < FEW or (abs(value * 2 - round(value * 2)) < EXACT and value < MANY) else f"{value:.0f}"
    )


def window_words(window: Window, unit: str) -> str:
    """Return a window in words."""
    if window.least is not None and window.most is not None:
        return f"{window.least:.4g} to {window.most:.4g}{unit}"
    if window.least is not None:
        return f"at least {window.least:.4g}{unit}"
    return f"at most {window.most:.4g}{unit}" if window.most is not None else ""


def about_joint(joint: Joint) -> list[str]:
    """Return what is to be known of a joint's fasteners before they are pulled."""
    count = len(joint.bolts) or joint.fasteners or 1
    counted = "one fastener" if count == 1 and not joint.thread else f"{count} × {joint.thread or 'fasteners'}"
    said = [" ".join(filter(None, [counted, joint.property_class or ""]))]
    said += ["left-hand thread"] if joint.hand == "left" else []
    if joint.thread_state is not None:
        said.append(f"threads {joint.thread_state}, heads {joint.head_state or joint.thread_state}")
    elif joint.lubrication:
        said.append(f"threads {joint.lubrication}")
    said += ["one bolt to its end before the next"] if joint.one_after_another else []
    said += [f"begin {'with ' if joint.begins in {bolt.id for bolt in joint.bolts} else ''}{joint.begins}"] if joint.begins else []
    return [*said, *filter(None, [joint.thread_note, joint.washer, "new every time" if joint.one_time else ""])]
