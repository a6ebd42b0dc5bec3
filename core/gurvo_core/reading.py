"""The door for engine documents: text or plain data in, a sound document or all of its faults out.

Text may be JSON, or JSON5 as people write it by hand: comments, commas after the last, names without quotes. What is kept and handed out
is plain JSON.
"""

__all__ = ["check_document", "doubts_of", "read_document", "read_text"]

import json
from typing import Any

import pyjson5

from gurvo_core.bounds import figures_out_of_reach, key_given_twice, too_much
from gurvo_core.brackets import unmatched_bracket
from gurvo_core.drive import drive_doubts, drive_faults
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.checks import find_faults
from gurvo_core.engine.checks.links import link_faults
from gurvo_core.engine.reading import parse_document
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.fits.faults import fit_faults
from gurvo_core.joints.faults import joint_doubts, joint_faults
from gurvo_core.run import run_doubts, run_faults
from gurvo_core.sentence import as_words
from gurvo_core.timing import card_doubts

DEEPEST = 40  # levels of lists and groups; a document has fewer than ten


def read_text(text: str) -> Any:
    """Return the plain data in a document's text.

    Raises DocumentError with one fault that says where the text breaks off.
    The JSON5 data interchange format, read by the package pyjson5.
    """
    words = too_much(text)
    if words:
        raise DocumentError([Fault(path="", sentence=words)])
    data = _plain(text)
    twice = key_given_twice(text)
    if twice is not None:
        raise DocumentError([Fault(path="", sentence=f"“{twice}” is given twice in one group; keep one of them.")])
    return as_words(data)


def _plain(text: str) -> Any:
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        pass  # perhaps it is JSON5; the reader below says what is wrong
    try:
        return pyjson5.decode(text, maxdepth=DEEPEST)
    except (pyjson5.Json5Exception, ValueError, RecursionError) as error:
        raise DocumentError([Fault(path="", sentence=_where(text, error))]) from None


def _where(text: str, error: Exception) -> str:
    """Say what is wrong with a text and in which line, as far as the reader tells."""
    bracket = unmatched_bracket(text)
    if bracket:
        return f"This is no JSON or JSON5: {bracket}."
    said = str(error.args[0] if error.args else error).rstrip(".")
    place = next((int(word) for word in said.replace(",", " ").split() if word.isdigit()), None)
    if place is None or place > len(text):
        return f"This is no JSON or JSON5: {said}."
    line = text.count("\n", 0, place) + 1
    return f"This is no JSON or JSON5; line {line} cannot be read. Look for a missing comma, quote or bracket there or just before."


def check_document(document: EngineDocument) -> list[Fault]:
    """Return every fault of a document whose types are right, from all rooms."""
    faults = find_faults(document)
    if link_faults(document):
        return faults
    if not any(fault.path.startswith("drive.") for fault in faults):
        faults += [fault for fault in drive_faults(document) if not _rests_on_a_guess(document, fault)]
    faults += [*joint_faults(document), *fit_faults(document)]
    if not any(fault.path.startswith(("joints.", "fits.")) for fault in faults):
        faults += run_faults(document)
    return faults


def _rests_on_a_guess(document: EngineDocument, fault: Fault) -> bool:
    return document.is_guessed(f"/{fault.path.replace('.', '/')}")


def doubts_of(document: EngineDocument) -> list[Fault]:
    """Return what is doubtful in a sound document: it differs from what follows from the rest, and is kept with that said."""
    guessed = [fault for fault in drive_faults(document) if _rests_on_a_guess(document, fault)]
    return [*card_doubts(document), *drive_doubts(document), *joint_doubts(document), *run_doubts(document), *guessed]


def read_document(data: object) -> EngineDocument:
    """Return the engine document in some plain data.

    Raises DocumentError with every fault, each a sentence and its path.
    """
    faults = figures_out_of_reach(data)
    if faults:
        raise DocumentError(faults)
    document = parse_document(data)
    faults = check_document(document)
    if faults:
        raise DocumentError(faults)
    return document
