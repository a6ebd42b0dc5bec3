"""Any fit and any lash that a document may list: refused at its path, or measured to its end with nothing left over."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from demo.player import answer
from gurvo_core.errors import AskFirst, DocumentError
from gurvo_core.fits.job.paper import fit_lines
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build
from tests.engines import family_copy_with_run

ANY = settings(max_examples=30)
NAMES = st.lists(st.sampled_from(["front", "rear", "up", "across"]), max_size=2, unique=True)
LIMIT = st.none() | st.sampled_from([0.04, 0.06, 0.30])


@st.composite
def sides(draw):
    """Two sides, or a gap, each with its planes and axes."""

    def side(name, nominal):
        one = {"name": name, "planes": draw(NAMES), "axes": draw(NAMES), "condition": draw(st.sampled_from([None, "Caps torqued"]))}
        return one | ({"nominal_mm": nominal} if nominal else {})

    if draw(st.booleans()):
        return {"gap": side("gap", None)}
    return {"outer": side("bore", 60.1), "inner": side("pin", 60.0)}


@st.composite
def fits(draw):
    """One fit: places from the engine, by name or none, limits known or not, sizes to choose from."""
    own = draw(sides())
    fit = {"id": "drawn", "name": "Drawn", "least_mm": draw(LIMIT), "most_mm": draw(LIMIT), **own}
    fit |= draw(
        st.sampled_from(
            [
                {},
                {"at": "once"},
                {"at": "cylinders"},
                {"at": "rings", "count": 3},
                {"at": "mains", "count": 2},
                {"at": "cam_journals"},
                {"places": ["idler", "pump"]},
            ]
        )
    )
    if draw(st.booleans()):
        classes = [{"id": "A", "size_mm": 1.0}, {"id": "B", "size_mm": 1.01}]
        on = draw(st.sampled_from(["outer", "inner", "gap"]))
        fit["select"] = {"part": "washers", "on": on, "classes": classes, "measured_in": draw(st.sampled_from([None, "A"]))}
    return fit


class AnyFitTests(unittest.TestCase):
    def document(self, change):
        """A single whose bores are measured as drawn; None where the document is refused."""
        data = family_copy_with_run("wick-1")
        change(data)
        try:
            return read_document(data)
        except DocumentError as refused:
            self.assertTrue(all(fault.path and fault.sentence for fault in refused.faults))
            return None

    @ANY
    @given(fits(), st.booleans())
    def test_it_is_refused_at_its_path_or_measured(self, fit, is_guess):
        def change(data):
            data["fits"] = [fit]
            next(step for stage in data["stages"] for step in stage["steps"] if step["id"] == "bore-fit")["fits"] = ["drawn"]
            data["origins"] = {"/fits/0": {"is": "guess"}} if is_guess else {}

        document = self.document(change)
        if document is None:
            return
        build = Build(document).to("bore-fit")
        for _ in range(150):
            question = next_question(build.state)
            if question is None or not question.key.startswith("bore-fit"):
                break
            if question.kind == "fit_decided":
                where = {"step": "bore-fit", "fit": "drawn", "place": question.place}
                build.enter("fit_decided", **where, decision="accepted", reason="as drawn", by=LEAD, because="as drawn")
                continue
            self.answer(build, question)
        self.assertIn("bore-fit", build.folded.states["run"].done)
        now = build.folded.states["fits"]
        spots = len(now.book.fits["drawn"].spots)
        self.assertGreaterEqual(len(list(fit_lines(now))), spots)
        self.assertEqual(len(HOUSE.papers(build.folded)[-1].tables[0].rows), len(now.book.fits["drawn"].places))
        if is_guess:
            self.assertEqual({one.judged.verdict for one in now.places["drawn"].values()}, {"no limit known"})
        self.assertEqual(HOUSE.show(HOUSE.fold(document, build.folded.entries)).model_dump(), build.state.model_dump())

    @ANY
    @given(
        st.sampled_from(["screw", "shim", "hydraulic"]),
        st.sampled_from([(None, None), (0.06, 0.1), (0.1, 0.1)]),
        st.sampled_from([None, 0.75]),
        st.sampled_from(["hot", "cold"]),
        st.floats(0, 60),
    )
    def test_any_lash_is_set_to_its_end(self, set_by, limits, pitch, warmth, margin):
        def change(data):
            for lash in data["lash"]:
                lash |= {"set_by": set_by, "least_mm": limits[0], "most_mm": limits[1], "engine_is": warmth, "margin_deg": margin}
                lash |= {"pitch_mm": pitch, "turns": 0.5 if set_by == "hydraulic" else None}

        document = self.document(change)
        if document is None:
            return
        build = Build(document).to("lash")
        for _ in range(30):
            question = next_question(build.state)
            if question is None or not question.key.startswith("lash") or question.key == "lash-look":
                break
            if question.kind == "lash_shims":
                shims = dict.fromkeys(build.folded.states["lash"].reads, "2.50")
                build.enter("lash_shims", step="lash", shims=shims)
            elif question.kind == "lash_reading" and question.is_again:
                self.accept(build)
            else:
                self.answer(build, question)
            if not build.folded.states["lash"].ready:
                continue
            if question.kind == "lash_shims":
                self.accept(build)
        self.assertIn("lash", build.folded.states["run"].done)
        self.assertEqual(len(HOUSE.papers(build.folded)[-1].tables[0].rows), 2)

    def answer(self, build, question):
        """As somebody careful, who says why where he is asked."""
        try:
            build.answer(question)
        except AskFirst:
            build.enter(**answer(build.state, question, build.engine), because="as drawn", by=LEAD)

    def accept(self, build):
        """What cannot be set any better is the lead's."""
        now = build.folded.states["lash"]
        for name, read in now.reads.items():
            if read.verdict in ("out", "can't tell") and name not in now.decided:
                build.enter("lash_decided", step="lash", valve=name, reason="as drawn", by=LEAD, because="as drawn")
