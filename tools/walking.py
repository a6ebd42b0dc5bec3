"""Every engine walked through in the core: the demo's families right and with each mistake, and documents that hypothesis draws."""

import json
import sys
import time
from random import Random
from typing import Any

from hypothesis import HealthCheck, given, settings

from gurvo_core.engine import EngineDocument
from gurvo_core.reading import read_document
from gurvo_core.walk import MISTAKES, walk_right, walk_wrong
from tests.core.little_known import little_known
from tools.house import ROOT

DRAWN = 40
FAMILIES = ROOT / "demo" / "families"


def main(codes: list[str]) -> int:
    """Walk families, all of them and the drawn ones too when none is named; how many got stuck is the status."""
    begun, stuck = time.monotonic(), 0
    for file in sorted(FAMILIES.glob("*.json")):
        if not codes or file.stem in codes:
            stuck += _family(file.stem, read_document(json.loads(file.read_text("utf-8"))))
    if not codes:
        stuck += _drawn()
    print(f"{'all were signed' if not stuck else f'{stuck} got stuck'}, in {time.monotonic() - begun:.0f} s")
    return min(stuck, 1)


def _family(code: str, document: EngineDocument) -> int:
    said = {"right": walk_right(document)}
    for n, mistake in enumerate((*MISTAKES, None)):
        name = (mistake.__doc__ or "").split("\n")[0] if mistake else "All of these, by turns."
        said[name] = walk_wrong(document, Random(n), mistake)  # noqa: S311 - mistakes, not secrets
    stuck = {name: why for name, why in said.items() if why}
    print(f"{code:<12} {len(said) - len(stuck)} of {len(said)} walks signed", flush=True)
    for name, why in stuck.items():
        print(f"    {name} {why}")
    return len(stuck)


def _drawn() -> int:
    """Each drawn engine is walked right and wrong; hypothesis shows the smallest that gets stuck."""
    walked = 0

    @settings(max_examples=DRAWN, derandomize=True, database=None, deadline=None, suppress_health_check=list(HealthCheck))
    @given(little_known())
    def walks(data: dict[str, Any]) -> None:
        nonlocal walked
        walked += 1
        document = read_document(data)
        why = walk_right(document) or walk_wrong(document, Random(walked))  # noqa: S311 - mistakes, not secrets
        assert not why, why

    try:
        walks()
    except AssertionError as error:
        print(f"drawn        {error}\n{getattr(error, '__notes__', '')}")
        return 1
    print(f"drawn        {walked} documents, right and wrong")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
