"""What drives the cams: what there is, what each passes, teeth and links, what takes up the slack, what holds the wheels."""

__all__ = ["ask_drive"]

from collections.abc import Iterator

from gurvo_core.writer.answers import Answers, Source, said, slug
from gurvo_core.writer.asking.question import Choice, Fact, OneKey, Picture, Question, choices_read, counted
from gurvo_core.writer.compose.drive import tensioner_of
from gurvo_core.writer.shape import DriveShape, Shape, WheelShape, driven_first, read_drives
from gurvo_core.writer.shorthand.path import read_path, write_path
from gurvo_core.writer.shorthand.words import counting

DRIVE = "drive"
KNOWN: tuple[Source, ...] = ("counted", "book", "guess")
SORTS = (
    Choice(value="hydraulic", name="plunger, filled with oil, pinned until it is let go"),
    Choice(value="ratchet", name="plunger with a ratchet"),
    Choice(value="press_and_release", name="plunger that is pressed in and jumps out"),
    Choice(value="oil_fed", name="plunger moved by oil pressure alone"),
    Choice(value="eccentric", name="roller on an eccentric, with a pointer"),
    Choice(value="spring_then_lock", name="roller pulled by a spring, then locked"),
    Choice(value="manual", name="set by hand"),
    Choice(value="none", name="there is none"),
)
FIXINGS = (
    Choice(value="key", name="a key"),
    Choice(value="dowel", name="a dowel"),
    Choice(value="slots", name="bolts in slots", words="it can be turned a little"),
    Choice(value="taper", name="a taper"),
    Choice(value="clamped", name="its bolt alone", words="it turns until that is tight"),
    Choice(value="phaser", name="a phaser"),
)


def ask_drive(answers: Answers, shape: Shape) -> Iterator[Question]:
    """Everything between crank and cams."""
    yield Question(
        key="drives",
        is_first=True,
        section=DRIVE,
        title="What drives the cams?",
        about="drives",
        hint="Each chain, belt and gear train from the crank's nose on, a comma between; the oil pump's too.",
        example="belt, oil chain",
        picture=Picture(kind="front"),
        read=lambda text: ", ".join(name for _, name in read_drives(text)),
        costs="Nothing is laid in the run; the cams are taken to turn once for two turns of the crank.",
    )
    for (_, name), drive in zip(said(answers, "drives", read_drives) or (), shape.drives, strict=True):
        yield _passes(answers, shape, drive, slug(name))
    for drive in shape.drives:
        yield from _teeth(answers, drive)
    for drive in shape.drives:
        if drive.kind != "gears" and drive.wheels:
            yield from _slack(answers, drive)
    for cam in shape.cams:
        wheel = shape.wheel_of(cam.id)
        if wheel is not None:
            yield _fixed(wheel)


def _passes(answers: Answers, shape: Shape, drive: DriveShape, ident: str) -> Question:
    is_gears = drive.kind == "gears"
    called = drive.name.lower()
    inside = "" if called == "gears" else f" in the {called}"
    cams = " and ".join(cam.name.lower() for cam in shape.cams[:2])
    said_text = answers.get(f"passes.{ident}")
    offers: tuple[OneKey, ...] = ()
    if said_text and said_text.text and not is_gears:
        first, *rest = read_path(said_text.text)
        offers = (OneKey(key="r", words="turn it round", text=write_path([first, *reversed(rest)])),)
    return Question(
        key=f"passes.{ident}",
        is_first=True,
        section=DRIVE,
        title=f"Which gear drives which{inside}?" if is_gears else f"What does the {called} pass, in the direction it travels?",
        about=f"{called}, passes",
        hint="From the crank outwards; a further branch behind a semicolon."
        if is_gears
        else "From the wheel that drives it; “back” for what runs on its back.",
        example="crank, idler, cam; idler, injection pump"
        if is_gears
        else f"crank, idler back, {cams.replace(' and ', ', ')}, tensioner back",
        costs="It is drawn as a sketch in no order, and nothing is laid on its way.",
        picture=Picture(kind="front", focus=drive.id),
        offers=offers,
        read=lambda text: "; ".join(write_path(branch) for branch in driven_first(text, shape.cams, is_gears)),
    )


def _number(answers: Answers, key: str) -> int | None:
    return said(answers, key, counting("number"))


def _teeth(answers: Answers, drive: DriveShape) -> Iterator[Question]:
    crank = next((wheel for wheel in drive.wheels if wheel.kind == "crank"), None)
    on_crank = _number(answers, f"teeth.{crank.id}") if crank else None
    of = f"the {drive.name.lower()}"
    for wheel in drive.wheels:
        if not wheel.is_toothed and drive.kind != "gears":
            continue
        facts = _of_teeth(wheel, on_crank, drive)
        yield Question(
            key=f"teeth.{wheel.id}",
            section=DRIVE,
            title=f"How many teeth has each wheel of {of}?",
            about=f"{wheel.called.lower()}, teeth",
            hint="Count them on the bench, or leave it: the bench asks whoever has it in his hand.",
            takes="count",
            costs="It is asked at the bench, once; what a tooth is worth is not told until then.",
            sources=KNOWN,
            picture=Picture(kind="front", focus=wheel.id),
            facts=facts,
            read=counted("number of teeth", 6, 400),
        )


def _of_teeth(wheel: WheelShape, on_crank: int | None, drive: DriveShape) -> tuple[Fact, ...]:
    """What follows from the crank wheel's teeth for a cam driven straight from it."""
    is_straight = any(one.kind == "crank" for one in drive.wheels)
    if on_crank is None or wheel.kind != "camshaft" or not is_straight:
        return ()
    return (
        Fact(what="cams against crank", is_so=f"1 : 2, so {on_crank} and {2 * on_crank}"),
        Fact(what="one tooth will be", is_so=f"{360 / on_crank:.1f}° of the crank"),
    )


def _slack(answers: Answers, drive: DriveShape) -> Iterator[Question]:
    called, unit = drive.name.lower(), "links" if drive.kind == "chain" else "teeth"
    front = Picture(kind="front", focus=drive.id)
    yield Question(
        key=f"count.{drive.id}",
        section=DRIVE,
        title=f"How many {unit} has the {called}?",
        about=f"{called}, {unit}",
        takes="count",
        costs="It is counted at the bench; when its marks meet again is not told.",
        sources=KNOWN,
        picture=front,
        read=counted(f"number of {unit}", 8, 2000),
    )
    yield Question(
        key=f"tensioner.{drive.id}",
        is_first=True,
        section=DRIVE,
        title=f"What takes up the slack of the {called}?",
        about=f"{called}, tensioner",
        takes="choice",
        choices=SORTS,
        costs="It is asked for in words: let go, then proven.",
        picture=front,
        read=choices_read(SORTS),
    )
    has_own = any(wheel.kind == "tensioner" for wheel in drive.wheels)
    if not has_own and tensioner_of(answers, drive) not in (None, "none"):
        runs = tuple(
            Choice(value=wheel.id, name=f"after the {wheel.called.lower()}", words=f"towards the {after.called.lower()}")
            for wheel, after in zip(drive.wheels, (*drive.wheels[1:], drive.wheels[0]), strict=True)
        )
        yield Question(
            key=f"after.{drive.id}",
            is_first=True,
            section=DRIVE,
            title=f"On which run of the {called} does its tensioner work?",
            about=f"{called}, tensioned run",
            hint="As it travels: the run that follows which wheel?",
            takes="choice",
            choices=runs,
            costs="Where the slack goes is not drawn.",
            picture=front,
            read=choices_read(runs),
        )


def _fixed(wheel: WheelShape) -> Question:
    return Question(
        key=f"fixed.{wheel.id}",
        is_first=True,
        section=DRIVE,
        title="What holds each cam wheel on its shaft?",
        about=f"{wheel.called.lower()}, held by",
        hint="A wheel that stands in one way is tight before anything is laid; one that can turn, after.",
        takes="choice",
        choices=FIXINGS,
        costs="It is tightened before anything is laid, as one with a key.",
        picture=Picture(kind="front", focus=wheel.id),
        read=choices_read(FIXINGS),
    )
