"""Help where it is needed: what each question of the bench means, how it is done by hand, what goes wrong; and the words of the trade.

All of it is common practice told in our own words, with no source but the trade's; the maker's manual and local rules come first.
"""

from gurvo_core.help.book import HELP, Help, Topic, Word, topic_of

__all__ = ["HELP", "Help", "Topic", "Word", "topic_of"]
