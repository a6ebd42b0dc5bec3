"""The run of one engine: the steps its document lists, for the options it was built with, and which of them stand on which."""

__all__ = ["Plan", "PlanStep", "has_run", "plan_of"]

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from gurvo_core.engine import EngineDocument, KitPart, Need, WorkStep
from gurvo_core.kept import kept_with
from gurvo_core.run.looks import position_of

ELSEWHERE = ("set_up_wheel", "find_tdc", "degree")  # seen to by the rooms of their crafts
REPORTED = ("tighten", "measure", "lash")  # done entry by entry in a room of their own, which says when they are
DRIVE = ("lay", "tension")  # what touches the drive: marks must meet again after it


@dataclass(frozen=True, kw_only=True)
class PlanStep:
    """A step, the stage it is in, and the steps that it cannot be done without."""

    step: WorkStep
    stage: str
    implied: frozenset[str]  # what comes before it whether the document says so or not
    needs: frozenset[str]  # what has to be done before it
    stands_on: frozenset[str]  # what re-opens it when it is opened again
    is_elsewhere: bool = False  # whether the room of its craft asks for it, and not the run

    @cached_property
    def title(self) -> str:
        """What it is called: its sentence without the stop."""
        return self.step.says.rstrip(".")

    @cached_property
    def given(self) -> tuple[tuple[str, Any, str | None], ...]:
        """What the document says it needs: each by its one key, what it names, and where."""
        return tuple((*need.given, need.place) for need in self.step.needs)

    @cached_property
    def besides(self) -> frozenset[str]:
        """The steps that come before it although it does not name them."""
        return self.implied - {need.done for need in self.step.needs}


@dataclass(frozen=True, kw_only=True, eq=False)
class Plan:
    """All steps in the document's order. Looked at after every entry, so that what is asked of it over and over is kept with it."""

    document: EngineDocument
    steps: tuple[PlanStep, ...]

    @kept_with
    def doing(self, *does: str) -> tuple[PlanStep, ...]:
        """The steps that do any of these."""
        return tuple(one for one in self.steps if one.step.does in does)

    @kept_with
    def steps_with(self, *names: str) -> tuple[PlanStep, ...]:
        """The steps of which a document says any of these; most are few, and looked for after every entry."""
        return tuple(one for one in self.steps if any(getattr(one.step, name) for name in names))

    @cached_property
    def by_id(self) -> Mapping[str, PlanStep]:
        """The steps by their ids."""
        return {one.step.id: one for one in self.steps}

    @cached_property
    def place(self) -> Mapping[str, int]:
        """Where in the order each is."""
        return {one.step.id: n for n, one in enumerate(self.steps)}

    @cached_property
    def of_joint(self) -> Mapping[str, tuple[WorkStep, ...]]:
        """The steps that fit or tighten each joint."""
        own = _grouped("joint", self.doing("fit", "tighten"))
        # the fasteners of one joint may hold another as well
        for joint in self.document.joints:
            for held in joint.also_clamps:
                own[held] = (*own.get(held, ()), *own.get(joint.id, ()))
        return own

    @cached_property
    def of_loop(self) -> Mapping[str, tuple[WorkStep, ...]]:
        """The steps that lay or tension each loop."""
        return _grouped("loop", self.doing(*DRIVE))

    @cached_property
    def _positions(self) -> Mapping[str, str | None]:
        steps = tuple(one.step for one in self.steps)
        return {step.id: position_of(step, steps[:n]) for n, step in enumerate(steps)}

    def position_at(self, step_id: str) -> str | None:
        """The timing position at which the engine stands in a step, as far as the run says."""
        return self._positions.get(step_id)

    @cached_property
    def first_turn(self) -> str:
        """The first step that turns something, where none before it takes the plugs out; empty where the run or the wheel sees to that."""
        for one in self.steps:
            if one.step.does == "plugs_out":
                return ""
            if one.step.does in ("park", "turn_over", "find_tdc", "set_up_wheel", "degree"):
                return one.step.id if not one.is_elsewhere else ""
        return ""

    @cached_property
    def asks_plugs(self) -> bool:
        """Whether the run asks for the plugs, in a step of its own or before the first turn."""
        return bool(self.first_turn or self.doing("plugs_out"))

    @cached_property
    def touching(self) -> frozenset[str]:
        """Ids of the steps that touch the drive: laying, a tensioner fitted or armed, bolts that a turn by hand proves."""
        proven = {name for one in self.doing("turn_over") for name in one.stands_on}
        pulled = {one.step.id for one in self.doing("tighten") if one.step.id in proven}
        own = {one.step.id for one in self.doing(*DRIVE) if one.step.does == "lay" or one.step.how_far != "proven"}
        return frozenset(own | pulled)

    @cached_property
    def laying_out(self) -> tuple[WorkStep, ...]:
        """The steps at which parts are laid out."""
        return tuple(one.step for one in self.doing("ready"))

    @cached_property
    def laid_out(self) -> frozenset[str]:
        """Ids of the parts that are laid out in some step."""
        return frozenset(part for step in self.laying_out for part in step.parts)

    @cached_property
    def reported(self) -> frozenset[str]:
        """Ids of the steps whose room says when they are done: joints pulled bolt by bolt, fits measured place by place, lash."""
        return frozenset(one.step.id for one in self.doing(*REPORTED) if one.is_elsewhere)

    @cached_property
    def besides(self) -> Mapping[str, tuple[str, ...]]:
        """By step, those that come before it although it does not name them, in their order."""
        return {one.step.id: tuple(sorted(one.besides, key=self.place.__getitem__)) for one in self.steps if one.besides}

    @cached_property
    def named_before(self) -> Mapping[str, tuple[str, ...]]:
        """By step, those that are done before it: as it names them, then those it need not name."""
        named = {
            one.step.id: (*(need.done for need in one.step.needs if need.done), *self.besides.get(one.step.id, ())) for one in self.steps
        }
        return {step_id: tuple(name for name in before if name in self.by_id) for step_id, before in named.items()}

    @cached_property
    def parts_before(self) -> Mapping[str, tuple[KitPart, ...]]:
        """By step, the parts that lie ready before it; laying them out needs none."""
        using = [one.step for one in self.steps if one.step.does != "ready" and one.step.parts]
        return {step.id: tuple(part for part in self.document.kit if part.id in self.laid_out.intersection(step.parts)) for step in using}

    @cached_property
    def waits_for_steps(self) -> Mapping[str, tuple[str, ...]]:
        """By step, those it waits for, as it names them; only of steps that wait for others to be done and for nothing else."""
        plain = [one for one in self.steps if one.step.does not in ("turn_over", "seal") and not one.step.parts]
        alone = [one for one in plain if all(need.given[0] == "done" for need in one.step.needs)]
        return {one.step.id: self.named_before[one.step.id] for one in alone}

    @cached_property
    def hold_points(self) -> frozenset[str]:
        """Ids of the steps that are signed."""
        return frozenset(one.step.id for one in self.steps if one.step.hold_point)

    @cached_property
    def simply_done(self) -> frozenset[str]:
        """Ids of the steps of which nothing more is asked once they are done: no signature, no stops."""
        return frozenset(one.step.id for one in self.steps if not one.step.hold_point and one.step.does != "turn_over")

    @kept_with
    def below(self, step_id: str) -> frozenset[str]:
        """Ids of everything that must be done before a step, over however many others; worked out once for each."""
        found, waiting = set[str](), [step_id]
        while waiting:
            more = self.by_id[waiting.pop()].needs & self.by_id.keys()
            waiting += more - found
            found |= more
        return frozenset(found)

    def nearest(self, missing: Sequence[str]) -> tuple[str, ...]:
        """Of several steps that are waited for, those that wait for none of the others: what is next, not all that lies behind it."""
        others = frozenset(missing)
        return tuple(name for name in missing if not others & self.below(name))

    def above(self, opened: str) -> frozenset[str]:
        """Ids of everything that stands on a step, over however many others."""
        found, growing = {opened}, True
        while growing:
            more = {one.step.id for one in self.steps if one.stands_on & found} - found
            found |= more
            growing = bool(more)
        return frozenset(found - {opened})


def has_run(document: EngineDocument) -> bool:
    """Return whether a document lists a run of work."""
    return bool(document.work_steps)


def plan_of(document: EngineDocument, options: frozenset[str] = frozenset(), *, every: bool = False) -> Plan:
    """Return the run of an engine. Any order that the needs allow, offered in the document's."""
    if not has_run(document):
        return Plan(document=document, steps=())
    listed = [(stage, step) for stage, step in _listed(document) if every or step.only_in is None or step.only_in in options]
    steps = [step for _, step in listed]
    return Plan(document=document, steps=tuple(_planned(document, steps, stage, at) for at, (stage, _) in enumerate(listed)))


def _grouped(key: str, steps: tuple[PlanStep, ...]) -> dict[str, tuple[WorkStep, ...]]:
    """Steps by what they name under a key."""
    found: dict[str, tuple[WorkStep, ...]] = {}
    for step in (one.step for one in steps):
        name = getattr(step, key)
        if name:
            found[name] = (*found.get(name, ()), step)
    return found


def _planned(document: EngineDocument, steps: list[WorkStep], stage: str, at: int) -> PlanStep:
    step, earlier = steps[at], steps[:at]
    implied = frozenset(_implied(earlier, step))
    named = [(need, _before(document, steps, earlier, need)) for need in step.needs]
    stays = frozenset(name for need, names in named if _stays(need) for name in names)
    needs = frozenset(name for _, names in named for name in names)
    return PlanStep(
        step=step,
        stage=stage,
        implied=implied,
        needs=needs | implied,
        stands_on=stays | implied,
        is_elsewhere=step.does in ELSEWHERE or _is_reported(document, step),
    )


def _is_reported(document: EngineDocument, step: WorkStep) -> bool:
    """Whether a room of its own craft sees to a step: whatever does what such a room does, where the document says enough for it."""
    if step.does == "tighten":
        joint = document.joint(step.joint)
        return joint is not None and joint.is_figured
    if step.does == "measure":
        return any(fit.is_placed for fit in document.fits if fit.id in step.fits)
    return step.does in REPORTED


def _listed(document: EngineDocument) -> Iterator[tuple[str, WorkStep]]:
    yield from ((stage.title, step) for stage in document.stages for step in stage.listed)


def _stays(need: Need) -> bool:
    """Whether what a step needed must still hold once it is done; where the crank stood and what was on need not."""
    return need.given[0] in ("done", "tight", "tensioned", "proven", "decided", "cured")


def _before(document: EngineDocument, steps: list[WorkStep], earlier: list[WorkStep], need: Need) -> list[str]:
    """Ids of the steps that bring about what a step needs."""
    key, named = need.given
    if key in ("done", "cured"):
        return [named]
    if key == "parked":
        return [other.id for other in earlier if other.does == "park" and other.position == named][-1:]
    if key in ("on", "off"):
        doing = "put_on" if key == "on" else "take_off"
        there = [other.id for other in earlier if other.does == doing and other.thing == named and need.place in (None, other.place)]
        return there[-1:]
    if key == "held":
        holders = {thing.id for thing in document.things if named in thing.holds and thing.counter_hold}
        put = [other for other in earlier if other.does == "put_on" and other.thing in holders and need.place in (None, other.place)]
        return [other.id for other in put][-1:]
    if key == "tight":
        joint = document.joint(named.joint)
        last = joint.last_stage if joint else 1
        far = [o for o in steps if o.does == "tighten" and o.joint == named.joint and (o.stage or last) >= named.stage]
        return [other.id for other in far][:1]
    if key in ("tensioned", "proven"):
        how_far = "armed" if key == "tensioned" else "proven"
        return [other.id for other in steps if other.does == "tension" and other.loop == named and other.how_far == how_far][:1]
    if key == "decided":
        return [other.id for other in steps if other.does == "degree"][:1]
    return []


def _holds_a_shaft(step: WorkStep) -> bool:
    """Whether bolts are pulled against a shaft that is held: a sprocket's own, which a turn by hand proves."""
    return step.does == "tighten" and any(need.given[0] == "held" for need in step.needs)


def _implied(earlier: list[WorkStep], step: WorkStep) -> list[str]:
    """Ids of earlier steps that nobody has to write down: a joint is fitted before it is tightened, a chain laid before it is
    tensioned, TDC found before a cam is degreed, a thing put on before it comes off; a turn by hand
    proves what was laid, and which sprockets were tightened, before it.
    """
    if step.does == "tighten":
        return [other.id for other in earlier if other.joint == step.joint and other.does in ("fit", "tighten")]
    if step.does == "tension":
        return [other.id for other in earlier if other.loop == step.loop and other.does in DRIVE]
    if step.does == "turn_over":
        return [other.id for other in earlier if other.does in DRIVE or _holds_a_shaft(other)]
    if step.does == "take_off":
        return [o.id for o in earlier if o.does == "put_on" and (o.thing, o.place) == (step.thing, step.place)][-1:]
    before = {"find_tdc": ("set_up_wheel",), "degree": ("set_up_wheel", "find_tdc")}.get(step.does, ())
    return [other.id for other in earlier if other.does in before]
