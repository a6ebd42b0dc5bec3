"""Bolts, clearances, gaps and parts: what the book has figures for, and the bench asks where it has none."""

__all__ = ["ask_bolts", "ask_clearances", "ask_parts"]

from collections.abc import Iterator

from gurvo_core.writer.answers import Answers, Source, said
from gurvo_core.writer.asking.question import Picture, Question
from gurvo_core.writer.compose.bolts import NONE, joint_groups
from gurvo_core.writer.shape import Shape
from gurvo_core.writer.shorthand.heads import read_base, read_friction, read_gap, read_head, read_spring, write_head, write_spring
from gurvo_core.writer.shorthand.lash import read_lash, write_lash
from gurvo_core.writer.shorthand.pattern import read_pattern, write_pattern
from gurvo_core.writer.shorthand.sizes import read_sizes
from gurvo_core.writer.shorthand.stages import read_stages, write_stages
from gurvo_core.writer.shorthand.words import Piece, pieces, refused

BOLTS, CLEARANCES, PARTS = "bolts", "clearances", "parts"
MOST_PARTS = 24
FROM: tuple[Source, ...] = ("book", "measured", "generic", "guess")
VALVES = ("intake", "exhaust")
HEAD_SUCH = {"intake": "34 at 14°, across 17, to piston 4.6", "exhaust": "29 at -15°, across -18, to piston 5"}
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


def ask_clearances(answers: Answers, shape: Shape) -> Iterator[Question]:
    """How the valve clearances are set, and what tells how near the valves come."""
    for valve in VALVES:
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
    yield from _ask_gaps(answers, shape)


def _ask_gaps(answers: Answers, shape: Shape) -> Iterator[Question]:
    """How near valves come to pistons and each other, and how hard they press: asked of whoever knows how far the pistons go."""
    sizes = said(answers, "sizes", read_sizes)
    if sizes is None or sizes.rod_mm is None or shape.cams_at is None:
        return
    for valve in VALVES:
        yield Question(
            key=f"head.{valve}",
            section=CLEARANCES,
            title=f"How big is the {valve} valve, how does it stand, and how near does it come?",
            about=f"{valve} valve",
            hint="Head in mm; its stem's angle from the bore and its place across, seen from the front, plus to the right; "
            "its drop to the piston at TDC; how deep its pocket is.",
            example=HEAD_SUCH[valve],
            costs="Nothing is said of what it may meet; the bench goes by where the book parks the crank.",
            sources=FROM,
            picture=Picture(kind="cylinder"),
            read=lambda text: write_head(read_head(text)),
        )
    for valve in VALVES:
        yield Question(
            key=f"spring.{valve}",
            section=CLEARANCES,
            title=f"How hard do the {valve} springs press?",
            about=f"{valve} springs",
            hint="Shut, and with every mm of lift; both springs of a valve together; the lift at which the coils touch, if it is known.",
            example="220 N + 28 N/mm, binds at 12",
            costs="Nothing is said of how the camshaft rests or which way it snaps.",
            sources=FROM,
            picture=Picture(kind="cylinder"),
            read=lambda text: write_spring(read_spring(text)),
        )
    for key, title, such, read in (
        ("base", "What radius has the lobes' base circle?", "16", read_base),
        ("friction", "How much do the lobes rub on their followers?", "0.08", read_friction),
    ):
        yield Question(
            key=key,
            section=CLEARANCES,
            title=title,
            about="lobes",
            hint="Of all its camshafts alike.",
            example=such,
            costs="A usual figure is taken, and a camshaft's rest is told the less surely.",
            sources=FROM,
            read=lambda text, own=read: f"{own(text):g}",  # type: ignore[misc]
        )
    for of, what in (("intake", "intake valve to piston"), ("exhaust", "exhaust valve to piston"), ("valves", "one valve to another")):
        yield Question(
            key=f"gap.{of}",
            section=CLEARANCES,
            title=f"How near does the book let {what.replace(' to ', ' come to ')}?",
            about=what,
            hint="In mm, turning over cold.",
            example="1.5" if of != "exhaust" else "2.0",
            costs="The least that the trade wants is taken, and said to be that.",
            sources=FROM,
            read=lambda text: f"{read_gap(text):g}",
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
