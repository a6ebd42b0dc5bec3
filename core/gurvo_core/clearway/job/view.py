"""The shapes of what the clearway asks and shows."""

__all__ = ["ClearwayView", "GapView", "MeasuredView", "MoveQuestion", "MoveView", "MoveWay", "ReachView", "ShaftView", "TellView"]

from typing import Literal

from pydantic import Field

from gurvo_core.ledger import Question, View


class TellView(View):
    """Something by which one tells where a shaft stands, and where it is then, as far as that is known."""

    of: str
    name: str
    clock_deg: float | None = None


class GapView(View):
    """The least gap: how much, how sure, of what to what, and what is wanted."""

    gap_mm: float
    expanded_mm: float
    words: str
    wanted_mm: float


class MoveView(View):
    """One move of a way."""

    shaft: str
    name: str
    by_deg: int = Field(description="How far it is turned, positive the running way [crank deg]")
    turn_deg: float = Field(description="How far the shaft itself is turned [shaft deg]")
    words: str
    tells: list[TellView] = Field(description="Where its marks stand after it")
    hold: str = Field(description="How to hold it, and what it does once it is let go")
    gap: GapView | None


class MoveWay(View):
    """A way, and what it is better for than the first."""

    moves: list[MoveView]
    gap: GapView | None
    better: str
    level: Literal["wanted", "meets"]
    path: list[list[int]] = Field(description="Where the crank and the camshaft in question stand, before and after each move [crank deg]")
    camshaft: str = Field(description="Id of the camshaft in question: the first that is turned, else the one that comes nearest")


class MoveQuestion(Question):
    """A move on the way to where shafts must be; without any, why there is no way."""

    kind: Literal["clearway_move"] = "clearway_move"
    step: str
    ways: list[MoveWay]
    near: list[str] = Field(description="What may meet where they stand")
    opens: list[str] = Field(description="What would open a way")


class ReachView(View):
    """How far a shaft may be turned from where it stands, in its own degrees; None where nothing stops it."""

    forward_deg: float | None
    back_deg: float | None
    words: str


class ShaftView(View):
    """A shaft: where it stands and how that is known, how it rests, how far it may be turned."""

    shaft: str
    name: str
    how: Literal["laid", "parked", "held", "seen", "turned", "not known", "not in"]
    place_deg: float | None = Field(description="Where it stands, where that is known [crank deg]")
    words: str
    rest: str
    loaded: bool
    reach: ReachView | None
    told_by: list[TellView]


class MeasuredView(View):
    """A gap as it was measured, with its verdict."""

    name: str
    how: Literal["clay", "dial"]
    least_mm: float
    expanded_mm: float
    wanted_mm: float
    verdict: str
    by: str


class ClearwayView(View):
    """What may be turned, and what is known of gaps."""

    shafts: list[ShaftView]
    blind: list[str] = Field(description="Camshafts of which too little is known")
    asks: list[str] = Field(description="Shafts to be looked at before a way can be proposed")
    measured: list[MeasuredView]
    caps: list[str] = Field(description="Where camshafts stand easiest while the step to be done draws their caps down")
    met: list[str] = Field(description="What may have met at a dead stop, likeliest first")
