"""Everything there is to say of one bolt, without an engine: each figure with how it was come to and from where."""

__all__ = ["BoltAsked", "workings_of"]

from collections.abc import Iterator
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.errors import FigureError
from gurvo_core.joints.meaning import OF_PROOF, BoltFacts, generic_nm, lubrication_warning, meaning_of
from gurvo_core.joints.preload import FRICTION, Band, seat_of
from gurvo_core.joints.stiffness import MODULUS_N_MM2, BoltShape, Layer, bolt_n_mm, joint_n_mm, preload_by_angle_n
from gurvo_core.joints.strength import CLASSES, proof_load_n, strength_of
from gurvo_core.joints.thread import read_thread
from gurvo_core.joints.wrench import TORQUES, setting_nm
from gurvo_core.units import Unit, per_unit
from gurvo_core.workings import LEAST, Line

KN = 1000.0
Surface = Literal["dry", "oiled", "moly", "assembly lube", "threadlocker", "sealant"]
Material = Literal["steel", "cast iron", "aluminium", "magnesium"]


class BoltAsked(BaseModel):
    """One bolt, as somebody asks about it; what is left out is not worked out."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)

    thread: str = Field(max_length=40)
    property_class: str = Field(default="", max_length=10)
    threads: Surface = "oiled"
    head: Surface = "oiled"
    torque: float | None = Field(default=None, ge=LEAST, le=50_000)
    unit: Unit = "N·m"
    angle_deg: float | None = Field(default=None, ge=LEAST, le=1080)
    grip_mm: float | None = Field(default=None, ge=LEAST, le=1000)
    free_thread_mm: float = Field(default=0, ge=0, le=1000)
    material: Material = "steel"
    lever_mm: float | None = Field(default=None, ge=LEAST, le=3000)
    extension_mm: float | None = Field(default=None, ge=LEAST, le=2000)
    extension_deg: float = Field(default=0, ge=-180, le=180)


def workings_of(asked: BoltAsked) -> list[Line]:
    """Return what can be said of a bolt.

    Raises FigureError if the thread or the class is not known, or lengths do not fit.
    """
    if asked.property_class and asked.property_class not in CLASSES:
        raise FigureError("property_class", asked.property_class, f"classes known here are {', '.join(CLASSES)}")
    thread = read_thread(asked.thread)
    bolt = BoltFacts(
        thread=thread,
        seat=seat_of(thread),
        property_class=asked.property_class or None,
        thread_state=asked.threads,
        head_state=asked.head,
    )
    parts = (_geometry, _strength, _torque, _angle, _extension)
    return [line for part in parts for line in part(asked, bolt)]


def _geometry(asked: BoltAsked, bolt: BoltFacts) -> Iterator[Line]:
    thread = bolt.thread
    name = "ISO 724, ISO 261" if thread.family == "metric" else "ASME B1.1"
    yield Line(name="Thread", value=f"{asked.thread.strip()}, pitch {thread.pitch_mm:.4g} mm", formula="as its name says", source=name)
    less = "0.938194" if thread.family == "metric" else "0.974279"
    area = f"{thread.stress_area_mm2:.1f} mm²"
    yield Line(
        name="Stress area",
        value=area,
        formula=f"π/4 (d − {less} P)²",
        source="ISO 898-1" if thread.family == "metric" else "ASME B1.1",
    )
    least, most = FRICTION[asked.threads]
    words = f"{asked.threads} thread {least:g} to {most:g}, {asked.head} head {FRICTION[asked.head][0]:g} to {FRICTION[asked.head][1]:g}"
    yield Line(name="Friction", value=words, formula="a band, never a point", source="common practice, no source")


def _strength(_asked: BoltAsked, bolt: BoltFacts) -> Iterator[Line]:
    if bolt.property_class is None:
        return
    strength = strength_of(bolt.property_class, bolt.thread)
    load = proof_load_n(bolt.property_class, bolt.thread) / KN
    source = "ISO 898-1, from memory" if bolt.property_class[0].isdigit() else "SAE J429, from memory"
    formula = f"{strength.proof_n_mm2:.0f} N/mm² × stress area"
    yield Line(name="Proof load", value=f"{load:.1f} kN", formula=formula, source=source)
    generic = generic_nm(bolt)
    if generic is not None:
        formula = f"{100 * OF_PROOF:.0f} % of the proof load, middle of the friction band"
        yield Line(name="Generic torque", value=f"{generic:g} N·m", formula=formula, source="common practice, no source", look_again=True)


def _torque(asked: BoltAsked, bolt: BoltFacts) -> Iterator[Line]:
    if asked.torque is None:
        return
    torque_nm = asked.torque * per_unit(asked.unit)
    said = ", ".join(f"{torque_nm / per_unit(unit):.4g} {unit}" for unit in TORQUES)
    yield Line(name="The same torque", value=said, formula="1 lbf·ft = 1.35582 N·m, 12 lbf·in = 1 lbf·ft", source="NIST SP 811")
    meant = meaning_of(torque_nm, bolt)
    load = f"{meant.preload.least / KN:.1f} to {meant.preload.most / KN:.1f} kN"
    formula = "F = T / (0.15915 P + 0.57735 d2 μ + 0.5 D μ)"
    yield Line(name="Preload by torque", value=load, formula=formula, source="VDI 2230, from memory")
    if meant.tension_share and meant.combined_share:
        yield _share("Share of yield, tension alone", meant.tension_share, "F / stress area")
        yield _share("Share of yield, with torsion while it is turned", meant.combined_share, "√(σ² + 3 τ²)")
    for other in ("dry", "oiled"):
        warning = lubrication_warning(torque_nm, bolt, other)
        if warning:
            name = f"If it were {other}"
            yield Line(
                name=name, value=warning.split(";")[1].split(":")[0].strip(), formula="the same torque", source="as above", look_again=True
            )


def _share(name: str, share: Band, formula: str) -> Line:
    value = f"{100 * share.least:.0f} to {100 * share.most:.0f} %"
    return Line(name=name, value=value, formula=formula, source="VDI 2230, from memory", look_again=share.most > 1)


def _angle(asked: BoltAsked, bolt: BoltFacts) -> Iterator[Line]:
    if asked.grip_mm is None:
        return
    stiff = bolt_n_mm(BoltShape(thread=bolt.thread, grip_mm=asked.grip_mm, free_thread_mm=asked.free_thread_mm))
    clamped = joint_n_mm([Layer(thickness_mm=asked.grip_mm, modulus_n_mm2=MODULUS_N_MM2[asked.material])], bolt.seat)
    source = "textbook, from memory"
    yield Line(name="Stiffness of the bolt", value=f"{stiff / KN:.0f} kN/mm", formula="bars one after the other", source=source)
    yield Line(name=f"Stiffness of the {asked.material}", value=f"{clamped / KN:.0f} kN/mm", formula="cone of 30°", source=source)
    if asked.angle_deg is not None:
        load = preload_by_angle_n(asked.angle_deg, bolt.thread, bolt=stiff, joint=clamped) / KN
        formula = "P × angle/360 ÷ (1/bolt + 1/clamped), until yield"
        yield Line(name=f"Preload added by {asked.angle_deg:g}°", value=f"{load:.1f} kN", formula=formula, source=source)


def _extension(asked: BoltAsked, _bolt: BoltFacts) -> Iterator[Line]:
    if asked.torque is None or asked.lever_mm is None or asked.extension_mm is None:
        return
    setting = setting_nm(
        asked.torque * per_unit(asked.unit), lever_mm=asked.lever_mm, extension_mm=asked.extension_mm, at_deg=asked.extension_deg
    )
    value = f"{setting / per_unit(asked.unit):.4g} {asked.unit}"
    yield Line(name="Set the wrench to", value=value, formula="T × lever ÷ (lever + extension × cos angle)", source="lever arms")
