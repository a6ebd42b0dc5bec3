"""How a chain or belt is laid: what a link or a tooth too many between two marks does to the timing, once the slack is taken up.

Rigid limits: a pitch is a pitch, and the pulled run decides. The loop travels from its driving wheel over the slack run to the
wheels it turns, and back to the driving wheel on the pulled one.
"""

__all__ = ["LaidError", "crank_deg_a_pitch", "laid_error", "laid_words"]

from dataclasses import dataclass

from gurvo_core.engine import EngineDocument, LoopStage

REFERENCE = "crank"


@dataclass(frozen=True, kw_only=True)
class LaidError:
    """Which shaft would stand off, against which, and by how much; positive is early [crank deg]."""

    shaft: str
    against: str
    crank_deg: float


def crank_deg_a_pitch(document: EngineDocument, stage: LoopStage) -> float | None:
    """Return how far the crank turns while a chain or belt travels one link or tooth.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    stage : LoopStage
        One of its chains or belts.

    Returns
    -------
    crank_deg : float or None
        360/N for N teeth on the crank; of a wheel that turns slower, so much more. None where no teeth are known [deg].

    Source
    ------
    A pitch at the wheel is 360/N of it; its shaft turns at the drive's own ratio. Common practice: at 20 teeth it is 18°.

    Example
    -------
    >>> round(crank_deg_a_pitch(quern_4(), quern_4().drive.stages[0]), 2)  # 21 teeth
    17.14
    """
    for step in stage.path:
        wheel = document.drive.wheel(step.wheel)
        turns = document.turns_clockwise.get(wheel.shaft)
        if wheel.teeth and turns:
            return 360 / wheel.teeth / abs(turns)
    return None


def laid_error(document: EngineDocument, stage: LoopStage, from_mark: str, to_mark: str, more: float) -> LaidError | None:
    """Return what it does to the timing when more links or teeth lie between two marks than belong there.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    stage : LoopStage
        The chain or belt.
    from_mark, to_mark : str
        Ids of the marks, the way it travels.
    more : float
        How many more than the book counts; negative is fewer.

    Returns
    -------
    error : LaidError or None
        Of the shaft that is driven, against the crank where one of the two is the crank's. None where it does nothing: both marks
        on one wheel, nothing too many, or no teeth known.

    Source
    ------
    More links between a wheel and the next one downstream leave the first further back, or the second further on, by as many
    pitches. Where the slack lies between them the other side of the loop has as many fewer, which says the same. Common practice:
    marks right with a tooth of slack on the pulled run leaves the crank a tooth ahead.

    Example
    -------
    >>> error = laid_error(quern_4(), quern_4().drive.stages[0], "cam-dot", "crank-dot", 1)
    >>> error.shaft, error.against, round(error.crank_deg, 2)
    ('cam', 'crank', -17.14)
    """
    wheels = {mark.id: mark.wheel for mark in document.drive.marks}
    pitch_deg = crank_deg_a_pitch(document, stage)
    if pitch_deg is None or not more or wheels[from_mark] == wheels[to_mark]:
        return None
    here, there = (document.drive.wheel(wheels[mark]).shaft for mark in (from_mark, to_mark))
    if here == there:
        return None
    if document.drive.shaft(there).kind == REFERENCE or document.drive.wheel(stage.path[0].wheel).shaft == there:
        return LaidError(shaft=here, against=there, crank_deg=-more * pitch_deg)
    return LaidError(shaft=there, against=here, crank_deg=more * pitch_deg)


def laid_words(document: EngineDocument, error: LaidError) -> str:
    """Return such an error in a builder's words.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    error : LaidError
        What it does.

    Returns
    -------
    words : str
        Without a stop.

    Source
    ------
    House rule: figures are said in crank degrees.

    Example
    -------
    >>> laid_words(quern_4(), LaidError(shaft="cam", against="crank", crank_deg=-17.14))
    'once the slack is taken up, camshaft would stand 17.1° of the crank late'
    """
    drive = document.drive
    against = "" if drive.shaft(error.against).kind == REFERENCE else f" against {drive.shaft(error.against).name.lower()}"
    by = f"{round(abs(error.crank_deg), 1):g}° of the crank {'early' if error.crank_deg > 0 else 'late'}"
    return f"once the slack is taken up, {drive.shaft(error.shaft).name.lower()} would stand {by}{against}"
