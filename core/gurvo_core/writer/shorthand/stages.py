"""How a joint is tightened, on one line: ``20 + 60 + 90° + 90°``, ``25 lbf·ft``, ``hand, 40, back 180, 27 + 60°``.

Without a comma every ``+`` begins the next stage. With commas between the stages a ``+`` joins a torque and the angle turned at once
after it, bolt by bolt; a single stage of that sort ends in ``at once``. What is in quotes stays words.
"""

__all__ = ["Stage", "read_stages", "write_stages"]

import re
from collections.abc import Iterable, Sequence
from typing import Any

from gurvo_core.units import Unit, per_unit
from gurvo_core.writer.shorthand.words import Piece, figure_in, pieces, refused

Stage = str | dict[str, Any]
MOST_STAGES = 12
AT_ONCE = "at once"
_TORQUES: dict[str, Unit] = {
    "n·m": "N·m",
    "nm": "N·m",
    "n.m": "N·m",
    "lbf·ft": "lbf·ft",
    "lbf.ft": "lbf·ft",
    "lb·ft": "lbf·ft",
    "lb-ft": "lbf·ft",
    "ft-lb": "lbf·ft",
    "ft·lb": "lbf·ft",
    "lbf·in": "lbf·in",
    "lb-in": "lbf·in",
    "in-lb": "lbf·in",
}
_TURNS = {"quarter turn": 90.0, "half turn": 180.0, "third of a turn": 120.0, "full turn": 360.0, "whole turn": 360.0}
_AGAIN = {"twice": 2, "three times": 3, "four times": 4}
_TORQUE = re.compile(r"(?P<figure>[\d.,]+)\s*(?P<unit>[^\d\s.,].*)?")
_ANGLE = re.compile(r"(?P<figure>[\d.,]+)\s*(?:°|deg|degrees)")
_WAIT = re.compile(r"wait (?P<figure>[\d.,]+)(?: ?min(?:utes)?)?")
_BACK = re.compile(r"(?:back|loosen)(?: (?P<figure>[\d.,]+)\s*(?:°|deg|degrees)?| fully)?")
_QUOTED = re.compile(r"[“\"]([^“”\"]*)[”\"]")


def read_stages(text: str) -> tuple[Stage, ...]:
    """The stages in a line, as the document writes them."""
    text = text.replace("\0", " ")
    quoted = [found[1] for found in _QUOTED.finditer(text)]
    # what is in quotes holds its place while the line is cut, at the same length
    plain = _QUOTED.sub(lambda found: "\0" * len(found[0]), text)
    if not plain.strip():
        raise refused(Piece(text, 0), "nothing is said; write such as 20 + 60 + 90°, or the book's words in quotes")
    whole = Piece(plain, 0)
    if plain.strip().endswith(AT_ONCE):
        stages = [_joined(Piece(plain.rstrip()[: -len(AT_ONCE)], 0), iter(quoted))]
    elif "," in re.sub(r"\d,\d", "", plain):
        words = iter(quoted)
        stages = [_joined(piece, words) for piece in pieces(plain, r",(?!\d)|;")]
    else:
        words = iter(quoted)
        stages = [_one(piece, words) for piece in pieces(plain, r"\+")]
    if len(stages) > MOST_STAGES:
        raise refused(whole, f"{len(stages)} stages are more than any book has; write {MOST_STAGES} at most")
    return tuple(stages)


def _joined(piece: Piece, quoted: Iterable[str]) -> Stage:
    """One stage between commas: perhaps a torque and an angle turned at once after it."""
    cut = [Piece(one.text, piece.begin + one.begin) for one in pieces(piece.text, r"\+")]
    if len(cut) == 1:
        return _one(cut[0], quoted)
    torque, angle = (_one(cut[0], quoted), _one(cut[1], quoted)) if len(cut) == 2 else ("", "")
    if not isinstance(torque, dict) or not isinstance(angle, dict) or (torque["does"], angle["does"]) != ("torque", "angle"):
        raise refused(piece, "between commas a + joins one torque and one angle, such as 27 + 60°; put a comma between stages")
    return {**torque, "does": "torque_angle", "angle_deg": angle["angle_deg"]}


def _one(piece: Piece, quoted: Iterable[str]) -> Stage:
    said, times = _without_times(piece.text)
    stage = _plain(Piece(said, piece.begin), quoted)
    if times > 1 and isinstance(stage, dict):
        return {**stage, "passes": times}
    return stage


def _without_times(text: str) -> tuple[str, int]:
    for word, times in _AGAIN.items():
        if text.lower().endswith(f" {word}"):
            return text[: -len(word)].strip(), times
    return text, 1


def _plain(piece: Piece, quoted: Iterable[str]) -> Stage:
    said = piece.text.lower()
    if said and set(said) == {"\0"}:
        return next(iter(quoted)).strip() or "as the book says"
    if said in ("hand", "hand tight", "finger tight", "by hand"):
        return {"does": "hand"}
    turn = said.removeprefix("a ").removesuffix("s")
    if turn in _TURNS:
        return {"does": "angle", "angle_deg": _TURNS[turn]}
    for pattern, does, key in ((_WAIT, "wait", "minutes"), (_BACK, "loosen", "angle_deg"), (_ANGLE, "angle", "angle_deg")):
        found = pattern.fullmatch(said)
        if found:
            figure = found["figure"]
            return {"does": does, key: figure_in(Piece(figure, piece.begin + found.start("figure")))} if figure else {"does": does}
    if said in ("?", "not known"):
        return {"does": "torque"}
    return _torque(piece)


def _torque(piece: Piece) -> Stage:
    found = _TORQUE.fullmatch(piece.text)
    unit = _TORQUES.get((found["unit"] or "N·m").lower().strip()) if found else None
    if found is None or unit is None:
        raise refused(
            piece, f"“{piece.text[:30]}” cannot be read; write a torque (60), an angle (90°), hand, back 180, or the book's words in quotes"
        )
    figure = figure_in(Piece(found["figure"], piece.begin))
    if unit == "N·m":
        return {"does": "torque", "torque_nm": figure}
    return {"does": "torque", "torque_nm": round(figure * per_unit(unit), 3), "quoted": [{"value": figure, "unit": unit}]}


def write_stages(stages: Sequence[Stage]) -> str | None:
    """The same line in its one form; None of stages that say more than a line can."""
    said = [_said(stage) for stage in stages]
    if not said or any(one is None for one in said):
        return None
    joined = [isinstance(stage, dict) and stage["does"] == "torque_angle" for stage in stages]
    if not any(joined):
        return " + ".join(filter(None, said))
    return f"{said[0]} {AT_ONCE}" if len(said) == 1 else ", ".join(filter(None, said))


_LINE_KEYS = {
    "hand": set(),
    "torque": {"torque_nm", "quoted"},
    "torque_angle": {"torque_nm", "quoted", "angle_deg"},
    "angle": {"angle_deg"},
    "loosen": {"angle_deg"},
    "wait": {"minutes"},
}


def _said(stage: Stage) -> str | None:
    if isinstance(stage, str):
        return f"“{stage}”" if not re.search(r"[“”\"]", stage) else None
    does, passes = stage["does"], stage.get("passes", 1)
    given = {key for key, value in stage.items() if value not in (None, [], (), "")} - {"does", "passes"}
    again = next((f" {word}" for word, times in _AGAIN.items() if times == passes), "" if passes == 1 else None)
    if does not in _LINE_KEYS or given - _LINE_KEYS[does] or again is None:
        return None
    if does == "torque_angle" and not {"torque_nm", "angle_deg"} <= given:
        return None
    torque = _torque_said(stage)
    if torque is None:
        return None
    angle = f"{stage.get('angle_deg') or 0:g}"
    words = {
        "hand": "hand",
        "torque": torque,
        "torque_angle": f"{torque} + {angle}°",
        "angle": f"{angle}°",
        "loosen": f"back {angle}" if stage.get("angle_deg") else "back",
        "wait": f"wait {stage.get('minutes') or 0:g} min",
    }
    if does == "angle" and "angle_deg" not in given:
        return None
    return words[does] + again


def _torque_said(stage: dict[str, Any]) -> str | None:
    """A torque in the unit it was quoted in; None where it says more than the quoted figure."""
    if stage.get("torque_nm") is None:
        return "?"
    quoted = stage.get("quoted") or ()
    if not quoted:
        return f"{stage['torque_nm']:g}"
    one = quoted[0]
    exact = round(one["value"] * per_unit(one["unit"]), 3)
    return f"{one['value']:g} {one['unit']}" if len(quoted) == 1 and exact == stage["torque_nm"] else None
