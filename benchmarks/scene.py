"""The engine as it stands: the pictures of the largest family, and what an entry changes of them."""

import gzip

from pydantic import BaseModel

from benchmarks.timing import p50_p95, times_ms
from demo.documents import family_data
from gurvo_core.reading import read_document
from gurvo_core.scene import brought_by, part_stands, scene_of, side_turning, steps_of

LARGEST, AIM_MS, AIM_KB = "brae-v8", 10.0, 40.0


def measure() -> None:
    """Print what making them takes, as they are sent, and how much is sent."""
    document = read_document(family_data(LARGEST))
    angles = iter(range(10_000))
    about = steps_of(document)  # kept for a document, as the server does
    made = p50_p95(times_ms(lambda: scene_of(document, float(next(angles)), about).model_dump_json(), 60))
    sent = _packed_kb(scene_of(document))
    steps = [step for stage in document.stages for step in stage.listed]
    brings, done = brought_by(document, steps), {step.id for step in steps[: len(steps) // 2]}
    stands = p50_p95(times_ms(lambda: part_stands(document, brings, done, ()), 200))
    print(f"the pictures of the largest     {made[0]:8.2f}   p95 {made[1]:.2f}, aim: {AIM_MS:g}; {sent:.1f} kB packed, aim: {AIM_KB:g}")
    turned = p50_p95(times_ms(lambda: side_turning(document).model_dump_json(), 5))
    moves = _packed_kb(side_turning(document))
    print(f"how it turns, once a family     {turned[0]:8.2f}   p95 {turned[1]:.2f}; {moves:.1f} kB packed, aim: {AIM_KB:g}")
    print(f"what an entry changes of them   {stands[0]:8.3f}   p95 {stands[1]:.3f}")


def _packed_kb(sent: BaseModel) -> float:
    return len(gzip.compress(sent.model_dump_json().encode())) / 1024
