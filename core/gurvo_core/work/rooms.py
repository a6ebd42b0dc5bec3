"""The rooms of this house, in the order of their arrows. A new one is added here and nowhere else."""

__all__ = ["ROOMS"]

from typing import Any

from gurvo_core.clearway.job import ROOM as CLEARWAY
from gurvo_core.fits.job import ROOM as FITS
from gurvo_core.found.job import ROOM as FOUND
from gurvo_core.joints.job import ROOM as JOINTS
from gurvo_core.lash.job import ROOM as LASH
from gurvo_core.ledger import Room
from gurvo_core.pictures.job import ROOM as PICTURES
from gurvo_core.run.job import ROOM as RUN
from gurvo_core.timing.job import ROOM as TIMING
from gurvo_core.work.hand_over import ROOM as HAND_OVER
from gurvo_core.work.order import ROOM as ORDER
from gurvo_core.work.whereabouts import ROOM as WHEREABOUTS

ROOMS: tuple[Room[Any], ...] = (RUN, FOUND, JOINTS, FITS, LASH, TIMING, CLEARWAY, PICTURES, ORDER, WHEREABOUTS, HAND_OVER)
