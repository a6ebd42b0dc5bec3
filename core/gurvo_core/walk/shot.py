"""The bench as it stands when a run of work has been gone through as far as one of its steps."""

__all__ = ["Shot", "shot_of"]

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.work import BenchState


class Shot(BaseModel):
    """What is asked at a step, whether the crank may be turned there, and what is left open by then."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    step: str
    asks: list[str] = Field(description="Every question of the step, as far as it is asked by then")
    free: bool
    permission: str
    reasons: list[str]
    loose_ends: list[str]


def shot_of(state: BenchState) -> Shot | None:
    """The bench at the step that is done now; None where none is."""
    step = next((one for one in state.steps if one.status == "now"), None)
    if step is None:
        return None
    return Shot(
        step=step.key,
        asks=[question.ask for question in step.questions if question.status == "open"],
        free=state.permission.free,
        permission=state.permission.title,
        reasons=state.permission.reasons,
        loose_ends=[end.title for end in state.loose_ends if not end.is_after],
    )
