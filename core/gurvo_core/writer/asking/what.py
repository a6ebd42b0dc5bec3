"""What the engine is, its cylinders, its cams and valves: what a builder knows as he stands before it."""

__all__ = ["ask_cams", "ask_cylinders", "ask_what"]

import re
from collections.abc import Iterator

from gurvo_core.writer.answers import Answers, said, slug
from gurvo_core.writer.asking.question import Choice, Fact, Picture, Question, choices_read, counted, named
from gurvo_core.writer.shape import MOST_CYLINDERS, Shape
from gurvo_core.writer.shorthand.card import read_card, write_card
from gurvo_core.writer.shorthand.order import read_numbers, read_rows, write_numbers, write_rows
from gurvo_core.writer.shorthand.sizes import read_sizes, write_sizes
from gurvo_core.writer.shorthand.valves import read_valves, write_valves
from gurvo_core.writer.shorthand.words import Piece, refused

WHAT, CYLINDERS, CAMS = "what", "cylinders", "cams"
FUELS = (Choice(value="petrol", name="petrol"), Choice(value="diesel", name="diesel"), Choice(value="gas", name="gas"))
LAYOUTS = (
    Choice(value="inline", name="in line", words="one row"),
    Choice(value="v", name="V", words="two rows, one crank"),
    Choice(value="flat", name="flat", words="two rows, facing away"),
)
WAYS = tuple(
    Choice(value=f"{way} from the {end}", name=f"{way}, from the {end}", words="the cam-drive end" if end == "front" else "the other end")
    for end in ("front", "flywheel")
    for way in ("clockwise", "counter-clockwise")
)
RIGHT = (
    Choice(value="left", name="the left one here", words="the book looks from the flywheel, or from the seat"),
    Choice(value="right", name="the right one here", words="the book looks from the front, as this drawing does"),
)
BEGINS = (
    Choice(value="bare", name="the bare block", words="crank and pistons still to go in"),
    Choice(value="short", name="the short block", words="crank and pistons are in"),
)
_CODE = re.compile(r"[A-Za-z0-9][A-Za-z0-9._-]{0,39}")


def _code(text: str) -> str:
    if not _CODE.fullmatch(text.strip()):
        raise refused(Piece(text, 0), "a short code has letters, digits, dots and dashes, at most 40, no blanks; write such as bracken-4")
    return text.strip()


def ask_what(answers: Answers, _shape: Shape) -> Iterator[Question]:
    """Name, fuel, variant, code."""
    yield Question(
        key="name",
        is_first=True,
        section=WHAT,
        title="What does the shop call this engine?",
        about="name",
        hint="The family, not the serial number: every engine of it is built by what is described here.",
        example="Bracken 4",
        read=named(120, "what the shop calls it"),
    )
    yield Question(
        key="fuel",
        is_first=True,
        section=WHAT,
        title="What does it burn?",
        about="fuel",
        takes="choice",
        choices=FUELS,
        read=choices_read(FUELS),
    )
    yield Question(
        key="variant",
        section=WHAT,
        title="Which one of them is it?",
        about="variant",
        hint="Where there are several: what it came out of, from which year.",
        example="Irrigation pump, with the deep sump",
        costs="Nothing else tells it from its siblings.",
        read=named(200, "which one it is"),
    )
    yield Question(
        key="begins",
        section=WHAT,
        is_first=True,
        title="With what does the work begin?",
        about="begins with",
        takes="choice",
        choices=BEGINS,
        costs="The run begins with the heads; crank and pistons are taken to be in.",
        picture=Picture(kind="layout"),
        read=choices_read(BEGINS),
    )
    name = said(answers, "name", str)
    code = (Fact(what="unless another is written", is_so=slug(name)),) if name else ()
    yield Question(
        key="code",
        section=WHAT,
        title="A short code for the family?",
        about="code",
        hint="The same in every revision; engines are found by it.",
        example="bracken-4",
        costs="It is made from the name.",
        facts=code,
        read=_code,
    )


def ask_cylinders(_answers: Answers, shape: Shape) -> Iterator[Question]:
    """Layout, how many, how they are numbered, which way it runs, in which order it fires."""
    layout = Picture(kind="layout")
    yield Question(
        key="layout",
        is_first=True,
        section=CYLINDERS,
        title="How do its cylinders stand?",
        about="layout",
        takes="choice",
        choices=LAYOUTS,
        picture=layout,
        read=choices_read(LAYOUTS),
    )
    yield Question(
        key="cylinders",
        is_first=True,
        section=CYLINDERS,
        title="How many cylinders has it?",
        about="cylinders",
        takes="count",
        costs="Only cylinder 1 is spoken of; valves are not asked one by one.",
        picture=layout,
        read=counted("number of cylinders", 1, MOST_CYLINDERS),
    )
    if len(shape.banks) > 1:
        yield _rows(layout)
        yield _sides(layout)
    if shape.layout == "v":
        yield _lean(layout)
    yield Question(
        key="way",
        is_first=True,
        section=CYLINDERS,
        title="Which way does it run?",
        about="runs",
        hint="From where you stand: an arrow on the block, the starter, the fan.",
        takes="choice",
        choices=WAYS,
        costs="It is asked at the bench before anything is turned.",
        picture=layout,
        read=choices_read(WAYS),
    )
    yield _sizes()
    if len(shape.numbers) != 1:
        yield Question(
            key="fires",
            section=CYLINDERS,
            title="In which order does it fire?",
            about="fires",
            example="1-3-4-2",
            costs="Only the strokes of the first cylinder are told.",
            picture=layout,
            read=lambda text: _fires(text, shape),
        )


def _rows(picture: Picture) -> Question:
    return Question(
        key="rows",
        is_first=True,
        section=CYLINDERS,
        title="Which numbers stand left, and which right?",
        about="numbering, left / right",
        hint="As seen from the front, the cam-drive end; from the front backwards.",
        example="1-3-5-7 / 2-4-6-8",
        costs="Which cylinder is where is not told; the bench speaks of left and right banks alone.",
        picture=picture,
        read=lambda text: write_rows(read_rows(text, 2)),
    )


def _sides(picture: Picture) -> Question:
    return Question(
        key="sides",
        section=CYLINDERS,
        title="Which bank does the book call the right one?",
        about="the book's right bank",
        hint="Books look from the front, from the flywheel or from the driver's seat. The drawing is from the front.",
        takes="choice",
        choices=RIGHT,
        costs="It is asked at the bench, before anything is done to one bank.",
        picture=picture,
        read=choices_read(RIGHT),
    )


def _lean(picture: Picture) -> Question:
    return Question(
        key="lean",
        section=CYLINDERS,
        title="How far do its rows lean apart?",
        about="angle of the V",
        takes="count",
        hint="In degrees, from one row to the other.",
        example="90",
        costs="Its rows are drawn upright.",
        picture=picture,
        read=counted("angle of a V", 10, 170),
    )


def _sizes() -> Question:
    return Question(
        key="sizes",
        section=CYLINDERS,
        title="Bore, stroke and rod?",
        about="bore x stroke, rod",
        hint="In mm; the rod from centre to centre. A pin that is offset is written behind: pin 0.5.",
        example="86 x 86, rod 143.5",
        costs="True TDC is found by a stop, and pistons are only sketched.",
        sources=("book", "measured", "guess"),
        picture=Picture(kind="cylinder"),
        read=lambda text: write_sizes(read_sizes(text)),
    )


def _fires(text: str, shape: Shape) -> str:
    order = read_numbers(text)
    if shape.numbers and sorted(order) != list(shape.numbers):
        missing = sorted(set(shape.numbers) - set(order))
        rule = f"{', '.join(map(str, missing))} left out" if missing else f"this engine has cylinders {write_numbers(shape.numbers)}"
        raise refused(Piece(text.strip(), 0), f"{rule}; write every cylinder once")
    return write_numbers(order)


def ask_cams(answers: Answers, shape: Shape) -> Iterator[Question]:
    """Where the cams are, the valves of a cylinder, and a card if there is one."""
    both = " over each bank" if len(shape.banks) > 1 else ""
    where = (
        Choice(value="block", name="in the block", words="pushrods and rockers"),
        Choice(value="one", name="one above", words=f"one camshaft{both}"),
        Choice(value="two", name="two above", words=f"intake and exhaust cam{both}"),
    )
    cylinder = Picture(kind="cylinder")
    yield Question(
        key="cams",
        is_first=True,
        section=CAMS,
        title="Where are its cams?",
        about="cams",
        takes="choice",
        choices=where,
        costs="One camshaft is spoken of, and nothing of what it opens.",
        picture=cylinder,
        read=choices_read(where),
    )
    yield Question(
        key="valves",
        is_first=True,
        section=CAMS,
        title="How many valves has a cylinder?",
        about="valves, intake + exhaust",
        example="2 + 2",
        costs="Valves are not asked one by one: no degreeing, clearances as one thing to do.",
        picture=cylinder,
        read=lambda text: write_valves(read_valves(text)),
    )
    if said(answers, "cams", str):
        yield Question(
            key="card",
            section=CAMS,
            title="When do its valves move?",
            about="cam card",
            hint="Intake opens before TDC / closes after BDC, exhaust opens before BDC / closes after TDC, at which lift.",
            example="16/52 54/14 at 1.00",
            costs="A cam that is degreed is kept as it is measured; no limit is known.",
            sources=("book", "measured", "generic", "guess"),
            picture=cylinder,
            read=lambda text: write_card(read_card(text)),
        )
