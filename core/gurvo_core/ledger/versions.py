"""Entries of earlier versions, read as today's: one small pure function a version. Nothing here is ever taken away.

Version 1 (November 2026): choices were wrapped as ``decision`` with a ``subject``; how a reading was come to was ``turned``;
what was taken over named a figure and not the entries it rests on (each kind's ``settle`` finds those).
"""

__all__ = ["ENTRY_VERSION", "upcast"]

from collections.abc import Callable, Mapping
from typing import Any

from gurvo_core.errors import EntryRefused

ENTRY_VERSION = 2
_KIND_OF_SUBJECT = {
    "setup": "wheel_setup",
    "tdc_method": "tdc_method",
    "stop_out": "piston_stop",
    "cam": "cam_decision",
    "sign_off": "sign_off",
    "revision": "revision",
}


def _from_1(body: Mapping[str, Any]) -> dict[str, Any]:
    plain = dict(body)
    decision = plain.get("decision")
    if plain.get("kind") == "decision" and isinstance(decision, Mapping) and decision.get("subject") in _KIND_OF_SUBJECT:
        plain = {**decision, "kind": _KIND_OF_SUBJECT[decision["subject"]]}
        if plain.pop("subject") == "stop_out":
            plain["fitted"] = False
    if "turned" in plain:
        plain["approach"] = plain.pop("turned")
    return plain


_STEPS: dict[int, Callable[[Mapping[str, Any]], dict[str, Any]]] = {1: _from_1}


def upcast(body: Mapping[str, Any], version: int) -> dict[str, Any]:
    """Return an entry's plain body as today's version has it.

    Raises EntryRefused if it is of a version this program does not know.
    """
    if not 1 <= version <= ENTRY_VERSION:
        rule = f"this entry is of version {version}, and this Gurvo reads up to {ENTRY_VERSION}: bring Gurvo up to date"
        raise EntryRefused("version", version, rule)
    plain = dict(body)
    for step in range(version, ENTRY_VERSION):
        plain = _STEPS[step](plain)
    return plain
