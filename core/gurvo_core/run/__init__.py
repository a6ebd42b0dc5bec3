"""The run of work: the plan of one engine (``plan``), what its book forgets (``faults``); on the bench in ``job``."""

__all__ = ["Plan", "PlanStep", "has_run", "plan_of", "run_doubts", "run_faults"]

from gurvo_core.run.doubts import run_doubts
from gurvo_core.run.faults import run_faults
from gurvo_core.run.plan import Plan, PlanStep, has_run, plan_of
