"""Ways beside the one that is proposed, with what each is better for; and where there is none, what would open one."""

__all__ = ["Choice", "opens", "ways_of"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from gurvo_core.clearway.ground import Ground
from gurvo_core.clearway.least import Gap, gaps_at, least_on
from gurvo_core.clearway.rest import SpringLoad
from gurvo_core.clearway.stands import CRANK, Move, Stands
from gurvo_core.clearway.way import Way, at_least_deg, find_way, turned_deg


@dataclass(frozen=True, kw_only=True)
class Choice:
    """One way: its moves, the least gap on each, and what it is better for."""

    way: Way
    gaps: tuple[Gap | None, ...]
    better: str = ""

    @property
    def moves(self) -> tuple[Move, ...]:
        """In their order."""
        return self.way.moves

    @property
    def least(self) -> Gap | None:
        """The gap with least to spare on all of it."""
        return min((gap for gap in self.gaps if gap is not None), key=lambda gap: gap.spare_mm, default=None)


def ways_of(ground: Ground, stands: Stands, goal: Mapping[str, int], loads: Mapping[str, SpringLoad]) -> list[Choice]:
    """Return the way that is proposed, then others that are better in something; none where there is no way."""
    proposed = find_way(ground, stands, goal, loads)
    if proposed is None:
        return []
    choices = [_choice(ground, stands, proposed)]
    if turned_deg(proposed.moves) <= at_least_deg(stands, goal):
        return choices  # nothing is shorter, and a shorter one is all that another could be
    for other in _others(ground, stands, goal, loads):
        if other is not None and other.moves not in [one.moves for one in choices]:
            choice = _choice(ground, stands, other)
            better = ", ".join(_better(choice, choices[0]))
            if better:
                choices.append(replace(choice, better=better))
    return choices


def _others(ground: Ground, stands: Stands, goal: Mapping[str, int], loads: Mapping[str, SpringLoad]) -> Iterator[Way | None]:
    yield find_way(ground, stands, goal, {})  # as if nothing had to be held
    if not stands.running_only:
        yield find_way(ground, replace(stands, running_only=True), goal, loads)


def _choice(ground: Ground, stands: Stands, way: Way) -> Choice:
    gaps = []
    for move in way.moves:
        gaps.append(least_on(ground, stands, move))
        stands = stands.moved(move)
    return Choice(way=way, gaps=tuple(gaps))


def _better(one: Choice, than: Choice) -> Iterator[str]:
    if turned_deg(one.moves) < turned_deg(than.moves):
        yield f"{turned_deg(than.moves) - turned_deg(one.moves):.0f}° less to turn"
    if len(one.moves) < len(than.moves):
        fewer = len(than.moves) - len(one.moves)
        yield f"{fewer} move{'s' if fewer > 1 else ''} fewer"
    if one.least is not None and than.least is not None and one.least.spare_mm > than.least.spare_mm + 0.1:
        yield f"{one.least.spare_mm - than.least.spare_mm:.1f} mm more gap"
    if all(move.by > 0 for move in one.moves if move.shaft == CRANK) and any(move.by < 0 for move in than.moves if move.shaft == CRANK):
        yield "the crank turns the running way alone"


def opens(ground: Ground, stands: Stands, goal: Mapping[str, int], loads: Mapping[str, SpringLoad]) -> tuple[list[Gap], list[str]]:
    """Return what may meet where the shafts stand already, and the camshafts each of which, taken out, would open a way."""
    here = [gap for gap in gaps_at(ground, stands) if gap.may_touch]
    return here, [cam for cam in stands.free if _is_open_without(ground, stands, goal, loads, cam)]


def _is_open_without(ground: Ground, stands: Stands, goal: Mapping[str, int], loads: Mapping[str, SpringLoad], cam: str) -> bool:
    return find_way(ground, stands.without(cam), {name: at for name, at in goal.items() if name != cam}, loads) is not None
