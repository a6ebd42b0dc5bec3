"""The outline of an engine as far as it is answered: its rows, cams, and what each chain, belt or gear train passes."""

__all__ = [
    "BankShape",
    "CamShape",
    "DriveShape",
    "Shape",
    "WheelShape",
    "driven_first",
    "find_shaft",
    "read_drives",
    "shaft_id",
    "shape_of",
]

import re
from collections.abc import Sequence
from functools import lru_cache, partial
from itertools import pairwise
from typing import Literal, NamedTuple

from gurvo_core.errors import CoreError
from gurvo_core.writer.answers import Answered, Answers, said, slug
from gurvo_core.writer.shorthand.order import read_rows
from gurvo_core.writer.shorthand.path import Passed, read_path
from gurvo_core.writer.shorthand.valves import read_valves
from gurvo_core.writer.shorthand.words import Piece, counting, pieces, refused

Layout = Literal["inline", "v", "flat"]
CamsAt = Literal["block", "one", "two"]
Kind = Literal["chain", "belt", "gears"]
ShaftKind = Literal["crank", "camshaft", "auxiliary", "pump", "idler", "tensioner", "balance"]
MOST_DRIVES, MOST_CYLINDERS = 8, 32

# which words in the name of a wheel say what sort of shaft it is on
_SORTS: tuple[tuple[ShaftKind, tuple[str, ...]], ...] = (
    ("tensioner", ("tensioner", "tension")),
    ("idler", ("idler", "roller", "guide")),
    ("pump", ("pump", "injection")),
    ("balance", ("balance", "balancer")),
    ("auxiliary", ("auxiliary", "jackshaft", "jack", "intermediate", "distributor", "compressor", "gear", "shaft")),
)
_CAM_WORDS = {"cam", "camshaft", "sprocket", "pulley", "wheel", "gear"}


class BankShape(NamedTuple):
    """One row of cylinders."""

    id: str
    name: str
    axis_deg: float | None
    cylinders: tuple[int, ...]


class CamShape(NamedTuple):
    """One camshaft, and what it opens."""

    id: str
    name: str
    bank: str | None
    valves: tuple[Literal["intake", "exhaust"], ...]


class WheelShape(NamedTuple):
    """One wheel of a drive, on which shaft, called what there."""

    id: str
    shaft: str
    name: str
    kind: ShaftKind
    on_back: bool
    of: str = ""  # the drive, where its shaft has a wheel for another one too

    @property
    def called(self) -> str:
        """What a builder calls it: the crank wheel, the intake cam wheel, the idler; of which drive, where there are several."""
        plain = f"{self.name.removesuffix('shaft')} wheel" if self.kind in ("crank", "camshaft") else self.name
        return f"{plain} of the {self.of}" if self.of else plain

    @property
    def is_toothed(self) -> bool:
        """Whether teeth are asked: not of what runs on a back, nor of rollers."""
        return not self.on_back and self.kind not in ("idler", "tensioner")


class DriveShape(NamedTuple):
    """One chain, belt or gear train; its wheels in the order in which it travels, gears in branches."""

    id: str
    name: str
    kind: Kind
    wheels: tuple[WheelShape, ...]
    meshes: tuple[tuple[str, str], ...] = ()  # gears: ids of wheels, driving and driven


class Shape(NamedTuple):
    """As much of an engine as decides what is asked and done."""

    layout: Layout | None
    banks: tuple[BankShape, ...]
    cams_at: CamsAt | None
    cams: tuple[CamShape, ...]
    valves: tuple[int, int] | None
    drives: tuple[DriveShape, ...]

    @property
    def wheels(self) -> tuple[WheelShape, ...]:
        """Every wheel of every drive."""
        return tuple(wheel for drive in self.drives for wheel in drive.wheels)

    def wheel_of(self, shaft: str) -> WheelShape | None:
        """The first toothed wheel on a shaft."""
        return next((wheel for wheel in self.wheels if wheel.shaft == shaft and not wheel.on_back), None)

    @property
    def numbers(self) -> tuple[int, ...]:
        """Every cylinder, growing; none while nobody knows them."""
        return tuple(sorted(number for bank in self.banks for number in bank.cylinders))

    @property
    def is_valve_by_valve(self) -> bool:
        """Whether every valve can be named: then cams are degreed and clearances set valve by valve."""
        return bool(self.numbers and self.valves and self.cams_at)

    @property
    def timed(self) -> tuple[tuple[str, str], ...]:
        """Crank and camshafts, by id and name: what must stand right."""
        return (("crank", "Crankshaft"), *((cam.id, cam.name) for cam in self.cams))


def shape_of(answers: Answers) -> Shape:
    """As much of an engine as its answers tell; what is not answered yet is taken for the simplest that it may be."""
    return _shape(frozenset(answers.items()))


@lru_cache(maxsize=256)  # asked again and again of the same answers
def _shape(told: frozenset[tuple[str, Answered]]) -> Shape:
    answers = dict(told)
    layout = said(answers, "layout", _layout)
    banks = _banks(answers, layout)
    cams_at = said(answers, "cams", _cams_at)
    cams = _cams(banks, cams_at)
    valves = said(answers, "valves", read_valves)
    return Shape(layout, banks, cams_at, cams, valves, _drives(answers, cams))


def _layout(text: str) -> Layout | None:
    return next((one for one in ("inline", "v", "flat") if one == text), None)  # type: ignore[misc]  # mypy forgets the literals


def _cams_at(text: str) -> CamsAt | None:
    return next((one for one in ("block", "one", "two") if one == text), None)  # type: ignore[misc]


def _banks(answers: Answers, layout: Layout | None) -> tuple[BankShape, ...]:
    count = said(answers, "cylinders", counting("number of cylinders", most=MOST_CYLINDERS))
    if layout in ("v", "flat"):
        rows = said(answers, "rows", lambda text: read_rows(text, 2)) or ((), ())
        apart = said(answers, "lean", counting("angle", 10, 170))
        lean = 90.0 if layout == "flat" else apart and apart / 2
        left, right = BankShape("left", "Left bank", lean and -lean, rows[0]), BankShape("right", "Right bank", lean, rows[1])
        return left, right
    return (BankShape("row", "Row" if count != 1 else "Cylinder", 0.0, tuple(range(1, (count or 0) + 1))),)


def _cams(banks: Sequence[BankShape], cams_at: CamsAt | None) -> tuple[CamShape, ...]:
    if cams_at in (None, "block"):
        return (CamShape("cam", "Camshaft", None, ("intake", "exhaust")),)
    found = []
    for bank in banks:
        side, own = ("", "") if len(banks) == 1 else (f"{bank.id}-", f"{bank.name.removesuffix(' bank')} ")
        of = bank.id if len(banks) > 1 else None
        if cams_at == "one":
            found.append(CamShape(f"{side}cam", f"{own}camshaft".capitalize(), of, ("intake", "exhaust")))
            continue
        found.append(CamShape(f"{side}intake", f"{own}intake cam".capitalize(), of, ("intake",)))
        found.append(CamShape(f"{side}exhaust", f"{own}exhaust cam".capitalize(), of, ("exhaust",)))
    return tuple(found)


def read_drives(text: str) -> tuple[tuple[Kind, str], ...]:
    """What drives the cams, one after another: ``belt``, or ``chain, left chain, right chain``; each kind and name."""
    found: list[tuple[Kind, str]] = []
    for piece in pieces(text, r"[,;]"):
        name = re.sub(r"\s+", " ", piece.text.lower())
        kind: Kind | None = "chain" if "chain" in name else "belt" if "belt" in name else "gears" if "gear" in name else None
        if kind is None:
            raise refused(piece, f"“{piece.text}” is neither chain, belt nor gears; say which, such as belt, or chain, oil chain")
        if name in (one[1] for one in found):
            raise refused(piece, f"“{piece.text}” is said twice; give each a name of its own, such as left chain, right chain")
        found.append((kind, name))
    if len(found) > MOST_DRIVES:
        raise refused(Piece(text, 0), f"{len(found)} are more than any engine has; write {MOST_DRIVES} at most")
    return tuple(found)


def find_shaft(piece: Piece, cams: Sequence[CamShape]) -> tuple[str, str, ShaftKind]:
    """Id, name and kind of the shaft that a wheel's name means; refuses a word that means none."""
    name = piece.text.lower().strip()
    if name in ("crank", "crankshaft", "crank sprocket", "crank gear", "crank pulley", "crank wheel"):
        return "crank", "Crankshaft", "crank"
    tokens = set(re.findall(r"[a-z0-9]+", name))
    fitting = [cam for cam in cams if _means(tokens, cam, len(cams))]
    if len(fitting) == 1:
        return fitting[0].id, fitting[0].name, "camshaft"
    names = ", ".join(cam.name.lower() for cam in cams)
    if len(fitting) > 1:
        raise refused(piece, f"“{piece.text}” may be any of {', '.join(cam.name.lower() for cam in fitting)}; say which")
    kind = next((sort for sort, words in _SORTS if tokens & set(words)), None)
    if kind is None:
        rule = f"write crank, {names}, or a name with idler, tensioner, pump, balancer or jackshaft in it"
        raise refused(piece, f"“{piece.text}” is no wheel known here; {rule}")
    return slug(name), name.capitalize(), kind


def shaft_id(name: str, cams: Sequence[CamShape]) -> str | None:
    """Id of the shaft that a wheel's name means; None where it means none."""
    try:
        return find_shaft(Piece(name, 0), cams)[0]
    except CoreError:
        return None


def _means(tokens: set[str], cam: CamShape, of: int) -> bool:
    """Whether a wheel's name means a cam: every word of it that tells cams apart is one of the cam's."""
    own = set(re.findall(r"[a-z0-9]+", cam.name.lower())) - _CAM_WORDS
    telling = tokens - _CAM_WORDS
    if telling:
        return bool(own) and telling <= own
    return bool(tokens & {"cam", "camshaft"}) or (of == 1 and tokens == {"cam"})


def driven_first(text: str, cams: Sequence[CamShape], is_gears: bool) -> tuple[tuple[Passed, ...], ...]:
    """What a chain or belt passes in one line, or the branches of a gear train with ``;`` between; every name means a shaft."""
    branches = pieces(text, ";") if is_gears else [Piece(text, 0)]
    found = []
    for branch in branches:
        path = read_path(branch.text)
        begin = 0
        for one in path:
            at = branch.text.lower().find(one.name, begin)
            find_shaft(Piece(branch.text[at : at + len(one.name)] or one.name, branch.begin + max(at, 0)), cams)
            begin = max(at, 0) + len(one.name)
        found.append(path)
    return tuple(found)


def _drives(answers: Answers, cams: Sequence[CamShape]) -> tuple[DriveShape, ...]:
    kinds = said(answers, "drives", read_drives) or ()
    paths = {}
    for kind, name in kinds:
        paths[name] = said(answers, f"passes.{slug(name)}", partial(driven_first, cams=cams, is_gears=kind == "gears")) or ()
    used: dict[str, int] = {}
    for branches in paths.values():
        for shaft in {find_shaft(Piece(one.name, 0), cams)[0] for branch in branches for one in branch}:
            used[shaft] = used.get(shaft, 0) + 1
    return tuple(_drive(kind, name, paths[name], cams, used) for kind, name in kinds)


def _drive(kind: Kind, name: str, branches: Sequence[Sequence[Passed]], cams: Sequence[CamShape], used: dict[str, int]) -> DriveShape:
    ident = slug(name)
    wheels: dict[str, WheelShape] = {}
    for branch in branches:
        for one in branch:
            shaft, called, sort = find_shaft(Piece(one.name, 0), cams)
            # a shaft on which more than one of them runs has a wheel for each
            wheel = f"{shaft}-{ident}" if used[shaft] > 1 else f"{shaft}-wheel"
            wheels.setdefault(shaft, WheelShape(wheel, shaft, called, sort, one.on_back, name if used[shaft] > 1 else ""))
    order = [[wheels[find_shaft(Piece(one.name, 0), cams)[0]].id for one in branch] for branch in branches]
    meshes = tuple(dict.fromkeys(pair for branch in order for pair in pairwise(branch))) if kind == "gears" else ()
    called = {"chain": "Chain", "belt": "Belt", "gears": "Gears"}[kind] if name in ("chain", "belt", "gears") else name.capitalize()
    return DriveShape(ident, called, kind, tuple(wheels.values()), meshes)
