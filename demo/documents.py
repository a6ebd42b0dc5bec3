"""The demo's engine documents: each family's file, with its whole run of work; and as it was before that run was written."""

import json
from pathlib import Path
from typing import Any

FAMILIES = Path(__file__).parent / "families"


def family_data(code: str) -> dict[str, Any]:
    """Plain data of a family's document."""
    data: dict[str, Any] = json.loads((FAMILIES / f"{code}.json").read_text("utf-8"))
    return data


def without_run(data: dict[str, Any]) -> dict[str, Any]:
    """The same before its run of work was written: what the engine is, and nothing of what is done."""
    return {key: value for key, value in data.items() if key not in ("stages", "things", "variants")}
