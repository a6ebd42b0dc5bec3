"""Ways to lay a chain or belt so that all its slack comes to the tensioner's side, each worked out and tried for this drive."""

__all__ = ["Laying", "School", "schools_of"]

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from pydantic import Field

from gurvo_core.drive.rig import Rig
from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.engine.same import Same
from gurvo_core.motion.laid import crank_deg_a_pitch, loads_of, shaft_name
from gurvo_core.motion.slack import Tie, slack_after, turn_one
from gurvo_core.motion.spring import spring_way
from gurvo_core.motion.twin import Shown
from gurvo_core.sentence import within

TAKEN_UP_DEG = 0.01
CRANK_ON_TEETH = (3, 4)
HELPS = ("tie", "wedge", "clamp", "wire")


class School(Shown):
    """One way to lay it."""

    key: str
    name: str
    is_default: bool
    is_open: bool
    why: str = Field(description="Why it is not open, or what comes of it")
    steps: list[str]
    shafts: list[str] = Field(description="Shafts that are turned or held")


@dataclass(frozen=True, kw_only=True)
class Laying:
    """A loop that is to be laid: on which shafts, which of them something holds, where the crank stands."""

    document: EngineDocument
    loop: LoopStage
    rig: Rig
    held: Mapping[str, str]  # shafts, and what holds them
    crank_deg: float | None

    @property
    def pitch_deg(self) -> float:
        """What one link or tooth is worth [crank deg]."""
        return crank_deg_a_pitch(self.document, self.loop) or 0.0

    def name(self, shaft: str) -> str:
        """A shaft in the middle of a sentence."""
        return shaft_name(self.document, shaft)

    def worth(self, shaft: str, teeth: float = 1) -> str:
        """So many teeth in degrees of the crank, and of the shaft's own wheel where that differs."""
        turns = abs(self.document.turns_clockwise.get(shaft, 1.0))
        own = "" if turns == 1 else f", {round(teeth * self.pitch_deg * turns, 1):g}° at its own wheel"
        return f"{round(teeth * self.pitch_deg, 1):g}° of the crank{own}"


def schools_of(laying: Laying) -> list[School]:
    """Return the ways in which a loop can be laid, tried on its own ties.

    Source: Common practice: everything locked and pulled straight; the cam a tooth forward and back; the crank a tooth back and up; the
    crank three or four teeth against the tensioner; a loaded cam is held.
    >>> engine = family("sorrel-f4")
    >>> rig = laid_rig(engine, engine.drive.stages[0], {}, slack_left=False)
    >>> laying = Laying(document=engine, loop=engine.drive.stages[0], rig=rig, held={}, crank_deg=None)
    >>> [school.key for school in schools_of(laying)]
    ['crank_on', 'crank_back', 'cam_on']
    """
    found = [*_all_held(laying), *_crank_on(laying), _crank_back(laying), _cam_on(laying), *_loaded_held(laying)]
    found.sort(key=lambda school: not school.is_open)
    return [school.model_copy(update={"is_default": n == 0 and school.is_open}) for n, school in enumerate(found)]


def _cams_upstream(laying: Laying) -> list[str]:
    """Shafts of the pulled side that have a place of their own, from the driving wheel on against the travel."""
    loads = [shaft for _, shaft in loads_of(laying.document, laying.loop)]
    return [shaft for shaft in reversed(loads[laying.rig.slack_tie + 1 :]) if laying.document.camshaft(shaft) is not None]


def _all_held(laying: Laying) -> Iterator[School]:
    """With every shaft locked nothing can take up slack by turning: the counts decide, and each run is pulled straight by hand."""
    shafts = [laying.rig.driving, *_cams_upstream(laying)]
    if not all(shaft in laying.held for shaft in shafts) or len(shafts) < 2:
        return
    yield School(
        key="all_held",
        name="Everything locked: straight from wheel to wheel",
        is_default=False,
        is_open=True,
        shafts=shafts,
        why=f"nothing turns while {' and '.join(dict.fromkeys(laying.held[shaft] for shaft in shafts))} hold it: counts decide",
        steps=[
            f"Begin at the {laying.name(laying.rig.driving)}, against the travel: each run straight before the next wheel takes its teeth.",
            "Count from mark to mark; what is too much hangs in the tensioner's side alone.",
            "Tensioner in and let go before any lock comes off.",
            *_helps(laying.document),
        ],
    )


def _crank_on(laying: Laying) -> Iterator[School]:
    """With a spring that gives way, turning on draws the tight side taut and lets the spring have the rest."""
    tensioner, driving = laying.loop.tightened_by, laying.rig.driving
    if tensioner is None or tensioner.kind != "spring_then_lock":
        return
    low, high = CRANK_ON_TEETH
    holder = laying.held.get(driving)
    by = f"{round(low * laying.pitch_deg, 1):g}° to {round(high * laying.pitch_deg, 1):g}°"
    yield School(
        key="crank_on",
        name=f"{laying.document.drive.shaft(driving).name} {low} to {high} {laying.loop.counted_in} on, against the spring",
        is_default=False,
        is_open=holder is None,
        shafts=[driving],
        why=f"{holder} holds the {laying.name(driving)}; take it off first" if holder else "the spring takes up what the turn frees",
        steps=[
            f"Lay it with everything on its marks; {within(tensioner.name)} loose, its spring hooked.",
            f"Turn the {laying.name(driving)} on by {low} to {high} {laying.loop.counted_in} ({by}): the tight side is drawn tight.",
            "Tighten the lock, then look at both runs.",
        ],
    )


def _crank_back(laying: Laying) -> School:
    driving, one = laying.rig.driving, laying.loop.counted_one
    holder = laying.held.get(driving)
    ties = _with_slack(laying.rig.ties, len(laying.rig.ties) - 1, laying.pitch_deg)
    turned = turn_one(ties, driving, laying.pitch_deg, set(laying.held) - {driving})
    return School(
        key="crank_back",
        name=f"{laying.document.drive.shaft(driving).name} a {one} back, then up to its mark",
        is_default=False,
        is_open=holder is None,
        shafts=[driving],
        why=f"{holder} holds the {laying.name(driving)}; take it off first" if holder else _tried(laying, ties, turned.moved_deg),
        steps=[
            f"Set the {laying.name(driving)} a {one} before its mark, {laying.worth(driving)}; no valve may be in its way.",
            f"Lay it by its counts, the run that the {laying.name(driving)} pulls straight between the wheels.",
            f"Bring the {laying.name(driving)} up to its mark: the tight side is drawn taut, the slack goes to the tensioner's side.",
            *_helps(laying.document),
        ],
    )


def _cam_on(laying: Laying) -> School:
    """Each cam on the pulled side a tooth on, and turned back one after the other, from the driving wheel on."""
    cams = _cams_upstream(laying)
    held = next((cam for cam in cams if cam in laying.held), None)
    ties = _with_slack(laying.rig.ties, len(laying.rig.ties) - 1, laying.pitch_deg)
    moved: dict[str, float] = {}
    for cam in cams:
        now = [replace(tie, slack_deg=slack_after(tie, moved)) for tie in ties]
        turned = turn_one(now, cam, -laying.pitch_deg, [laying.rig.driving])
        moved = {name: moved.get(name, 0.0) + turned.moved_deg.get(name, 0.0) for name in {*moved, *turned.moved_deg}}
    names = " and ".join(laying.name(cam) for cam in cams)
    order = f"Turn the {', then the '.join(laying.name(cam) for cam in cams)} back to {'its mark' if len(cams) == 1 else 'their marks'}"
    handed = "each hands the slack on, the last to the tensioner's side" if len(cams) > 1 else "the slack goes over to the tensioner's side"
    why = "no camshaft stands on the run that is pulled"
    if held:
        why = f"{laying.held[held]} holds the {laying.name(held)}; take it off first"
    elif cams:
        why = _tried(laying, ties, moved)
    return School(
        key="cam_on",
        name=f"{'Cam' if len(cams) < 2 else 'Cams'} a {laying.loop.counted_one} on, then back",
        is_default=False,
        is_open=bool(cams) and held is None,
        shafts=cams,
        why=why,
        steps=[
            f"Set the {names} a {laying.loop.counted_one} on ({laying.worth(cams[0]) if cams else ''}).",
            "Lay it by its counts from the driving wheel, the tight side straight.",
            f"{order}: {handed}.",
            *_helps(laying.document),
        ],
    )


def _loaded_held(laying: Laying) -> Iterator[School]:
    """A cam that its springs push turns by itself once it is let go: it is held while the loop goes on."""
    if laying.crank_deg is None:
        return
    loaded = [(cam, way) for cam in _cams_upstream(laying) if (way := _spring_kept(Same(laying.document), cam, laying.crank_deg))]
    if not loaded:
        return
    said = ", ".join(f"{laying.name(cam)} {'on' if way > 0 else 'back'}" for cam, way in loaded)
    held = [cam for cam, _ in loaded if cam in laying.held]
    yield School(
        key="loaded_held",
        name="Hold what is loaded",
        is_default=False,
        is_open=True,
        shafts=[cam for cam, _ in loaded],
        why=f"valve springs push: {said}" + (f"; {', '.join(laying.held[cam] for cam in held)} holds already" if held else ""),
        steps=[
            *(f"Hold the {laying.name(cam)} at its flats or with its lock: {_jumps(laying, cam, way)}." for cam, way in loaded),
            "Keep fingers off the cams, and no wrench left on one.",
            "Lay it by its counts, the tight side straight; let go when the tensioner has it.",
        ],
    )


@lru_cache(maxsize=256)
def _spring_kept(of: Same, cam: str, crank_deg: float) -> int | None:
    return spring_way(of.document, cam, crank_deg)


def _jumps(laying: Laying, cam: str, way: int) -> str:
    """What its springs do to a cam that is let go, the driving wheel standing."""
    turned = turn_one(laying.rig.ties, cam, way * 180.0, [laying.rig.driving])
    far_deg = abs(turned.moved_deg.get(cam, 0.0))
    to = "on" if way > 0 else "back"
    if turned.stopped_by is None:
        return f"let go, it jumps {to} until its springs rest"
    if far_deg < TAKEN_UP_DEG:
        return f"its springs push it {to}, against the run that is taut"
    return f"let go, it jumps {to} by up to {round(far_deg, 1):g}° of the crank"


def _with_slack(ties: Sequence[Tie], place: int, slack_deg: float) -> list[Tie]:
    return [replace(tie, slack_deg=slack_deg) if n == place else tie for n, tie in enumerate(ties)]


def _tried(laying: Laying, ties: Sequence[Tie], moved: Mapping[str, float]) -> str:
    """What is left on the pulled side after it, by the ties themselves."""
    left = [slack_after(tie, moved) for n, tie in enumerate(ties) if n > laying.rig.slack_tie]
    if any(own > TAKEN_UP_DEG for own in left):
        return "tried on this drive: it leaves slack on the tight side"
    mm = None if laying.rig.mm_a_deg is None or laying.rig.excess_deg is None else laying.rig.excess_deg * laying.rig.mm_a_deg
    rest = f", {mm:.0f} mm in all" if mm is not None else ""
    return f"tried on this drive: no slack is left on the tight side, all of it is at the tensioner{rest}"


def _helps(document: EngineDocument) -> Collection[str]:
    things = [within(thing.name) for thing in document.things if thing.kind in HELPS]
    return [f"What keeps it in its teeth meanwhile is put on and comes off again: {', '.join(things)}."] if things else []
