"""Who signed with an account that was made the same day by somebody who worked on the engine: paper names both."""

from django.utils.timezone import localdate

from shop.models import DayLine
from shop.roles import shown_name
from work.bridge import HOUSE
from work.models import Engine, Entry

SIGNATURES = [name for name, kind in HOUSE.kinds.items() if kind.confirmed]


def same_day_signers(engine: Engine) -> list[str]:
    """A sentence for each such signature."""
    makers = set(Entry.objects.filter(engine=engine).values_list("by__username", flat=True))
    said = []
    for row in Entry.objects.filter(engine=engine, kind__in=SIGNATURES).select_related("by").order_by("seq"):
        made = DayLine.objects.filter(name="person", key=str(row.by_id)).order_by("seq").first()
        if made is not None and made.by in makers and localdate(made.at) == localdate(row.at):
            signed = f"Entry {row.seq} was signed by {shown_name(row.by)}, whose account {made.by} made on the same day"
            said.append(f"{signed}: the same person may have done the work and signed it.")
    return said
