"""What comes from an instrument, read and understood: figures, a pull that has ended with its trace, a figure at rest."""

from dataclasses import dataclass, field
from time import monotonic

from pydantic import Field

from gurvo_core.angles import wrap_deg
from gurvo_core.errors import CoreError
from gurvo_core.joints.job.entries import KeptTrace
from gurvo_core.joints.job.kept import keep_trace
from gurvo_core.joints.live import EndedPull, PullWatch, RestWatch, SweepWatch
from gurvo_core.joints.trace import analyse, clean
from gurvo_core.ledger.entry import Shape

UNITS = {"N.m": "N·m", "deg": "deg", "mm": "mm"}


class PullRead(Shape):
    """A pull as an instrument saw it."""

    torque: str
    angle: str
    before: str
    trace: KeptTrace
    flags: list[str]


class LiveReading(Shape):
    """What an instrument shows now, for a bench that looks."""

    trouble: str = ""
    at_s: float = Field(default=0.0, description="When, by this machine's own clock [s]")
    value: float | None = Field(default=None, description="Its value in the unit of its kind; of a wrench its torque")
    text: str = Field(default="", description="The value as it is shown")
    angle_deg: float | None = None
    at_rest: bool = Field(default=False, description="Whether it has just come to rest")
    beside: str = Field(default="", description="What the instrument beside it shows")
    take: bool = Field(default=False, description="Whether it is the next point of a sweep")
    pull: PullRead | None = Field(default=None, description="The pull that has just ended")


@dataclass
class Understood:
    """Reads the lines of one instrument, whatever they are."""

    unit: str
    resolution: float
    pulls: PullWatch = field(default_factory=PullWatch)
    sweep: SweepWatch = field(default_factory=SweepWatch)
    rest: RestWatch = field(init=False)

    def __post_init__(self) -> None:
        """A figure rests within a few of its own steps."""
        self.rest = RestWatch(self.resolution)

    def line(self, line: str) -> LiveReading | None:
        """What a line says; None for one that is no reading. Raises ValueError for one that is nonsense."""
        if not line.startswith("R "):
            return None
        figures = [float(part) for part in line[2:].split(",")]
        value = figures[0]
        if not abs(value) < 1e6:
            raise ValueError(line)
        rests = self.rest.feed(monotonic(), value)
        if self.unit == "N·m" and len(figures) > 1:
            ended = self.pulls.feed(figures[1], value)
            pull = _read(ended) if ended else None
            return LiveReading(value=value, text=f"{value:.1f}", angle_deg=figures[1], pull=pull)
        take = self.sweep.feed(value) if self.unit == "deg" else False
        # an encoder is read as a wheel that is numbered all round
        shown = wrap_deg(value) if self.unit == "deg" else value
        return LiveReading(value=value, text=plain_figure(shown, self.resolution), at_rest=rests, take=take)


def plain_figure(value: float, resolution: float) -> str:
    """A figure with as many decimals as its gauge has."""
    places = max(0, len(f"{resolution:.6f}".rstrip("0").split(".")[1]))
    return f"{value:.{places}f}"


def _read(ended: EndedPull) -> PullRead | None:
    """A pull in the words of an entry; None for what was no pull, such as a nudge."""
    try:
        trace, gaps = clean(ended.trace.angle_deg, ended.trace.torque_nm)
        figures = analyse(trace)
    except CoreError:
        return None
    return PullRead(
        torque=f"{ended.end_nm:.1f}",
        angle=f"{float(trace.angle_deg[-1]):.0f}",
        before=f"{float(trace.angle_deg[-1] - trace.angle_deg[0]):.0f}",
        trace=keep_trace(trace),
        flags=[*figures.flags, *(gap.sentence for gap in gaps)],
    )
