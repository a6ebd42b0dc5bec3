"""Photographs on paper, four a page: fitted into their boxes, with what is drawn on them, by whom and when, and their digest."""

__all__ = ["photographs"]

from typing import Any

from django.utils import timezone

from gurvo_core.pictures.job.state import PictureView
from work import bridge
from work.pictures import picture_file

BOX = 86.5 / 84  # of a picture on paper: width over height
TO_THE_LEFT = 0.6  # further right than that, words stand left of what they are at


def photographs(ledger: bridge.Ledger) -> list[dict[str, Any]]:
    """Return every picture that stands and is there, oldest first, with its places in percent of its box."""
    return [_photograph(one) for one in bridge.pictures_of(ledger) if picture_file(one.digest).exists()]


def _photograph(one: PictureView) -> dict[str, Any]:
    shape = one.width / one.height / BOX
    wide, high = (100.0, 100.0 / shape) if shape > 1 else (100.0 * shape, 100.0)
    left, top = (100 - wide) / 2, (100 - high) / 2
    drawn = [
        {"is_a": mark.is_a, "x": left + mark.x * wide, "y": top + mark.y * high, "says": mark.says, "left": mark.x > TO_THE_LEFT}
        for mark in one.drawn
    ]
    where = ", ".join(filter(None, (one.title, one.place)))
    return {
        "digest": one.digest,
        "left": left,
        "top": top,
        "wide": wide,
        "high": high,
        "drawn": drawn,
        "title": one.shows or where or "Picture",
        "where": where if one.shows else "",
        "at": timezone.localtime(one.at),
        "by": one.by,
        "is_past": one.is_past,
    }
