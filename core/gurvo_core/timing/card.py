"""Does the cam card fit the profile it was printed for? A card that does not would send a builder hunting for an error he did not make."""

__all__ = ["card_faults"]

from gurvo_core.engine import EngineDocument, Flank
from gurvo_core.errors import Fault
from gurvo_core.timing.events import card_event_deg, in_words, profile_event_deg


def card_faults(document: EngineDocument) -> list[Fault]:
    """Return where a document's cam card and its profiles disagree by more than the card's own tolerance.

    Parameters
    ----------
    document : EngineDocument
        A sound document.

    Returns
    -------
    faults : list of Fault
        One for each event that is off.

    Source
    ------
    House rule: a card and its profile describe one lobe.

    Example
    -------
    >>> card_faults(quern_4())
    []
    """
    faults = []
    for place, line in enumerate(document.cam_card):
        shaft, lobe = document.camshaft(line.camshaft), document.lobe(line.camshaft, document.card_cylinder(line), line.valve)
        if shaft is None or lobe is None:
            continue
        flanks: tuple[Flank, Flank] = ("opening", "closing")
        for flank in flanks:
            said = card_event_deg(line, flank)
            found = profile_event_deg(document.profile(lobe.profile), shaft, lobe, line.lift_mm, flank)
            if abs(said - found) > line.tolerance_deg:
                field = "opens_deg" if flank == "opening" else "closes_deg"
                sentence = f"The card has the {line.valve} {flank} at {in_words(said)}, but its profile gives {in_words(found)}."
                faults.append(Fault(path=f"cam_card.{place}.{field}", sentence=sentence))
    return faults
