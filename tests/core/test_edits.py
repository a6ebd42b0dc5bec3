"""Edits by hand, one by one: what each does, what it says on the tape, and why it may find no place."""

import json
import unittest
from copy import deepcopy
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.writer.draft import Draft, Numbered, written
from gurvo_core.writer.edits import NoPlace, place_of, read_edit
from gurvo_core.writer.proposals import FromBench, proposals_for
from gurvo_core.writer.tables import COLUMNS, read_table
from gurvo_core.writer.tape import tape_words

BASE = {
    "identity": {"name": "Found 2"},
    "joints": [{"id": "head", "name": "Head bolts", "stages": ["40"]}, {"id": "sump", "name": "Sump screws"}],
    "drive": {"wheels": [{"id": "crank", "name": "Crank wheel", "teeth": None}]},
    "lash": [{"valve": "intake"}, {"valve": "exhaust"}],
    "stages": [
        {"id": "a", "title": "First", "steps": [{"id": "one", "says": "One", "does": "do"}, {"id": "two", "says": "Two", "does": "do"}]},
        {"id": "b", "title": "Last", "steps": [{"id": "end", "says": "End", "does": "do", "minutes": 10}]},
    ],
}


def after(*edits):
    return written(Draft(BASE, [Numbered(n, read_edit(edit)) for n, edit in enumerate(edits)]))


def steps(found, stage):
    return [one["id"] for one in next(each for each in found.document["stages"] if each["id"] == stage)["steps"]]


class EditsTests(unittest.TestCase):
    def test_set_by_ids_by_number_and_where_nothing_was(self):
        found = after(
            {"does": "set", "at": "/joints/head/stages", "value": ["60"]},
            {"does": "set", "at": "/lash/#1/least_mm", "value": 0.2},
            {"does": "set", "at": "/sides/intake", "value": "left"},
            {"does": "set", "at": "/drive/wheels/crank/teeth", "value": 22, "source": "counted"},
        )
        self.assertEqual(found.lost, {})
        self.assertEqual(found.document["joints"][0]["stages"], ["60"])
        self.assertEqual(found.document["lash"][1], {"valve": "exhaust", "least_mm": 0.2})
        self.assertEqual(found.document["sides"], {"intake": "left"})
        self.assertEqual(found.document["origins"], {"/drive/wheels/0/teeth": {"is": "measured", "note": "counted"}})

    def test_members_are_put_in_moved_and_taken_out(self):
        new = {"id": "new", "says": "New", "does": "do"}
        put = {"does": "add", "to": "/stages/a/steps", "value": new}
        self.assertEqual(steps(after(put), "a"), ["one", "two", "new"])
        self.assertEqual(steps(after({**put, "after": ""}), "a"), ["new", "one", "two"])
        self.assertEqual(steps(after({**put, "after": "one"}), "a"), ["one", "new", "two"])
        self.assertEqual(steps(after({"does": "move", "at": "/stages/a/steps/two", "after": ""}), "a"), ["two", "one"])
        across = after({"does": "move", "at": "/stages/a/steps/one", "to": "/stages/b/steps", "after": "end"})
        self.assertEqual((steps(across, "a"), steps(across, "b")), (["two"], ["end", "one"]))
        self.assertEqual(steps(after({"does": "remove", "at": "/stages/a/steps/one"}), "a"), ["two"])
        self.assertNotIn("lash", after({"does": "remove", "at": "/lash"}).document)

    def test_what_finds_no_place_is_said_and_changes_nothing(self):
        lost = {
            "“gone” is not there any more": {"does": "set", "at": "/joints/gone/stages", "value": []},
            "“five” is not there any more": {"does": "remove", "at": "/joints/head/five"},
            "“head” is there already": {"does": "add", "to": "/joints", "value": {"id": "head"}},
            "what it would be put into is no list": {"does": "add", "to": "/identity/name", "value": 1},
            "only members of a list are moved": {"does": "move", "at": "/identity/name"},
            "nothing lies below “first”": {"does": "set", "at": "/identity/name/first/word", "value": 1},
            "“nobody” is not there any more": {"does": "move", "at": "/stages/a/steps/one", "after": "nobody"},
        }
        for why, edit in lost.items():
            with self.subTest(why):
                found = after(edit)
                self.assertEqual((found.document, found.lost), (BASE, {0: why}))

    def test_a_base_is_never_changed_itself(self):
        kept = deepcopy(BASE)
        after({"does": "set", "at": "/identity/name", "value": "Other"}, {"does": "remove", "at": "/joints/head"})
        self.assertEqual(BASE, kept)

    @given(
        st.sampled_from(["/joints/head/x", "/identity/y", "/stages/a/steps/one/why", "/new/z"]),
        st.one_of(st.none(), st.integers(), st.text()),
    )
    def test_what_was_set_stands_there(self, at, value):
        """Property, of any value; set twice it is as set once."""
        edit = {"does": "set", "at": at, "value": value}
        found = after(edit).document
        group, key = place_of(found, at)
        self.assertEqual(group[key], value)
        self.assertEqual(after(edit, edit).document, found)

    def test_a_place_beside_a_list_or_a_word_is_none(self):
        for pointer in ("/joints/#7/name", "/joints/head/name/x", "/joints/#x"):
            with self.assertRaises(NoPlace):
                place_of(deepcopy(BASE), pointer)


class FrozenTests(unittest.TestCase):
    def test_edits_of_the_first_version_are_read_for_ever(self):
        kept = json.loads((Path(__file__).parents[1] / "frozen" / "draft-edits-1.json").read_text("utf-8"))
        found = written(Draft(None, [Numbered(n, read_edit(edit)) for n, edit in enumerate(kept)]))
        self.assertEqual(found.lost, {})
        self.assertEqual([read_edit(edit).model_dump(mode="json") for edit in kept], kept)
        document = found.document
        self.assertEqual((document["identity"]["name"], document["running_direction"]), ("Bracken 4", None))
        self.assertEqual(document["drive"]["wheels"][0]["teeth"], 22)
        self.assertEqual([wheel["wheel"] for wheel in document["drive"]["stages"][0]["path"]][1:3], ["idler-wheel", "exhaust-wheel"])
        turn = next(stage for stage in document["stages"] if stage["id"] == "turn")
        self.assertEqual(turn["steps"][0]["says"], "Look behind the pump")
        self.assertEqual(document["joints"][-1]["id"], "sump")


class TapeTests(unittest.TestCase):
    def test_each_edit_in_a_few_words(self):
        wanted = (
            ({"does": "set", "at": "/stages/a/steps/one/says", "value": "Look"}, ("One, says", "Look")),
            ({"does": "set", "at": "/joints/head/fasteners", "value": None}, ("Head bolts, fasteners", "not known")),
            ({"does": "set", "at": "/joints/head/fasteners", "value": 10, "source": "book"}, ("Head bolts, fasteners", "10, book")),
            ({"does": "add", "to": "/stages/a/steps", "value": {"id": "x", "says": "Look behind"}}, ("First, steps", "added: Look behind")),
            ({"does": "remove", "at": "/joints/sump"}, ("joints, Sump screws", "taken out")),
            ({"does": "move", "at": "/stages/a/steps/two"}, ("steps, Two", "moved")),
            ({"does": "clear", "question": "fuel"}, ("fuel", "open again")),
            ({"does": "answer", "question": "teeth.crank", "text": "22", "source": "counted"}, ("teeth, crank", "22, counted")),
        )
        for edit, words in wanted:
            self.assertEqual(tuple(tape_words(read_edit(edit), BASE, {})), words)

    def test_a_long_value_is_cut_short(self):
        edit = read_edit({"does": "set", "at": "/cautions", "value": ["x" * 400]})
        self.assertLessEqual(len(tape_words(edit, BASE, {}).said), 60)


class ProposalsTests(unittest.TestCase):
    def proposed(self, minutes=None, **bench):
        told = FromBench(**{"engine": "E-1", "found": {}, "card": None, "left_out": {}, **bench})
        return {one.edit.at: one for one in proposals_for(BASE, [told], minutes or {})}

    def test_only_what_the_draft_has_and_leaves_open_is_proposed(self):
        found = {"/drive/wheels/crank/teeth": 22, "/drive/wheels/cam/teeth": 44, "/identity/name": "Other", "/nowhere/at/all": 1}
        self.assertEqual(list(self.proposed(found=found)), ["/drive/wheels/crank/teeth"])
        self.assertEqual(self.proposed(found=found)["/drive/wheels/crank/teeth"].engine, "E-1")

    def test_a_draft_of_any_shape_is_proposed_to_or_not(self):
        told = FromBench("E-1", {"/joints/head/fasteners": 4}, None, {"one": "x"})
        for odd in (
            {},
            {"stages": 7},
            {"stages": [{"steps": 3}, 4]},
            {"joints": "many"},
            {"stages": [{"id": "a", "steps": [{"id": "end", "minutes": "x"}]}]},
        ):
            kept = deepcopy(odd)
            proposals_for(odd, [told], {"end": 3.0})
            self.assertEqual(odd, kept)  # nothing is made on the way

    def test_a_step_left_out_with_its_reason_and_none_that_is_not_there(self):
        said = self.proposed(left_out={"two": "it has none", "never": "x"})
        self.assertEqual({at: one.said for at, one in said.items()}, {"/stages/a/steps/two": "left out: it has none"})

    def test_minutes_where_they_tell_something(self):
        self.assertEqual(list(self.proposed(minutes={"end": 11})), [])
        said = self.proposed(minutes={"end": 25.4, "one": 3.2})
        self.assertEqual(
            {at: one.edit.value for at, one in said.items()}, {"/stages/b/steps/end/minutes": 25, "/stages/a/steps/one/minutes": 3}
        )

    def test_a_card_that_was_measured(self):
        card = [{"camshaft": "cam", "valve": "intake", "lift_mm": 1.0, "opens_deg": 5.0, "closes_deg": 40.0}]
        self.assertEqual(self.proposed(card=card)["/cam_card"].edit.value, card)


def rows_of(kind, text, document=None):
    return read_table(kind, text, document or {}).rows


class TablesTests(unittest.TestCase):
    def test_each_sort_in_each_way_of_cutting_cells(self):
        wanted = {"id": "sump", "name": "Sump", "fasteners": 14, "stages": [{"does": "torque", "torque_nm": 10}], "thread": "M6"}
        for line in ("Sump\t14\t10\tM6", "Sump; 14; 10; M6", "Sump | 14 | 10 | M6", "Sump, 14, 10, M6", '"Sump", "14", 10, M6'):
            with self.subTest(line):
                (row,) = rows_of("joints", line)
                self.assertEqual((row.value, row.wrong), (wanted, ""))
        self.assertEqual(rows_of("fits", "End float; 0.1-0.2; dial")[0].value["read_by"], ["dial"])
        self.assertEqual(rows_of("fits", "Ring gap; > 8 thou")[0].value, {"id": "ring-gap", "name": "Ring gap", "least_mm": 0.2032})
        self.assertEqual(rows_of("kit", "shims; 16; back")[0].value, {"id": "shims", "name": "shims", "count": 16, "returns": True})

    def test_a_heading_is_none_and_names_stay_apart(self):
        rows = rows_of("joints", "Name;how many\nMain caps;10\n\nMain caps;4", {"joints": [{"id": "main-caps"}]})
        self.assertEqual([row.value["id"] for row in rows], ["main-caps-2", "main-caps-3"])
        self.assertEqual([row.line for row in rows], [2, 4])

    def test_what_cannot_be_read_is_said_at_its_cell(self):
        wrong = {
            ("joints", "Sump; many"): (1, "is no number of bolts"),
            ("joints", "Sump; 4; tight"): (2, "cannot be read"),
            ("joints", "; 4"): (0, "begins with a name"),
            ("joints", "Sump; 4; 10; M6; more"): (4, "there are 5 cells"),
            ("fits", "Gap; wide"): (1, "no pair of limits"),
            ("fits", "Gap; < 1; ruler"): (2, "no gauge for this"),
            ("kit", "shims; none"): (1, "no number of parts"),
            ("kit", "shims; 4; old"): (2, "says neither"),
            ("lash", "rocker; 0.2"): (0, "no sort of valve"),
            ("lash", "intake"): (1, "write clearance"),
            ("lash", "intake; 0.2 by feel"): (1, "by screw"),
            ("tools", "Nothing; bar"): (0, "no step says"),
        }
        for (kind, line), (column, says) in wrong.items():
            with self.subTest(line):
                (row,) = rows_of(kind, line)
                self.assertEqual((row.value, row.column), (None, column))
                self.assertIn(says, row.wrong.lower())

    @given(st.sampled_from(sorted(COLUMNS)), st.text(alphabet="ab1 ;|,\t\n\"'x°+.-", max_size=80))
    def test_whatever_is_pasted_is_read_or_said(self, kind, text):
        """Property: each row is a member with an id of its own, or says what is wrong with it."""
        table = read_table(kind, text, {})
        if kind == "profiles":
            self.assertEqual(bool(table.edits), table.wrong == "")
            return
        ids = [row.value["id"] for row in table.rows if row.value and kind not in ("lash", "tools")]
        self.assertEqual(len(set(ids)), len(ids))
        self.assertTrue(all((row.value is None) == bool(row.wrong) for row in table.rows))
        self.assertEqual(bool(table.wrong), any(row.wrong for row in table.rows))

    def test_clearances_take_the_place_of_what_was_said_of_the_same_valves(self):
        before = {"lash": [{"valve": "intake", "set_by": "screw", "pitch_mm": 1.0}, {"valve": "exhaust", "set_by": "screw"}]}
        (edit,) = read_table("lash", "valves;clearance\nin;0.15-0.20 by shim, hot", before).edits
        self.assertEqual(edit.at, "/lash")
        self.assertEqual([(one["valve"], one["set_by"]) for one in edit.value], [("intake", "shim"), ("exhaust", "screw")])
        self.assertEqual((edit.value[0]["most_mm"], edit.value[0]["engine_is"], edit.value[0]["pitch_mm"]), (0.2, "hot", 1.0))

    def test_tools_find_their_step_by_what_it_says(self):
        run = {"stages": [{"id": "top", "steps": [{"id": "head", "says": "Head bolts"}]}]}
        (edit,) = read_table("tools", "head bolts; angle gauge, long bar", run).edits
        self.assertEqual((edit.at, edit.value), ("/stages/top/steps/head/tools", ["angle gauge", "long bar"]))

    def test_a_lift_table_of_ten_thousand_cells_is_a_profile_or_says_why_not(self):
        lobe = "\n".join(f"{deg}\t{max(0.0, 8 - (deg / 8) ** 2):.4f}" for deg in range(-30, 31))
        table = read_table("profiles", f"intake lobe\n{lobe}", {"profiles": [{"id": "intake-lobe"}]})
        self.assertEqual((table.wrong, table.edits[0].to, table.edits[0].value["id"]), ("", "/profiles", "intake-lobe-2"))
        self.assertEqual((len(table.rows), max(table.edits[0].value["lobe_lift_mm"])), (61, 8.0))
        many = "\n".join(f"{n / 100}\t{n % 7}" for n in range(5000))
        self.assertTrue(read_table("profiles", many, {}).wrong)
        self.assertEqual(read_table("profiles", many, {}).edits, [])
