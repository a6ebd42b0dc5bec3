"""The engine document: what the engine *is*. Start at ``document.py``; the cross-checks are in ``checks/``."""

__all__ = [
    "Adjustment",
    "Bank",
    "Camshaft",
    "CardLine",
    "Chamber",
    "Cranktrain",
    "Drive",
    "EngineDocument",
    "Fit",
    "FitSide",
    "Flank",
    "Follower",
    "GearStage",
    "HeadGasket",
    "HoleCircles",
    "Joint",
    "JointStage",
    "KeySlots",
    "KitPart",
    "Lash",
    "LashStop",
    "LeastGaps",
    "LiftProfile",
    "Lobe",
    "LoopStage",
    "Mark",
    "Need",
    "OffsetBushes",
    "PolynomialProfile",
    "Profile",
    "Select",
    "SizeClass",
    "SlottedSprocket",
    "Spring",
    "Sprocket",
    "SprocketTeeth",
    "Stage",
    "Thing",
    "TurnStop",
    "Valve",
    "ValveHead",
    "WorkStage",
    "WorkStep",
]

from gurvo_core.engine.adjustments import Adjustment, HoleCircles, KeySlots, OffsetBushes, SlottedSprocket, SprocketTeeth
from gurvo_core.engine.camshaft import Camshaft, Follower, Lobe, Valve
from gurvo_core.engine.card import CardLine, Flank
from gurvo_core.engine.chamber import Chamber, HeadGasket
from gurvo_core.engine.cranktrain import Bank, Cranktrain
from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.drive import Drive, GearStage, LoopStage, Sprocket, Stage
from gurvo_core.engine.fit import Fit, FitSide, Lash, LashStop, Select, SizeClass
from gurvo_core.engine.joint import Joint, JointStage
from gurvo_core.engine.marks import Mark
from gurvo_core.engine.profiles import LiftProfile, PolynomialProfile, Profile
from gurvo_core.engine.things import KitPart, Thing
from gurvo_core.engine.valves import LeastGaps, Spring, ValveHead
from gurvo_core.engine.work import Need, TurnStop, WorkStage, WorkStep
