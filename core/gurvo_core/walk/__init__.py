"""A robot builder that goes through an engine's run of work: it answers what is asked (``answers``) until the record is signed, or says
where it can go no further (``robot``); one that makes mistakes (``mistakes``). A document is walked when it is checked.
"""

__all__ = [
    "MISTAKES",
    "Robot",
    "Shelf",
    "Walked",
    "mistake_of",
    "next_question",
    "right_answer",
    "walk_document",
    "walk_right",
    "walk_wrong",
]

from gurvo_core.walk.answers import next_question, right_answer
from gurvo_core.walk.checked import Walked, walk_document
from gurvo_core.walk.mistakes import MISTAKES, mistake_of
from gurvo_core.walk.robot import Robot
from gurvo_core.walk.shelf import Shelf
from gurvo_core.walk.whole import walk_right, walk_wrong
