"""Places from a photo: from points that are worked out the other way round, leaning cameras, and what is refused."""

from math import hypot
from unittest import TestCase

from hypothesis import assume, given
from hypothesis import strategies as st

from gurvo_core.writer.photo import KnownDistance, PhotoMarks, PointedAxis, read_photo

FRONT = {"drive": {"shafts": [{"id": "crank", "kind": "crank"}, {"id": "cam", "kind": "camshaft", "name": "Cam"}]}}
far = st.floats(-400, 400)
scales = st.floats(0.05, 2)


def seen(x_mm, y_mm, across, upright):
    """Where a place on the engine is seen: the crank at (1000, 800), y down."""
    return 1000 + x_mm / across, 800 - y_mm / upright


def distance(a, b, across, upright):
    (ax, ay), (bx, by) = seen(*a, across, upright), seen(*b, across, upright)
    return KnownDistance(ax=ax, ay=ay, bx=bx, by=by, mm=hypot(b[0] - a[0], b[1] - a[1]))


def axes(across, upright, **places):
    return [PointedAxis(shaft=name, x=x, y=y) for name, place in places.items() for x, y in [seen(*place, across, upright)]]


class PhotoTests(TestCase):
    @given(far, far, scales, st.floats(0.85, 1.15))
    def test_a_camera_that_leans_is_put_right_by_two_distances(self, x, y, across, lean):
        """Property: whatever the scale and the lean, places come back to the tenth they are rounded to."""
        upright = across * lean
        known = [distance((-80, 0), (80, 10), across, upright), distance((0, -50), (10, 90), across, upright)]
        found = read_photo(PhotoMarks(known=known, axes=axes(across, upright, crank=(0, 0), cam=(x, y))), FRONT)
        self.assertEqual(found.wrong, "")
        cam = next(one for one in found.places if one.shaft == "cam")
        self.assertAlmostEqual(cam.x_mm, x, delta=0.0501)
        self.assertAlmostEqual(cam.y_mm, y, delta=0.0501)
        self.assertEqual([edit.at for edit in found.edits], ["/drive/shafts/cam/x_mm", "/drive/shafts/cam/y_mm"])
        self.assertEqual({edit.source for edit in found.edits}, {"measured"})

    @given(far, far, scales)
    def test_one_distance_gives_one_scale(self, x, y, across):
        assume(hypot(x, y) > 2 * across)  # nearer than that the two points lie on each other
        marks = PhotoMarks(known=[distance((0, 0), (x, y), across, across)], axes=axes(across, across, crank=(0, 0), cam=(x, y)))
        cam = read_photo(marks, FRONT).places[1]
        self.assertAlmostEqual(hypot(cam.x_mm, cam.y_mm), hypot(x, y), delta=0.08)

    def test_what_does_not_fit_is_said(self):
        good = distance((0, 0), (100, 0), 0.5, 0.5)
        twice = good.model_copy(update={"mm": 150})
        leaning = distance((0, 0), (0, 100), 0.5, 0.8)
        same = good.model_copy(update={"bx": good.ax, "by": good.ay})
        pointed = axes(0.5, 0.5, crank=(0, 0), cam=(0, 90))
        for known, at, says in (
            ([], pointed, "two places whose distance"),
            ([same], pointed, "lie on each other"),
            ([good, twice], pointed, "27% apart"),
            ([good, leaning], pointed, "do not fit each other"),
            ([good], pointed[1:], "crank's axis"),
            ([good], pointed[:1], "another shaft"),
        ):
            with self.subTest(says):
                found = read_photo(PhotoMarks(known=known, axes=at), FRONT)
                self.assertIn(says, found.wrong)
                self.assertEqual(found.edits, [])

    def test_how_it_was_taken_is_said(self):
        flat = [distance((0, 0), (100, 0), 0.5, 0.5), distance((0, 0), (0, 100), 0.5, 0.5)]
        self.assertEqual(read_photo(PhotoMarks(known=flat, axes=[]), FRONT).said, ["The distances agree."])
        leaning = [distance((0, 0), (100, 0), 0.5, 0.55), distance((0, 0), (0, 100), 0.5, 0.55)]
        self.assertIn("9.1%", read_photo(PhotoMarks(known=leaning, axes=[]), FRONT).said[0])
        self.assertIn("straight on", read_photo(PhotoMarks(known=flat[:1], axes=[]), FRONT).said[0])
