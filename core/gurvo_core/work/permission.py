"""Loose ends and the permission to turn, worked out from what is fitted."""

__all__ = ["loose_ends", "permission"]

from gurvo_core.work.situation import Situation
from gurvo_core.work.state import LooseEnd, Permission


def loose_ends(now: Situation, zero_adopted: bool) -> list[LooseEnd]:
    """Return everything temporary that is still in the engine.

    Parameters
    ----------
    now : Situation
        What stands.
    zero_adopted : bool
        Whether true TDC has been taken over, after which a stop must not be met again.

    Returns
    -------
    ends : list of LooseEnd
        Each with what it holds back.

    Source
    ------
    Practice: what was put in for a while is on the list until it is out.

    Example
    -------
    >>> loose_ends(gather(quern_4(), []), False)
    []
    """
    if not now.stop_in:
        return []
    return [LooseEnd(title="Piston stop fitted", holds_back="turning over, degreeing", stops_turning=zero_adopted)]


def permission(now: Situation, ends: list[LooseEnd]) -> Permission:
    """Return whether the crank may be turned.

    Parameters
    ----------
    now : Situation
        What stands.
    ends : list of LooseEnd
        What is still in the engine.

    Returns
    -------
    permission : Permission
        Said as a builder would, with the reasons.

    Source
    ------
    Practice: plugs out, stand locked, by hand; never against a stop that has done its work.

    Example
    -------
    >>> permission(gather(quern_4(), []), []).free
    False
    """
    stopping = [end.title.lower() for end in ends if end.stops_turning]
    if now.setup is None:
        return Permission(free=False, title="Do not turn", reasons=["plugs out and stand locked not yet confirmed"])
    if stopping:
        return Permission(free=False, title="Do not turn", reasons=[f"{reason}: take it out first" for reason in stopping])
    if now.stop_in:
        return Permission(free=True, title="Free to turn", reasons=["by hand, gently up to the stop", "plugs are out"])
    return Permission(free=True, title="Free to turn", reasons=["by hand, the running way only", "plugs are out"])
