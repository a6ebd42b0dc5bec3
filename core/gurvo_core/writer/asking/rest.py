"""Bolts, clearances and parts: what the book has figures for, and the bench asks where it has none."""

__all__ = ["ask_bolts", "ask_clearances", "ask_parts"]

from collections.abc import Iterator

from gurvo_core.writer.answers import Answers, Source
from gurvo_core.writer.asking.question import Picture, Question
from gurvo_core.writer.compose.bolts import NONE, joint_groups
from gurvo_core.writer.shape import Shape
from gurvo_core.writer.shorthand.lash import read_lash, write_lash
from gurvo_core.writer.shorthand.pattern import read_pattern, write_pattern
from gurvo_core.writer.shorthand.stages import read_stages, write_stages
from gurvo_core.writer.shorthand.words import Piece, pieces, refused

BOLTS, CLEARANCES, PARTS = "bolts", "clearances", "parts"
MOST_PARTS = 24
FROM: tuple[Source, ...] = ("book", "measured", "generic", "guess")
CALLED = {
    "mains": "main cap bolts",
    "rods": "rod bolts",
    "head": "head bolts",
    "caps": "cam cap bolts",
    "wheel": "cam wheel bolts",
    "tension": "tensioner bolts",
    "rockers": "rocker bolts",
    "front": "front cover screws",
    "damper": "crank pulley bolts",
    "valve": "valve cover screws",
}
OF_EACH = {"rods": "each rod", "head": "each head", "caps": "each head", "wheel": "each cam wheel", "rockers": "each head"}


def ask_bolts(answers: Answers, shape: Shape) -> Iterator[Question]:
    """How each sort of joint is tightened, and how many it has."""
    for group in joint_groups(answers, shape):
        called = CALLED[group]
        picture = Picture(kind="bolts", focus=group)
        yield Question(
            key=f"stages.{group}",
            section=BOLTS,
            title=f"How are the {called} tightened?",
            about=called,
            hint="N·m, or a figure with its unit; angles with °; + between stages; a book's own words in quotes; “none” if there are none.",
            example="20 + 60 + 90° + 90°",
            costs="It is asked at the bench: thread and class, and only a generic figure is offered, said to be one.",
            sources=FROM,
            picture=picture,
            read=_stages_read,
        )
        if answers.get(f"stages.{group}") is None or answers[f"stages.{group}"].text != NONE:
            each = f" on {OF_EACH[group]}" if group in OF_EACH else ""
            yield Question(
                key=f"bolts.{group}",
                section=BOLTS,
                title=f"How many {called} has it{each}, and how do they stand?",
                about=f"{called}, pattern",
                example="2 x 5 middle outward",
                hint="A number, rows x columns, a circle or a line; behind it the order: middle outward, crosswise, opposing, round.",
                costs="They are counted at the bench, and done as a whole.",
                picture=picture,
                read=lambda text: write_pattern(read_pattern(text)),
            )


def _stages_read(text: str) -> str:
    if text.strip().lower() == NONE:
        return NONE
    written = write_stages(read_stages(text))
    if written is None:
        raise refused(Piece(text, 0), "this says more than a line can hold; write its stages one by one with + between")
    return written


def ask_clearances(_answers: Answers, _shape: Shape) -> Iterator[Question]:
    """How the valve clearances are set."""
    for valve in ("intake", "exhaust"):
        yield Question(
            key=f"lash.{valve}",
            section=CLEARANCES,
            title=f"How is the {valve} clearance set?",
            about=f"{valve} clearance",
            hint="In mm, or with thou behind; by screw or by shim; “hot” where the engine is.",
            example="0.15-0.20 by screw",
            costs="It is not asked in the run.",
            sources=FROM,
            picture=Picture(kind="cylinder"),
            read=lambda text: write_lash(read_lash(text)),
        )


def ask_parts(_answers: Answers, _shape: Shape) -> Iterator[Question]:
    """What is new every time, and what goes back where it came from."""
    yield Question(
        key="new",
        section=PARTS,
        title="What is never used again?",
        about="always new",
        hint="A comma between, a number before: the bench asks for each. The belt and the head gasket are there already.",
        example="10 head bolts, water pump, 2 cam seals",
        costs="Only belt and head gasket are asked for.",
        read=_parts_read,
    )
    yield Question(
        key="returns",
        section=PARTS,
        title="What goes back to the place it came from?",
        about="goes back",
        hint="Each by its place: followers, caps, shims.",
        example="8 followers, 10 cam caps",
        costs="Nothing is kept by its place.",
        picture=Picture(kind="cylinder"),
        read=_parts_read,
    )


def _parts_read(text: str) -> str:
    found = pieces(text, ",")
    if len(found) > MOST_PARTS:
        raise refused(found[MOST_PARTS], f"{len(found)} are more than a line holds; write {MOST_PARTS} at most")
    for piece in found:
        if len(piece.text) > 100:
            raise refused(piece, "this is longer than any part's name; write it shorter")
    return ", ".join(piece.text for piece in found)
