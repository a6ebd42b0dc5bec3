"""Engine documents to begin with: invented engines that ship with the app, from one that is timed by marks to one with every figure."""

__all__ = ["examples", "take_example"]

import json
from functools import cache
from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import User
from django.http import Http404

from engine.models import Revision
from engine.schemas import ExampleRow
from engine.services import import_text

REMARK = "an example to learn by; no engine was ever made to it"


@cache
def examples() -> list[ExampleRow]:
    """Return all of them, the shortest document first."""
    files = sorted(Path(settings.EXAMPLES).glob("*.json"), key=lambda file: file.stat().st_size)
    said = [json.loads(file.read_text("utf-8"))["identity"] for file in files]
    return [ExampleRow(code=own["family"], name=own["name"], layout=own["layout"], fuel=own["fuel"]) for own in said]


def take_example(code: str, by: User) -> Revision:
    """Take one in by the same door as any document."""
    if not any(one.code == code for one in examples()):
        raise Http404
    return import_text((Path(settings.EXAMPLES) / f"{code}.json").read_text("utf-8"), remark=REMARK, by=by)
