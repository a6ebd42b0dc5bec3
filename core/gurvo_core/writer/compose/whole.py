"""A whole engine document from what has been answered, its run of work with it: sound however little that is."""

__all__ = ["compose"]

from typing import Any

from gurvo_core.writer.answers import Answers
from gurvo_core.writer.compose.bolts import joints_of
from gurvo_core.writer.compose.drive import drive_parts
from gurvo_core.writer.compose.engine import engine_parts
from gurvo_core.writer.compose.origins import origins_of
from gurvo_core.writer.compose.parts import kit_of, lash_of, things_of
from gurvo_core.writer.compose.run import run_of
from gurvo_core.writer.compose.valves import valve_parts
from gurvo_core.writer.shape import shape_of


def compose(answers: Answers) -> dict[str, Any]:
    """The document that follows from the answers, as plain data."""
    shape = shape_of(answers)
    drive = drive_parts(answers, shape)
    document = {
        **engine_parts(answers, shape),
        "drive": drive,
        "joints": joints_of(answers, shape),
        "kit": kit_of(answers, shape),
        "things": things_of(answers, shape),
        "stages": run_of(answers, shape, drive["marks"]),
    }
    document |= valve_parts(answers, shape)
    lash = lash_of(answers)
    if lash:
        document["lash"] = lash
    origins = origins_of(answers, shape, document)
    return {**document, "origins": origins} if origins else document
