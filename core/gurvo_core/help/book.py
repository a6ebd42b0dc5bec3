"""The whole of the help, and which topic belongs to a question."""

__all__ = ["HELP", "Help", "Topic", "Word", "topic_of"]

from pydantic import BaseModel

from gurvo_core.help import measuring, order_of_work
from gurvo_core.help.topic import Word
from gurvo_core.help.words import WORDS
from gurvo_core.ledger import Topic
from gurvo_core.work.rooms import ROOMS

STEP = "step_done"
# a step of these that asks for nothing but whether it was done is about what its readings would be about
ALIKE = {
    "tighten": "pull",
    "measure": "fit_reading",
    "lash": "lash_reading",
    "turn_over": "turn_seen",
    "set_up_wheel": "wheel_setup",
    "find_tdc": "tdc_reading",
    "degree": "lift_reading",
}


class Help(BaseModel):
    """Every topic, by the question it belongs to, and the words of the trade."""

    topics: dict[str, Topic]
    words: list[Word]


_OF_KINDS = tuple(kind.topic for room in ROOMS for kind in room.kinds if kind.topic)
_TOPICS = {topic.id: topic for topic in (*order_of_work.TOPICS, *measuring.TOPICS, *_OF_KINDS)}
HELP = Help(topics={**_TOPICS, **{f"{STEP}:{does}": _TOPICS[topic] for does, topic in ALIKE.items()}}, words=list(WORDS))


def topic_of(kind: str, does: str = "") -> Topic | None:
    """Return the topic of a kind of question; of a step to be done, by what it does."""
    return HELP.topics.get(f"{kind}:{does}" if kind == STEP else kind)
