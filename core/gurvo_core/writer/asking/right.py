"""How it is known to stand right: marks, locks, coloured links, or by degreeing; and where the crank is put before."""

__all__ = ["ask_right"]

from collections.abc import Callable, Iterator

from gurvo_core.writer.answers import Answers
from gurvo_core.writer.asking.question import Choice, Picture, Question, choices_read, named, several_read
from gurvo_core.writer.compose.engine import known_by
from gurvo_core.writer.shape import DriveShape, Shape, shaft_id
from gurvo_core.writer.shorthand.links import read_links, write_links
from gurvo_core.writer.shorthand.mark import read_mark, write_mark
from gurvo_core.writer.shorthand.words import Piece, refused

RIGHT = "right"
BY = (
    Choice(value="marks", name="marks that meet"),
    Choice(value="locks", name="pins, plates or locks that go in"),
    Choice(value="links", name="coloured links or printed lines"),
    Choice(value="degreed", name="degreeing, with a wheel and a dial"),
)
PLACES = (
    Choice(value="tdc", name="TDC of the first cylinder"),
    Choice(value="pin", name="where a pin drops in"),
    Choice(value="half", name="all pistons half-way"),
    Choice(value="mark", name="where the crank's mark meets", words="nobody says how far that is from TDC"),
)


def ask_right(answers: Answers, shape: Shape) -> Iterator[Question]:
    """By what, where, and each mark, lock and link of it."""
    by = known_by(answers)
    yield Question(
        key="known_by",
        is_first=True,
        section=RIGHT,
        title="How is it known that the cams stand right?",
        about="known by",
        hint="All that holds; each is asked for by name at the bench.",
        takes="several",
        choices=BY,
        costs="Nothing tells it: the lead has to give his word for every cam.",
        picture=Picture(kind="front"),
        read=several_read(BY),
    )
    yield Question(
        key="position",
        is_first=True,
        section=RIGHT,
        title="Where does the crank stand when the drive is laid?",
        about="crank stands",
        takes="choice",
        choices=PLACES,
        costs="It is put where its mark meets; turns are counted from there.",
        picture=Picture(kind="front", focus="crank"),
        read=choices_read(PLACES),
    )
    if "marks" in by:
        yield from _marks(shape)
    if "locks" in by:
        yield from _locks(shape)
    if "links" in by:
        for drive in shape.drives:
            if drive.kind != "gears" and drive.wheels:
                yield _links(shape, drive)


def _marks(shape: Shape) -> Iterator[Question]:
    costs = "Nothing is looked at on this wheel."
    hint = "The mark, what it meets, and where on the clock, seen from the front; no place where nobody knows it. “none” where it has none."
    first_of = {wheel.shaft: wheel.id for wheel in reversed(shape.wheels)}
    for wheel in shape.wheels:
        if wheel.id != first_of[wheel.shaft]:
            continue  # what stands right by one of a shaft's wheels stands right by all
        geared = any(wheel.id in mesh for drive in shape.drives for mesh in drive.meshes)
        if wheel.kind in ("crank", "camshaft", "balance") and not wheel.on_back and not geared:
            yield Question(
                key=f"mark.{wheel.id}",
                is_first=True,
                section=RIGHT,
                title=f"What shows that the {wheel.called.lower()} stands right?",
                about=f"{wheel.called.lower()}, mark",
                hint=hint,
                example="dot to line on the head at 12",
                costs=costs,
                picture=Picture(kind="front", focus=wheel.id),
                read=_mark_read,
            )
    for drive in shape.drives:
        names = {wheel.id: wheel.called.lower() for wheel in drive.wheels}
        for driver, driven in drive.meshes:
            yield Question(
                key=f"meet.{driver}.{driven}",
                is_first=True,
                section=RIGHT,
                title=f"Which marks meet between the {names[driver]} and the {names[driven]}?",
                about=f"{names[driver]} and {names[driven]}, marks",
                hint="As both gears have it; “none” where they may mesh in any way.",
                example="two dots",
                costs="Nothing is looked at where these two mesh.",
                picture=Picture(kind="front", focus=driven),
                read=_mark_read,
            )


def _mark_read(text: str) -> str:
    return write_mark(read_mark(text))


def _locks(shape: Shape) -> Iterator[Question]:
    for n, (shaft, name) in enumerate(shape.timed):
        same = " “same” where it is the one before." if n else ""
        yield Question(
            key=f"lock.{shaft}",
            is_first=True,
            section=RIGHT,
            title=f"What goes in to hold the {name.lower()}?",
            about=f"{name.lower()}, locked by",
            hint=f"A pin, plate, bar or bolt, as the shop calls it; “none” where nothing does.{same}",
            example="plate across both cams" if n else "pin in the flywheel",
            costs="Nothing is put in here, and nothing has to go in again.",
            picture=Picture(kind="front", focus=shaft),
            read=named(100, "what goes in"),
        )


def _links(shape: Shape, drive: DriveShape) -> Question:
    called = drive.name.lower()
    return Question(
        key=f"links.{drive.id}",
        is_first=True,
        section=RIGHT,
        title=f"At which wheels does the {called} have coloured links or lines?",
        about=f"{called}, marked",
        hint="As it travels, with how many to the next one where somebody has counted.",
        example="crank 25, intake 8, exhaust 31",
        costs="None is looked at.",
        picture=Picture(kind="front", focus=drive.id),
        read=_links_read(shape, drive),
    )


def _links_read(shape: Shape, drive: DriveShape) -> Callable[[str], str]:
    shafts = {wheel.shaft for wheel in drive.wheels}

    def read(text: str) -> str:
        links = read_links(text)
        for one in links:
            if shaft_id(one.wheel, shape.cams) not in shafts:
                begin = max(text.lower().find(one.wheel), 0)
                names = ", ".join(wheel.name.lower() for wheel in drive.wheels)
                raise refused(Piece(one.wheel, begin), f"“{one.wheel}” is no wheel of it; write {names}")
        return write_links(links)

    return read
