"""Which parts of an engine a name means, by the words of the trade: “Rod bolts” hold the rods, “Head A on” is about bank A's head.

Documents name joints, parts and steps in the shop's own words, and say nothing else of where they are.
"""

__all__ = ["BY_BANK", "PartKind", "banks_named", "kinds_named"]

import re
from collections.abc import Sequence
from functools import lru_cache
from typing import Literal, get_args

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.cranktrain import Bank

PartKind = Literal[
    "block",
    "mains",
    "crank",
    "rods",
    "pistons",
    "rings",
    "bores",
    "sump",
    "flywheel",
    "heads",
    "gaskets",
    "followers",
    "cams",
    "cam caps",
    "rockers",
    "valves",
    "plugs",
    "cam covers",
    "drive",
    "pump",
    "front cover",
    "seals",
    "damper",
    "oil",
]
BY_BANK: frozenset[PartKind] = frozenset({"heads", "followers", "cams", "cam caps", "rockers", "plugs", "cam covers"})
# source: common practice; the first words that fit take their letters away from those after them
_WORDS: tuple[tuple[PartKind, str], ...] = (
    ("plugs", r"(spark |glow )?plugs?\b|injectors?\b(?! pump)"),
    ("oil", r"oil (change|in|again)|\boil and|water|coolant in|after (ten|five) hours|\boil\b(?! pump)"),
    ("cam covers", r"(cam|rocker) cover\w*|^covers? looked"),
    ("cam caps", r"cam ?caps?\b|cam case\w*"),
    (
        "drive",
        r"(cam|crank) (sprocket|wheel|gear|bolt)\w*( bolts?)?|cam pulley\w*( bolts?)?|sprockets?( bolts?)?|pump (gear|wheel)\w*",
    ),
    (
        "drive",
        r"(timing |cam |pump |inner |outer |new )?(chains?|belts?)\b(?! covers?)(?! case)|tensioners?|guides?|\bdots?\b|gears?\b(?! case)",
    ),
    ("drive", r"phasers?|idlers?|roller|lock bolts?|vacuum|left wheel|right wheel|pulley with|plain pulley|rollers|(left|right) pulley"),
    ("seals", r"\b((front|rear|cam|crank|case)\b( and \w+)? )?seals?\b"),
    ("front cover", r"(front|timing|belt|side|gear|chain) (cover|case|face)\w*|cover bolts|\bcovers?\b"),
    ("damper", r"damper\w*|(crank )?pulley\w*"),
    ("flywheel", r"flywheel|flange|starter ring"),
    ("pump", r"(oil|coolant|injection) pump\w*|\bpump\b"),
    ("sump", r"sump\w*"),
    ("rods", r"\brod (bolt|nut|bearing|shell|cap)s?\w*|\brods\b"),
    ("rings", r"ring gaps?|\brings?\b"),
    ("pistons", r"pistons?( to bore| in their bores)?|protrusion|barrel"),
    ("bores", r"\bbores\b|liners?|block face"),
    ("mains", r"\bmains?\b|crankcase|case (bolts|faces|halves)|bearing shells|\bmain (cap|bearing)\w*|bead on the case|halves"),
    ("crank", r"end float|\bfloat\b|crankshaft|\bcrank (in|into)\b|^crank,|\bcrank\b(?! pin| to| on| back)"),
    ("valves", r"valve clearances?|valve seats?|(try|both|all) (all|both|every|valves)\b.*|valves"),
    ("followers", r"lifters?|tappets?|buckets?|followers?|\bfingers\b|shims?"),
    ("rockers", r"rockers?\b|rocker \w+|push ?rods?"),
    ("heads", r"\bheads?\b|stud nuts"),
    ("cams", r"\bcams?\b|camshafts?|lobes?|thrust plate"),
)
_FOUND = tuple((kind, re.compile(words, re.IGNORECASE)) for kind, words in _WORDS)
assert {kind for kind, _ in _WORDS} <= set(get_args(PartKind))


@lru_cache(maxsize=2048)  # a document's names are read over and over: with every picture, and by every bench
def kinds_named(*said: str) -> tuple[PartKind, ...]:
    """Return the kinds of parts that some words name, in the order in which they are named; what was read as one is not read again."""
    found: list[tuple[int, int, PartKind]] = []
    for at, words in enumerate(said):
        left = words
        for kind, fits in _FOUND:
            for one in list(fits.finditer(left)):
                if one.group().strip():
                    found.append((at, one.start(), kind))
                    left = left[: one.start()] + " " * len(one.group()) + left[one.end() :]
    return tuple(dict.fromkeys(kind for _, _, kind in sorted(found)))


def banks_named(document: EngineDocument, *said: str) -> Sequence[str]:
    """Return the ids of the banks that some words name; of all where they name none."""
    all_banks = [bank.id for bank in document.banks]
    if len(all_banks) == 1:
        return all_banks
    named = [bank.id for bank in document.banks if any(_is_bank(document, bank, words) for words in said)]
    return named or all_banks


def _is_bank(document: EngineDocument, bank: Bank, words: str) -> bool:
    """Whether words mean a bank: by its letter as a letter alone, or as the end of an id; else by what its name has and no other."""
    if len(bank.id) == 1:
        return words.endswith(f" {bank.id}") or re.search(rf"(?<=\w ){bank.id.upper()}\b", words) is not None
    return any(_is_said(word, words.lower()) for word in (bank.id.lower(), *_telling(bank.name, document)))


def _telling(name: str, document: EngineDocument) -> list[str]:
    """The words of a bank's name that no other bank's has: “left” of “left bank”."""
    others = {word for bank in document.banks if bank.name != name for word in bank.name.lower().split()}
    return [word for word in name.lower().split() if word not in others]


def _is_said(word: str, text: str) -> bool:
    return re.search(rf"(?<![a-z]){re.escape(word)}(?![a-z])", text) is not None
