"""What hangs on the wall, sticks on the trays and goes with the engine: check sheet with the kit, labels, first-start card."""

from collections.abc import Mapping

from django.template.loader import render_to_string
from django.utils import timezone

from engine.bridge import document_of
from gurvo_core.run.job.fields import stage_words
from gurvo_core.run.job.standing import parts_ready
from gurvo_core.run.plan import Plan
from gurvo_core.sentence import say
from press.pdf import pdf_of
from shop.letterhead import on_shops_paper
from shop.roles import shown_name
from work import bridge
from work.heads import head_now
from work.models import Engine
from work.record.drawing import stage_pictures
from work.record.first_start import first_start
from work.record.paper import ON_PAPER, square_code


def as_check_sheet(engine: Engine) -> bytes:
    """Return the run of work as PDF: the kit to tick, then every step with its box, done ones ticked."""
    return pdf_of(on_shops_paper(check_sheet_page(engine)))


def check_sheet_page(engine: Engine) -> str:
    """The same as a page of HTML."""
    ledger = bridge.ledger_of(engine)
    plan = ledger.folded.states["run"].plan
    makers = {entry.seq: entry.by for entry in ledger.entries}
    holds = {one.step.id for one in plan.steps if one.step.hold_point}
    steps = [
        {
            **_as_done(ledger, step.key, makers),
            "stage": step.stage,
            "title": say(step.title, ON_PAPER),
            "done": step.status == "done",
            "hold": step.key in holds,
            "more": _beside(plan, step.key),
        }
        for step in ledger.shown.steps
    ]
    ready = parts_ready(ledger.folded.states["run"])
    asked = [part for part in ledger.folded.document.kit if part.only_in is None or part.only_in in _options(engine)]
    kit = [(part, ready.get(part.id, "")) for part in asked]
    tools = dict.fromkeys(tool for one in plan.steps for tool in one.step.tools)
    shown = {"engine": engine, "steps": steps, "kit": kit, "tools": list(tools), "printed": timezone.localtime()}
    shown["shop_head"] = head_now().words
    pictures = stage_pictures(ledger.folded.document, ledger.shown.steps)
    for step in steps:
        step["picture"] = pictures.pop(str(step["stage"]), None)  # beside the first of its stage
    return render_to_string("work/check_sheet.html", shown)


def _as_done(ledger: bridge.Ledger, step_id: str, makers: Mapping[int, str]) -> dict[str, object]:
    """Who did a step and when, what it came to in each room, and who signed its hold point; as far as that stands.

    makers: who made each entry, by its place.
    """
    run = ledger.folded.states["run"]
    if step_id not in run.plan.by_id:
        return {}
    done = run.done.get(step_id)
    return {
        "by": done.by if done else "",
        "at": timezone.localtime(done.at) if done else None,
        "came_to": [say(words, ON_PAPER) for words in bridge.HOUSE.tells(ledger.folded, {step_id})],
        "signed_by": makers.get(done.signed, "") if done else "",
    }


FIRST = "The maker's manual and local rules come first."


def as_stand_card(engine: Engine, address: str) -> bytes:
    """Return the card that hangs at the stand: which engine, for whom, what to mind; its code leads to the bench.

    address: of the bench, as a telephone opens it.
    """
    folded = bridge.ledger_of(engine).folded
    shown = {
        "engine": engine,
        "order": folded.states["order"].said,
        "builder": shown_name(engine.builder),
        "cautions": list(folded.document.cautions)[:4] or [FIRST],
        "code": square_code(address),
    }
    return pdf_of(on_shops_paper(render_to_string("work/stand_card.html", shown)))


def as_parts_tags(engine: Engine, address: str) -> bytes:
    """Return tags for the trays of an engine: one for each part that goes back where it came from, and blank ones.

    address: of the bench, as a telephone opens it.
    """
    folded = bridge.ledger_of(engine).folded
    back = [
        {"title": part.name, "parts": ", ".join(part.places) or f"{part.count} of them"} for part in folded.document.kit if part.returns
    ]
    blank: list[dict[str, str]] = [{"title": "", "parts": ""}] * (4 - len(back) % 4)
    shown = {"engine": engine, "order": folded.states["order"].said, "tags": back + blank, "code": square_code(address)}
    return pdf_of(on_shops_paper(render_to_string("work/parts_tag.html", shown)))


def _beside(plan: Plan, step_id: str) -> str:
    """How tight, with which tools, and whether a picture is wanted, as the document says it."""
    planned = plan.by_id.get(step_id)
    if planned is None:
        return ""
    tight = stage_words(plan, planned.step) if planned.step.does == "tighten" else ""
    picture = f"picture: {planned.step.picture}" if planned.step.picture else ""
    return " · ".join(filter(None, [tight, ", ".join(planned.step.tools), picture]))


def as_first_start(engine: Engine) -> bytes:
    """Return the card that goes with the engine: priming, the first minutes, the early oil change with its day."""
    return pdf_of(on_shops_paper(first_start_page(engine)))


def first_start_page(engine: Engine) -> str:
    """The same as a page of HTML."""
    shown = {"engine": engine, **first_start(bridge.ledger_of(engine)), "shop_head": head_now().words}
    return render_to_string("work/first_start.html", shown)


def as_labels(engine: Engine, *, small: bool = False) -> bytes:
    """Return a label for every place of the parts that go back where they came from, each with a code of engine and place.

    On A4 to be cut, or one a page for a roll of small labels.
    """
    parts = [part for part in document_of(engine.revision_id).kit if part.returns]
    labels = [
        {"part": part.name, "place": place, "code": square_code(f"{engine.serial} {part.id} {place}")}
        for part in parts
        for place in part.places or [str(n) for n in range(1, part.count + 1)]
    ]
    return pdf_of(
        on_shops_paper(
            render_to_string("work/labels.html", {"engine": engine, "labels": labels, "small": small, "shop_head": head_now().words})
        )
    )


def _options(engine: Engine) -> frozenset[str]:
    return frozenset(bridge.ledger_of(engine).folded.states["run"].options.values())
