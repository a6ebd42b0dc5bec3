"""Cross-checks of an engine document beyond types: each fault is one sentence with its JSON path, and all are found at once.

``links`` looks for names that point nowhere, ``crank`` at numbering, firing order and rods, ``cams`` at lobes and card, ``wheels`` at
the drive's wheels, ``marks`` at its marks. What needs the drive's drawn path or a lobe's curve is asked in the rooms ``drive`` and
``timing``; ``gurvo_core.reading`` puts all of it together.
"""

__all__ = ["find_faults"]

from gurvo_core.engine.checks.cams import cam_faults
from gurvo_core.engine.checks.crank import crank_faults
from gurvo_core.engine.checks.links import link_faults
from gurvo_core.engine.checks.marks import mark_faults
from gurvo_core.engine.checks.wheels import wheel_faults
from gurvo_core.engine.document import EngineDocument
from gurvo_core.errors import Fault


def find_faults(document: EngineDocument) -> list[Fault]:
    """Return every fault of a document whose types are right.

    The firing order must bring each cylinder to TDC when its throw does; the drive must turn each cam once in two turns.
    """
    faults = [*link_faults(document), *crank_faults(document), *cam_faults(document), *wheel_faults(document), *mark_faults(document)]
    return list(dict.fromkeys(faults))
