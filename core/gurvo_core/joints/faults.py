"""What cannot be right in the joints of a document, and what is doubtful: each one sentence with its JSON path."""

__all__ = ["joint_doubts", "joint_faults"]

from collections import Counter
from collections.abc import Iterator

from gurvo_core.engine import EngineDocument, Joint, JointStage
from gurvo_core.errors import Fault, FigureError
from gurvo_core.joints.meaning import meaning_of
from gurvo_core.joints.sequence import bolt_facts
from gurvo_core.joints.stiffness import BoltShape, bolt_n_mm
from gurvo_core.joints.thread import read_thread
from gurvo_core.joints.wrench import AGREE, Quoted, disagreement, may_be_rounded

_NEEDS = {"angle": "angle_deg", "torque_angle": "angle_deg", "wait": "minutes", "said": "said"}
_ONLY = {"minutes": ("wait",), "draw": ("draw_down",), "said": ("said",)}


def joint_faults(document: EngineDocument) -> list[Fault]:
    """Return what cannot be in the joints of a document.

    An order names every fastener once; an angle needs something it is turned from; one thread, one pitch.
    """
    found = []
    for at, joint in enumerate(document.joints):
        own = [*_stages(joint)]
        if joint.is_figured:
            own += [*_thread(joint), *_fasteners(joint)]
        found += [Fault(path=f"joints.{at}.{path}", sentence=f"{joint.name}: {sentence}.") for path, sentence in own]
    return found


def joint_doubts(document: EngineDocument) -> list[Fault]:
    """Return what is doubtful in the joints of a document: kept, and said.

    Source: Practice: figures quoted in two units agree within two per cent.
    >>> joint_doubts(quern_4())
    []
    """
    found = []
    for at, joint in enumerate(document.joints):
        for number, stage in enumerate(joint.figures):
            path = f"joints.{at}.stages.{number}"
            found += [Fault(path=path, sentence=f"{joint.name}: {sentence}.") for sentence in _doubts(joint, stage)]
    return found


def _doubts(joint: Joint, stage: JointStage) -> Iterator[str]:
    if stage.torque_nm is None:
        return
    quoted = [Quoted(stage.torque_nm, "N·m"), *(Quoted(one.value, one.unit) for one in stage.quoted)]
    share = disagreement(quoted)
    if share > AGREE and not may_be_rounded(quoted):
        said = ", ".join(f"{one.value:g} {one.unit}" for one in stage.quoted)
        yield f"{stage.torque_nm:g} N·m is quoted as {said} too, which differs by {100 * share:.0f} %: ask which is meant"
    facts = bolt_facts(joint)
    combined = meaning_of(stage.torque_nm, facts).combined_share if facts else None
    if combined is not None and combined.least > 1:
        bolt = f"a {joint.property_class} {joint.thread}"
        yield f"{stage.torque_nm:g} N·m takes {bolt} past yield even with the most friction: check size and class"


def _stages(joint: Joint) -> Iterator[tuple[str, str]]:
    is_snug = False
    for at, stage in enumerate(joint.figures):
        path = f"stages.{at}"
        has_other = bool(stage.other)
        needed = _NEEDS.get(stage.does)
        is_left_open = needed == "angle_deg" and "angle_deg" in stage.model_fields_set  # null: nobody knows it
        if needed and not getattr(stage, needed) and not has_other and not is_left_open:
            yield f"{path}.{needed}", f"a stage that does {stage.does} needs {needed}"
        for key, fitting in _ONLY.items():
            if getattr(stage, key) and stage.does not in fitting:
                yield f"{path}.{key}", f"{key} is for {' and '.join(fitting)} alone; leave it out"
        if stage.does == "draw_down" and stage.draw is None:
            yield f"{path}.draw", "say by how much it is drawn down at a time"
        if stage.does == "angle" and not is_snug:
            yield f"{path}.does", "an angle is turned from something: give the torque at which it is snug first"
        is_snug = stage.does in ("torque", "torque_angle", "angle") or (is_snug and stage.does != "loosen")
        yield from _windows(path, stage)


def _windows(path: str, stage: JointStage) -> Iterator[tuple[str, str]]:
    for low, aim, high in (("least_nm", "torque_nm", "most_nm"), ("least_deg", "angle_deg", "most_deg")):
        known = [value for value in (getattr(stage, low), getattr(stage, aim), getattr(stage, high)) if value is not None]
        if aim == "torque_nm" and stage.does in ("angle", "torque_angle"):  # the window is that of the torque at the end
            known = [value for value in (stage.least_nm, stage.most_nm) if value is not None]
        if known != sorted(known):
            yield f"{path}.{low}", "a window goes from least to most, with the figure in it"


def _thread(joint: Joint) -> Iterator[tuple[str, str]]:
    if not joint.thread:
        return
    try:
        thread = read_thread(joint.thread)
    except FigureError as error:
        yield "thread", error.rule
        return
    grip_mm = sum(part.thickness_mm for part in joint.clamped)
    if grip_mm:
        try:
            bolt_n_mm(BoltShape(thread=thread, grip_mm=grip_mm, free_thread_mm=joint.free_thread_mm or 0, waist_mm=joint.waist_mm))
        except FigureError as error:
            yield "free_thread_mm", error.rule
        if joint.length_mm is not None and joint.length_mm <= grip_mm:
            yield "length_mm", f"a bolt of {joint.length_mm:g} mm does not reach through a grip of {grip_mm:g} mm"


def _fasteners(joint: Joint) -> Iterator[tuple[str, str]]:
    names = [bolt.id for bolt in joint.bolts]
    for name, count in Counter(names).items():
        if count > 1:
            yield "bolts", f"{count} fasteners are called {name}; give each an id of its own"
    if names and joint.fasteners is not None and joint.fasteners != len(names):
        yield "fasteners", f"it has {joint.fasteners} fasteners and lists {len(names)}; make them agree"
    known = names or [str(n) for n in range(1, (joint.fasteners or 0) + 1)]
    if joint.order and sorted(joint.order) != sorted(known):
        yield "order", "an order names every fastener once, and no other"
    for at, stage in enumerate(joint.figures):
        for n, other in enumerate(stage.other):
            if not set(other.fasteners) <= set(known):
                yield f"stages.{at}.other.{n}.fasteners", f"there is no fastener {sorted(set(other.fasteners) - set(known))[0]}"
    pattern = joint.pattern
    if pattern is not None and pattern.columns and joint.fasteners and pattern.kind in ("rows", "pairs"):
        rows = 2 if pattern.kind == "pairs" else pattern.rows
        if not (rows - 1) * pattern.columns < joint.fasteners <= rows * pattern.columns:
            yield "pattern.columns", f"{rows} rows of {pattern.columns} do not hold {joint.fasteners} fasteners"
