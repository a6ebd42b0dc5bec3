"""Does the cam card fit the profile it was printed for? A card that does not would send a builder hunting for an error he did not make."""

__all__ = ["card_doubts"]

from gurvo_core.engine import EngineDocument, Flank
from gurvo_core.errors import Fault
from gurvo_core.timing.events import card_event_deg, in_words, profile_event_deg

COMMON_TOLERANCE_DEG = 3.0


def card_doubts(document: EngineDocument) -> list[Fault]:
    """Return where a document's cam card and its profiles disagree by more than the card's own tolerance.

    A card and its profile describe one lobe.
    """
    doubts = []
    for place, line in enumerate(document.cam_card):
        shaft, lobe = document.camshaft(line.camshaft), document.lobe(line.camshaft, document.card_cylinder(line), line.valve)
        shape = document.shape(shaft, lobe) if shaft and lobe else None
        if shaft is None or lobe is None or shape is None or lobe.nose_deg is None or line.opens_deg is None or line.closes_deg is None:
            continue
        flanks: tuple[Flank, Flank] = ("opening", "closing")
        for flank in flanks:
            said = card_event_deg(line, flank)
            found = profile_event_deg(shape, shaft, lobe, line.lift_mm, flank)
            off_deg = abs(said - found)
            if off_deg > (line.tolerance_deg or COMMON_TOLERANCE_DEG):
                field = "opens_deg" if flank == "opening" else "closes_deg"
                sentence = (
                    f"The card has the {line.valve} {flank} at {in_words(said)}, and its profile has it {off_deg:.1f}° away from that."
                )
                doubts.append(Fault(path=f"cam_card.{place}.{field}", sentence=sentence))
    return doubts
