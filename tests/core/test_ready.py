"""How long work takes here and when it will be done. Every case was worked by hand on a calendar of 2026."""

import unittest
from datetime import UTC, datetime, time

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.run.ready import WorkingHours, own_minutes, ready_at

FRIDAY = datetime(2026, 11, 27, 10, 0, tzinfo=UTC)


class ReadyTests(unittest.TestCase):
    def test_days_and_week_ends(self):
        for now, minutes, hours, ready in (
            (FRIDAY, 60, WorkingHours(), "2026-11-27 11:00"),
            (FRIDAY, 6 * 60, WorkingHours(), "2026-11-27 16:00"),  # to the minute of closing
            (FRIDAY, 6 * 60 + 30, WorkingHours(), "2026-11-30 08:00"),
            (FRIDAY, 6 * 60 + 30, WorkingHours(days=(0, 1, 2, 3, 4, 5)), "2026-11-28 08:00"),
            (FRIDAY.replace(hour=5), 30, WorkingHours(), "2026-11-27 08:00"),  # before work begins
            (FRIDAY.replace(hour=20), 30, WorkingHours(), "2026-11-30 08:00"),  # after it ended
            (FRIDAY, 6 * 60 + 5 * 510 + 15, WorkingHours(), "2026-12-07 07:45"),  # a whole week of 8.5 hours between
        ):
            with self.subTest(now=now, minutes=minutes):
                self.assertEqual(ready_at(now, minutes, hours).strftime("%Y-%m-%d %H:%M"), ready)

    def test_a_shop_that_never_works_is_never_done(self):
        self.assertIsNone(ready_at(FRIDAY, 10, WorkingHours(begins=time(8), ends=time(8))))
        self.assertIsNone(ready_at(FRIDAY, 10, WorkingHours(days=())))

    @given(st.floats(0, 40_000), st.floats(0, 40_000))
    def test_more_work_is_never_done_sooner_and_always_within_hours(self, less, more):
        hours = WorkingHours()
        first, second = (ready_at(FRIDAY, minutes, hours) for minutes in sorted((less, more)))
        self.assertLessEqual(first, second)
        for at in (first, second):
            self.assertTrue(at.weekday() < 5 and hours.begins <= at.time() <= hours.ends)

    def test_the_median_is_believed_from_three_builds_on(self):
        taken = {"lay": [12.0, 9.0, 300.0], "turn": [4.0, 5.0], "lash": [10.0, 20.0, 30.0, 40.0]}
        self.assertEqual(own_minutes(taken), {"lay": 12.0, "lash": 25.0})
