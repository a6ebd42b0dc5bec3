"""A cam card on one line: ``16/52 54/14 at 1.00``, intake opens before TDC and closes after BDC, exhaust before BDC and after TDC."""

__all__ = ["Card", "read_card", "write_card"]

from typing import NamedTuple

from gurvo_core.writer.shorthand.words import Piece, figure_in, pieces, refused

Pair = tuple[float, float]


class Card(NamedTuple):
    """When the valves move, at one lift."""

    intake: Pair | None  # opens before TDC, closes after BDC [deg]
    exhaust: Pair | None  # opens before BDC, closes after TDC [deg]
    lift_mm: float


def read_card(text: str) -> Card:
    """The card in a line; ``-`` stands for the valve that this cam does not work."""
    cut = pieces(text, r"\bat\b")
    if len(cut) != 2:
        raise refused(Piece(text, 0), "at which lift is not said; write it behind, such as 16/52 54/14 at 1.00")
    pairs = cut[0].words
    if len(pairs) != 2:
        raise refused(cut[0], "write two pairs, intake first, such as 16/52 54/14; - for a valve that this cam does not work")
    lift = Piece(cut[1].text.removesuffix("mm").strip(), cut[1].begin)
    found = Card(_pair(pairs[0]), _pair(pairs[1]), figure_in(lift))
    if found.intake is None and found.exhaust is None:
        raise refused(cut[0], "no valve is said; write at least one pair")
    return found


def _pair(piece: Piece) -> Pair | None:
    if piece.text in ("-", "–"):
        return None
    cut = pieces(piece.text, "/")
    if len(cut) != 2:
        raise refused(piece, f"“{piece.text}” is no pair; write opens/closes, such as 16/52")
    opens, closes = (_degrees(Piece(part.text, piece.begin + part.begin)) for part in cut)
    return opens, closes


def _degrees(piece: Piece) -> float:
    """An event; a minus says that it is on the other side of its dead centre."""
    is_minus = piece.text.startswith(("-", "−"))
    figure = figure_in(Piece(piece.text[1:], piece.begin + 1) if is_minus else piece)
    if figure > 180:
        raise refused(piece, f"{piece.text}° is more than half a turn; count from the nearer dead centre")
    return -figure if is_minus else figure


def write_card(card: Card) -> str:
    """The same line in its one form."""
    pairs = " ".join("-" if pair is None else f"{pair[0]:g}/{pair[1]:g}" for pair in (card.intake, card.exhaust))
    return f"{pairs} at {card.lift_mm:.2f}"
