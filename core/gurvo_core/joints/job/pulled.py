"""A pull as it stands, its figures in N·m and degrees at the bolt."""

__all__ = ["Pulled"]

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True, kw_only=True)
class Pulled:
    """One pull."""

    seq: int
    at: datetime
    by: str
    torque_nm: float | None = None  # at the end, where the wrench has a scale
    angle_deg: float | None = None
    before_deg: float | None = None  # from finger tight to the torque
    angle_by: str | None = None
    wrench: str | None = None
    because: str = ""
    has_trace: bool = False
