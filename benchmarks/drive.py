"""The cam drive: a turn of the V6 that is only tried, its solver beside a compiled one, and the ranking of likely causes."""

import numpy as np
from scipy.sparse import csr_array
from scipy.sparse.csgraph import dijkstra

from benchmarks.timing import p50_p95, times_ms
from demo.documents import family_data
from gurvo_core.drive.lay import Around, LayAsked, lay_view
from gurvo_core.drive.rig import laid_rig, ties_with
from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.motion.slack import Tie, turn_one, turned_by
from gurvo_core.reading import read_document
from gurvo_core.timing.causes import rank_causes
from gurvo_core.timing.evidence import MeasuredCam
from gurvo_core.timing.hypotheses import hypotheses_of

PREVIEW_MS, RANK_MS, AIM_RATIO = 5.0, 100.0, 5.0
ANGLES = np.arange(-360.0, 720.0)


def measure() -> None:
    """Print what the solvers take, each beside its yardstick."""
    document = read_document(family_data("corrie-v6"))
    loop = next(stage for stage in document.drive.stages if isinstance(stage, LoopStage))
    laid = {stage.id for stage in document.drive.stages}
    counted = {span.id: f"{span.to_next - 1:g}" for span in loop.marked[:1]}
    asked = [LayAsked(counted=counted, slack_left=True, turned_deg=float(deg)) for deg in range(0, 360, 5)]
    looks = iter(asked * 10)
    taken = p50_p95(times_ms(lambda: lay_view(document, loop, next(looks), Around(laid=laid, crank_deg=0.0)), 100))
    print(
        f"a tried turn of the V6          {taken[0]:8.2f}   p95 {taken[1]:.2f}, aim: {PREVIEW_MS:g}; all stages, slack and ways to lay it"
    )
    _solver(document, loop, laid)
    _causes(document)


def _solver(document: EngineDocument, loop: LoopStage, laid: set[str]) -> None:
    """One thousand angles of the whole drive, beside scipy's compiled shortest paths and one numpy pass for the same."""
    rig = laid_rig(document, loop, {}, slack_left=True)
    ties = ties_with(document, rig, loop, laid)
    own = p50_p95(times_ms(lambda: turned_by(ties, rig.driving, ANGLES), 200))[0]
    compiled = p50_p95(times_ms(lambda: _compiled(ties, rig.driving), 200))[0]
    one = p50_p95(times_ms(lambda: turn_one(ties, rig.driving, 90.0), 200))[0]
    ratio = f"{own / compiled:.2f} times a compiled one, aim: {AIM_RATIO:g}"
    print(f"its solver, {len(ANGLES)} angles         {own:8.3f}   {ratio}; one alone {one:.3f}")


def _compiled(ties: list[Tie], shaft: str) -> np.ndarray:
    names = sorted({name for tie in ties for name in (tie.begins, tie.ends)})
    reach = []
    for way in (1, -1):
        edges = [(tie.ends, tie.begins) if way > 0 else (tie.begins, tie.ends) for tie in ties]
        weights = [max(tie.slack_deg, 1e-12) for tie in ties]
        rows, columns = ([names.index(edge[side]) for edge in edges] for side in (0, 1))
        reach.append(dijkstra(csr_array((weights, (rows, columns)), shape=(len(names), len(names))), indices=names.index(shaft)))
    on, back = reach
    moved: np.ndarray = np.maximum(0, ANGLES - on[:, None]) + np.minimum(0, ANGLES + back[:, None])
    return moved


def _causes(document: EngineDocument) -> None:
    hypotheses = hypotheses_of(document)
    measured = [
        MeasuredCam(camshaft=cam.id, valve=valve, advance_deg=-14.7, u_deg=0.3) for cam in document.camshafts for valve in cam.valves
    ]
    taken = p50_p95(times_ms(lambda: rank_causes(hypotheses_of(document), measured, 0.2), 50))
    print(f"ranking of {len(hypotheses)} likely causes     {taken[0]:8.2f}   p95 {taken[1]:.2f}, aim: {RANK_MS:g}")
