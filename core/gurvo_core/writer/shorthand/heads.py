"""A valve's head and its springs, each on one line: ``34 at 14°, across 17, to piston 4.6, pocket 2``; ``220 N + 28 N/mm, binds at 12``."""

__all__ = ["HeadSaid", "SpringSaid", "read_base", "read_friction", "read_gap", "read_head", "read_spring", "write_head", "write_spring"]

import re
from collections.abc import Callable
from typing import NamedTuple

from gurvo_core.writer.shorthand.words import Piece, figure_in, refused

_HEAD = re.compile(
    r"(?P<head>\S+?)(?:\s*mm)?(?:\s+at\s+(?P<angle>\S+?)\s*°?)?(?:,?\s+across\s+(?P<across>\S+?))?"
    r"(?:,?\s+to piston\s+(?P<piston>\S+?))?(?:,?\s+pocket\s+(?P<pocket>\S+))?",
    re.I,
)
_SPRING = re.compile(r"(?P<preload>\S+?)\s*N\s*\+\s*(?P<rate>\S+?)\s*N/mm(?:,?\s+binds at\s+(?P<bind>\S+))?", re.I)
MOST_HEAD_MM, MOST_ANGLE_DEG, MOST_GAP_MM, MOST_BASE_MM = 500, 60, 50, 200


class HeadSaid(NamedTuple):
    """One sort of valve [mm, deg]; None while not known."""

    head_mm: float
    angle_deg: float = 0.0
    across_mm: float = 0.0
    to_piston_mm: float | None = None
    pocket_mm: float | None = None


class SpringSaid(NamedTuple):
    """The springs of one sort of valve, all of a valve's together."""

    preload_n: float
    rate_n_mm: float
    bind_lift_mm: float | None = None


def _figures(found: re.Match[str]) -> Callable[[str], float | None]:
    return lambda name: None if found[name] is None else figure_in(Piece(found[name], found.start(name)))


def read_head(text: str) -> HeadSaid:
    """The head in a line."""
    plain = text.strip()
    found = _HEAD.fullmatch(plain)
    if found is None:
        raise refused(Piece(plain, 0), "write such as 34 at 14°, across 17, to piston 4.6, pocket 2; what is not known is left out")
    figure = _figures(found)
    head = figure("head") or 0.0
    if not 0 < head <= MOST_HEAD_MM:
        raise refused(Piece(found["head"], found.start("head")), f"no valve's head is {head:g} mm across; write it in mm")
    angle = figure("angle") or 0.0
    if abs(angle) > MOST_ANGLE_DEG:
        raise refused(Piece(found["angle"], found.start("angle")), f"{angle:g}° is no valve's angle; it is counted from the bore's axis")
    return HeadSaid(head, angle, figure("across") or 0.0, figure("piston"), figure("pocket"))


def write_head(said: HeadSaid) -> str:
    """The same line in its one form."""
    parts = [f"{said.head_mm:g}{f' at {said.angle_deg:g}°' if said.angle_deg else ''}"]
    parts += [f"across {said.across_mm:g}"] if said.across_mm else []
    parts += [f"to piston {said.to_piston_mm:g}"] if said.to_piston_mm is not None else []
    parts += [f"pocket {said.pocket_mm:g}"] if said.pocket_mm is not None else []
    return ", ".join(parts)


def read_spring(text: str) -> SpringSaid:
    """The springs in a line."""
    plain = text.strip()
    found = _SPRING.fullmatch(plain)
    if found is None:
        raise refused(Piece(plain, 0), "write what it presses shut and with every mm, such as 220 N + 28 N/mm, binds at 12")
    figure = _figures(found)
    preload, rate = figure("preload") or 0.0, figure("rate") or 0.0
    if preload < 0 or rate <= 0:
        raise refused(Piece(plain, 0), "a spring presses with more than 0 N/mm, and never with less than 0 N shut")
    return SpringSaid(preload, rate, figure("bind"))


def write_spring(said: SpringSaid) -> str:
    """The same line in its one form."""
    binds = f", binds at {said.bind_lift_mm:g}" if said.bind_lift_mm is not None else ""
    return f"{said.preload_n:g} N + {said.rate_n_mm:g} N/mm{binds}"


def read_base(text: str) -> float:
    """The radius of a base circle in a line [mm]."""
    return _between(text, MOST_BASE_MM, "no base circle has a radius of {:g} mm; write it in mm")


def read_friction(text: str) -> float:
    """How much lobes rub on their followers, in a line [-]."""
    return _between(text, 1, "{:g} is no friction; write such as 0.08")


def _between(text: str, most: float, rule: str) -> float:
    figure = figure_in(Piece(text.strip(), len(text) - len(text.lstrip())))
    if not 0 < figure <= most:
        raise refused(Piece(text.strip(), 0), rule.format(figure))
    return figure


def read_gap(text: str) -> float:
    """A least gap in a line [mm]."""
    gap = figure_in(Piece(text.strip().removesuffix("mm").strip(), len(text) - len(text.lstrip())))
    if not 0 <= gap <= MOST_GAP_MM:
        raise refused(Piece(text.strip(), 0), f"{gap:g} mm is no gap that a book wants; write it in mm")
    return gap
