"""How the clearway says it: moves, gaps, where shafts stand, how they rest."""

__all__ = ["crank_words", "gap_view", "move_views", "own_deg", "reach_words", "rest_words", "stands_words", "tells_of"]

from gurvo_core.clearway.choose import Choice
from gurvo_core.clearway.ground import CYCLE
from gurvo_core.clearway.job.thought import Reached, Thought
from gurvo_core.clearway.job.view import GapView, MoveView, TellView
from gurvo_core.clearway.job.whereabouts import ShaftPlace
from gurvo_core.clearway.least import Gap
from gurvo_core.clearway.rest import Rest, SpringLoad
from gurvo_core.clearway.stands import CRANK, Move, Stands
from gurvo_core.motion.told import clock_of, told_by
from gurvo_core.sentence import AGAINST_WAY, RUNNING_WAY, clock, within

CAM_TURNS = 0.5
BY_HAND_NM = 2.0  # less than that nobody calls holding


def own_deg(thought: Thought, shaft: str, by_deg: float) -> float:
    """Return crank degrees as those of a shaft itself."""
    if shaft == CRANK:
        return abs(by_deg)
    return abs(by_deg * thought.ground.document.turns_clockwise.get(shaft, CAM_TURNS))


def _way(thought: Thought, shaft: str, by_deg: int) -> str:
    """Which way that is; some camshafts turn against the crank."""
    document = thought.ground.document
    turns = 1.0 if shaft == CRANK else document.turns_clockwise.get(shaft, CAM_TURNS) * document.rotation_sign
    return RUNNING_WAY if (by_deg > 0) == (turns > 0) else AGAINST_WAY


def tells_of(thought: Thought, shaft: str, place: int | None) -> list[TellView]:
    """Return by what one tells where a shaft stands, and where that is at a place; first what it was told by before."""
    document, real = thought.ground.document, thought.where.id_of(shaft)
    before = thought.where.of(real).of
    return [
        TellView(of=one.of, name=one.name, clock_deg=None if place is None else clock_of(document, real, one.of, place))
        for one in sorted(told_by(document, real), key=lambda one: one.of != before)
    ]


def move_views(thought: Thought, stands: Stands, choice: Choice) -> list[MoveView]:
    """Return a way's moves as they are shown."""
    views = []
    for move, gap in zip(choice.moves, choice.gaps, strict=True):
        after = stands.moved(move)
        tells = tells_of(thought, move.shaft, after.place(move.shaft))
        to = f", {tells[0].name} to {clock(tells[0].clock_deg)}" if tells and tells[0].clock_deg is not None else ""
        turn_deg = own_deg(thought, move.shaft, move.by)
        views.append(
            MoveView(
                shaft=thought.where.id_of(move.shaft),
                name=thought.names[move.shaft],
                by_deg=move.by,
                turn_deg=turn_deg,
                words=f"Turn {within(thought.names[move.shaft])} {turn_deg:.0f}° {_way(thought, move.shaft, move.by)}{to}",
                tells=tells,
                hold=_hold(thought, stands, move, after),
                gap=gap_view(gap),
            )
        )
        stands = after
    return views


def _hold(thought: Thought, stands: Stands, move: Move, after: Stands) -> str:
    load = thought.loads.get(move.shaft)
    if load is None:
        return ""
    needed = load.turning_nm(stands.place(move.shaft), move.by)
    begin = f"By its hexagon, up to {needed:.0f} N·m." if needed > BY_HAND_NM else ""
    return " ".join(filter(None, (begin, _lets_go(thought, load, after.place(move.shaft)))))


def _lets_go(thought: Thought, load: SpringLoad, place: int) -> str:
    rest = load.at(place)
    if rest.stays == "stays":
        return "It stays there."
    verb = "it snaps" if rest.stays == "snaps" else "it may turn"
    turn = own_deg(thought, load.camshaft, rest.settles_deg)
    return f"Hold it there: let go, {verb} {turn:.0f}° {_way(thought, load.camshaft, rest.way)}. No fingers between."


def gap_view(gap: Gap | None) -> GapView | None:
    """Return a gap as it is shown."""
    if gap is None:
        return None
    return GapView(gap_mm=gap.gap.value, expanded_mm=gap.gap.expanded, words=gap.words, wanted_mm=gap.least_mm)


def stands_words(thought: Thought, place: ShaftPlace) -> str:
    """Return where a shaft stands, by its first mark where it has one."""
    if not place.is_known:
        return "not in yet" if place.how == "not in" else "nobody has said where"
    shaft = CRANK if place is thought.where.crank else place.shaft
    tells = tells_of(thought, shaft, round(place.place_deg) % CYCLE)
    at = f"{tells[0].name} at {clock(tells[0].clock_deg)}" if tells and tells[0].clock_deg is not None else f"{place.place_deg:.0f}°"
    how = {"laid": "turns with the crank", "held": "held", "seen": "seen", "turned": "turned there", "parked": "parked"}[place.how]
    return f"{at}, {how}"


def rest_words(thought: Thought, shaft: str, rest: Rest | None) -> str:
    """Return how a camshaft rests where it stands."""
    if rest is None:
        return ""
    if rest.stays == "stays":
        return "rests"
    verb = "snaps" if rest.stays == "snaps" else "may turn"
    return f"it {verb} {own_deg(thought, shaft, rest.settles_deg):.0f}° {_way(thought, shaft, rest.way)}"


def reach_words(thought: Thought, reached: Reached) -> str:
    """Return how far a shaft may be turned from where it stands, forward being the way it runs."""
    if reached.is_free:
        return "free, as the document describes it"
    said = []
    for deg, gap, way in ((reached.forward_deg, reached.forward, "forward"), (reached.back_deg, reached.back, "back")):
        if deg < CYCLE:
            meets = f", then {gap.meets}" if gap is not None else ""
            said.append(f"{way} {own_deg(thought, reached.shaft, deg):.0f}°{meets}")
    return "; ".join(said)


def crank_words(thought: Thought, reached: Reached) -> str:
    """Return how far the crank may be turned, as it stands above everything: what it meets the way it runs, how far it goes back."""
    on = f"{reached.forward_deg}° forward at most, then {reached.forward.meets}" if reached.forward else "forward all the way"
    back = f"{reached.back_deg}° back" if reached.back else "back all the way"
    return on if thought.where.coupled else f"{on}; {back}"
