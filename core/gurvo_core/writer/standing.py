"""Where a draft stands: whether it can be built by, what is doubtful, what is not known, each with the question that settles it."""

__all__ = ["Remark", "Standing", "standing_of"]

import re
from collections.abc import Collection, Iterable
from typing import Any

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.drive import DriveDrawing, drawn_if_known
from gurvo_core.engine.checks.links import link_faults
from gurvo_core.engine.reading import parse_document
from gurvo_core.engine.unknown import not_known
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.joints.job.show import joint_pictures
from gurvo_core.joints.job.view import JointView
from gurvo_core.reading import doubts_of, read_document

MOST = 60

# by the beginning of a path: the questions that may settle it, the first that is asked; {id} stands for the id of the member there
_QUESTIONS = (
    (r"identity\.name", "name"),
    (r"identity\.fuel", "fuel"),
    (r"identity\.family", "code"),
    (r"running_direction", "way"),
    (r"firing_order|throws", "fires"),
    (r"banks\.\d+\.cylinders$", "rows cylinders"),
    (r"banks\.\d+\.axis_deg", "lean"),
    (r"banks\.\d+\.cranktrain", "sizes"),
    (r"cam_card", "card"),
    (r"camshafts", "cams valves"),
    (r"drive\.wheels\.(?P<wheels>\d+)", "teeth.{id}"),
    (r"drive\.stages\.(?P<stages>\d+)\.path", "passes.{id}"),
    (r"drive\.stages\.(?P<stages>\d+)\.count", "count.{id}"),
    (r"drive\.stages\.(?P<stages>\d+)\.tensioner\.after", "after.{id} passes.{id}"),
    (r"drive\.stages\.(?P<stages>\d+)\.tensioner", "tensioner.{id}"),
    (r"drive\.stages\.(?P<stages>\d+)\.marked", "links.{id}"),
    (r"drive\.stages\.(?P<stages>\d+)", "passes.{id}"),
    (r"drive\.stages", "drives"),
    (r"drive\.marks", "known_by"),
    (r"timing_positions", "position"),
)
_GROUPS = {
    "mains": "mains",
    "rods": "rods",
    "head": "head",
    "caps": "caps",
    "bolt": "wheel",
    "lock": "tension",
    "rockers": "rockers",
    "front": "front",
    "damper": "damper",
    "valve": "valve",
}


class _Shown(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class Remark(_Shown):
    """One thing that is said of a draft."""

    path: str
    sentence: str
    question: str | None = Field(description="The key of the question that settles it")


class Standing(_Shown):
    """Where a draft stands, and how its front and its joints are drawn as far as they can be."""

    faults: list[Remark]
    doubtful: list[Remark]
    not_known: list[Remark]
    front: DriveDrawing | None
    joints: list[JointView]


def standing_of(data: dict[str, Any], asked: Collection[str] = ()) -> Standing:
    """Where the document of a draft stands; with the keys of the questions that are asked of it."""
    try:
        document = read_document(data)
    except DocumentError as error:
        return Standing(faults=_said(data, asked, error.faults), doubtful=[], not_known=[], front=_front_of(data), joints=[])
    return Standing(
        faults=[],
        doubtful=_said(data, asked, doubts_of(document)),
        not_known=_said(data, asked, not_known(document)),
        front=drawn_if_known(document),
        joints=joint_pictures(document),
    )


def _front_of(data: dict[str, Any]) -> DriveDrawing | None:
    """The front of a document that has faults, where they are none of its names."""
    try:
        document = parse_document(data)
    except DocumentError:
        return None
    return None if link_faults(document) else drawn_if_known(document)


def _said(data: dict[str, Any], asked: Collection[str], faults: Iterable[Fault]) -> list[Remark]:
    found = []
    for one in list(faults)[:MOST]:
        question = next((key for key in _questions(data, one.path) if key in asked), None)
        found.append(Remark(path=one.path, sentence=one.sentence, question=question))
    return found


def _questions(data: dict[str, Any], path: str) -> list[str]:
    joint = re.match(r"joints\.(\d+)", path)
    if joint:
        ident = str(_member(data.get("joints"), int(joint[1])))
        group = _GROUPS.get(ident.partition("-")[0])
        part = "bolts" if path.endswith("fasteners") else "stages"
        return [f"{part}.{group}"] if group else []
    for pattern, key in _QUESTIONS:
        found = re.match(pattern, path)
        if found:
            drive = data.get("drive")
            lists = {name: drive.get(name) if isinstance(drive, dict) else None for name in ("wheels", "stages")}
            ident = next((_member(lists[name], int(n)) for name, n in found.groupdict().items() if n is not None), "")
            return key.format(id=ident).split()
    return []


def _member(members: Any, n: int) -> str:
    inside = isinstance(members, list) and n < len(members) and isinstance(members[n], dict)
    return str(members[n].get("id", "")) if inside else ""
