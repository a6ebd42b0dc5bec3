"""Where a camshaft stands easiest while its caps are drawn down: its lobes press on them least there."""

__all__ = ["caps_words"]

from collections.abc import Sequence
from functools import lru_cache

from gurvo_core.clearway.ground import Ground
from gurvo_core.clearway.rest import load_of
from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.engine.same import Same
from gurvo_core.motion.told import clock_of, told_by
from gurvo_core.scene.asked import part_id, parts_of_joint
from gurvo_core.sentence import clock


def caps_words(document: EngineDocument, step_id: str) -> Sequence[str]:
    """Return that of each camshaft whose caps a step draws down; nothing of any other step, or while lobes or springs are not known."""
    return _caps_words(Same(document), step_id)


@lru_cache(maxsize=256)
def _caps_words(of: Same, step_id: str) -> Sequence[str]:
    step = next((one for stage in of.document.stages for one in stage.listed if one.id == step_id), None)
    if step is None or step.does != "tighten":
        return ()
    return tuple(_words(of.document, step))


def _words(document: EngineDocument, step: WorkStep) -> list[str]:
    parts, ground = set(parts_of_joint(document, step)), Ground(document=document, measured={})
    said = []
    for cam in document.camshafts:
        capped = part_id("cam caps", cam.bank or document.banks[0].id) in parts
        load = load_of(ground, cam.id) if capped else None
        tells = [one for one in told_by(document, cam.id) if one.of.startswith("nose")] if load else []
        at = clock_of(document, cam.id, tells[0].of, load.easiest) if load and tells else None
        if load is not None and at is not None:
            lobes = len(load.at(load.easiest).loaded)
            press = (
                f"{lobes} lobe{'s' if lobes > 1 else ''} press{'' if lobes > 1 else 'es'} on it there"
                if lobes
                else "no lobe presses on it there"
            )
            said.append(f"{cam.name} goes down easiest with its {tells[0].name} at {clock(at)}: {press}")
    return said
