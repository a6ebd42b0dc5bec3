"""Words that are wider than what they stand in, broken where they have to be.

Left to the layout, every letter of every cell is weighed as a place to break: a record takes four times as long.
"""

import re

LONGEST = 24  # letters; a longer word may be broken after as many
_TEXT = re.compile(r"(?<=>)[^<>]+(?=<)")
_LONG = re.compile(rf"(?:&[#\w]+;|[^\s&]){{{LONGEST}}}(?=[^\s&]|&)")


def breakable(page: str) -> str:
    """Return a page of HTML whose long words may be broken; tags, styles and whatever is short stay as they are."""
    head, begins, body = page.partition("<body")
    if not begins:
        return page
    return head + begins + _TEXT.sub(lambda text: _LONG.sub(r"\g<0><wbr>", text[0]), body)
