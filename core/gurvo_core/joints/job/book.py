"""A document's joints as they are pulled: which step pulls which joint, in which order; kept with the document."""

__all__ = ["JointBook", "PulledJoint", "book_of"]

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache

from gurvo_core.engine import EngineDocument, Joint, WorkStep
from gurvo_core.engine.same import Same
from gurvo_core.joints.sequence import ALL, Figures, Item, Spot, figures_of, items_of, loaded_cylinders, spots_of
from gurvo_core.ledger import kept_with


@dataclass(frozen=True, kw_only=True, eq=False)
class PulledJoint:
    """One joint whose stages are in figures."""

    document: EngineDocument
    joint: Joint

    @cached_property
    def spots(self) -> tuple[Spot, ...]:
        """Its fasteners in the order in which they are pulled."""
        return spots_of(self.joint)

    @cached_property
    def items(self) -> tuple[Item, ...]:
        """Every pull, in order."""
        return items_of(self.document, self.joint)

    @cached_property
    def by_key(self) -> Mapping[str, Item]:
        """The pulls by their keys."""
        return {item.key: item for item in self.items}

    def item(self, stage: int, turn: int, fastener: str) -> Item | None:
        """The pull that an entry is about; None where the joint has none such."""
        return self.by_key.get(Item(stage=stage, turn=turn, fastener=fastener).key)

    @cached_property
    def loaded(self) -> dict[int, float]:
        """Cylinders whose valves push up while it is drawn down, and how far [mm]."""
        return loaded_cylinders(self.document, self.joint)

    @cached_property
    def _figures(self) -> Mapping[str, Figures]:
        return {item.key: figures_of(self.joint, item) for item in self.items}

    def figures(self, item: Item) -> Figures:
        """What a pull is to reach."""
        return self._figures[item.key]

    def called(self, fastener: str) -> str:
        """What a fastener is called in a sentence."""
        if fastener == ALL or len(self.spots) == 1:
            return self.joint.name
        return f"{self.joint.name}, {fastener}" if not fastener[0].isdigit() else f"{self.joint.name}, bolt {fastener}"

    def at_once(self, segment: tuple[Item, ...]) -> bool:
        """Whether looking and pulling are one answer: one bolt, and nothing that rests between."""
        return len(self.spots) == 1 and bool(segment) and all(self.figures(item).does != "wait" for item in segment)

    @kept_with
    def turns_of(self, item: Item) -> int:
        """How often the stage of a pull is gone round."""
        return max(one.turn for one in self.items if one.stage == item.stage)


@dataclass(frozen=True, kw_only=True, eq=False)
class JointBook:
    """All of a document's joints that are pulled bolt by bolt, by the steps that pull them."""

    document: EngineDocument

    @cached_property
    def steps(self) -> Mapping[str, WorkStep]:
        """The steps that pull, by id, of all variants."""
        return {step.id: step for step in self.document.work_steps if step.does == "tighten" and step.joint in self.joints}

    @cached_property
    def joints(self) -> Mapping[str, PulledJoint]:
        """The joints by id."""
        return {joint.id: PulledJoint(document=self.document, joint=joint) for joint in self.document.joints if joint.is_figured}

    def joint_of(self, step_id: str) -> PulledJoint | None:
        """The joint that a step pulls; None where it is no such step."""
        step = self.steps.get(step_id)
        return self.joints[step.joint] if step is not None and step.joint else None

    def step_of(self, joint: str, item: Item) -> str | None:
        """The step in which a pull is made."""
        return next((step for step, one in self.steps.items() if one.joint == joint and item in self.segment(step)), None)

    def segment(self, step_id: str) -> tuple[Item, ...]:
        """The pulls of one step: from the stage after the one an earlier step ends at, to its own."""
        return self._segments.get(step_id, ())

    @cached_property
    def _segments(self) -> Mapping[str, tuple[Item, ...]]:
        found = {}
        for step in self.steps.values():
            pulled = self.joints[step.joint or ""]
            ends = sorted({other.stage or pulled.joint.last_stage for other in self.steps.values() if other.joint == step.joint})
            last = step.stage or pulled.joint.last_stage
            first = max((end for end in ends if end < last), default=0)
            found[step.id] = tuple(item for item in pulled.items if first < item.stage <= last)
        return found


@lru_cache(maxsize=64)
def _kept(same: Same) -> JointBook:
    return JointBook(document=same.document)


def book_of(document: EngineDocument) -> JointBook:
    """Return the joints of a document as they are pulled."""
    return _kept(Same(document))
