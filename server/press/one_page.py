"""A first page that is one page: set closer, a step at a time, until it fits its sheet."""

import re
from collections.abc import Callable

FIRST = re.compile(r'<section class="first">.*?</section>', re.DOTALL)
STEPS = ("", "close", "closer", "closest")
FLOWING = "flowing"  # where even the closest does not fit, it goes on to the next page


def fitted(page: str, pages_of: Callable[[str], int]) -> str:
    """Return a page of HTML whose first section takes no more than its first sheet; as it is where it has none.

    pages_of: how many sheets a page of HTML takes.
    """
    first = FIRST.search(page)
    if first is None:
        return page
    head, body, _ = page.partition("<body>")
    alone = f"{head}{body}{first[0]}</body></html>"
    step = next((step for step in STEPS if pages_of(_set(alone, step)) == 1), FLOWING)
    return _set(page, step)


def _set(page: str, step: str) -> str:
    return page.replace("<body>", f'<body class="{step}">', 1)
