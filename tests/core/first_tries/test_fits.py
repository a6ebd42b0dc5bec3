"""What a reader would try first of the functions of ``fits``, each held to its answer."""

import unittest

from gurvo_core.engine.chamber import Chamber, HeadGasket
from gurvo_core.engine.fit import Fit, FitSide
from gurvo_core.fits.chamber import chamber_figures
from gurvo_core.fits.faults import fit_faults
from gurvo_core.fits.job.book import PlacedFit, fits_book
from gurvo_core.fits.job.entries import FitReading, FitsReady
from gurvo_core.fits.job.figures import reading_mm, reading_si, ready_of, typed_c
from gurvo_core.fits.job.intake import intake_of
from gurvo_core.fits.job.kept import figures_kept, pieces_taken
from gurvo_core.fits.job.sheet import fit_sheet
from gurvo_core.fits.job.state import begin_fits, spots_left
from gurvo_core.fits.job.whatif import ChamberAsked, chamber_view
from gurvo_core.fits.places import fit_spots
from gurvo_core.fits.settle import brings_in
from gurvo_core.fits.slips import temperature_slip
from gurvo_core.uncertainty import Estimate
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_chamber_figures(self):
        figures = chamber_figures(Chamber(head_cm3=50), HeadGasket(id="a", squeezed_mm=1.2), bore_mm=86, stroke_mm=86, proud_mm=-0.2)
        self.assertEqual((round(figures.ratio, 2), round(figures.squish_mm, 2)), (9.59, 1.4))

    def test_fit_faults(self):
        self.assertEqual(fit_faults(quern_4()), [])

    def test_fits_book(self):
        self.assertEqual(dict(fits_book(quern_4()).steps), {})

    def test_typed_c(self):
        self.assertEqual((typed_c("21,5"), typed_c(None)), (21.5, None))

    def test_ready_of(self):
        body = FitsReady(kind="fits_ready", step="x", fit="f", side="gap", part_c="21.5")
        self.assertEqual(ready_of(body, 1, FitSide(name="gap"), None).read_with.part_c, 21.5)

    def test_reading_mm(self):
        where = {"step": "x", "fit": "f", "place": "main 1", "side": "outer"}
        body = FitReading(kind="fit_reading", **where, reading={"text": "+3", "unit": "µm"}, from_nominal=True)
        self.assertEqual(reading_mm(body, None, 58.0), 58.003)

    def test_reading_si(self):
        body = FitReading(kind="fit_reading", step="x", fit="f", place="it", side="gap", reading={"text": "0.14", "unit": "mm"})
        self.assertEqual(reading_si(body, None, None), {"read_mm": 0.14, "size_mm": 0.14})

    def test_intake_of(self):
        fit = PlacedFit(document=quern_4(), fit=Fit(id="f", name="Float", gap={"name": "gap"}), is_guessed=False)
        self.assertEqual(
            intake_of(begin_fits(quern_4()), fit, "x", "figures").not_taken[0].why_not,
            "a sheet has a first row that names its columns, and rows below",
        )

    def test_figures_kept(self):
        self.assertEqual(figures_kept(begin_fits(quern_4())), [])

    def test_pieces_taken(self):
        self.assertEqual(pieces_taken(begin_fits(quern_4())), {})

    def test_fit_sheet(self):
        fit = PlacedFit(document=quern_4(), fit=Fit(id="f", name="Float", gap={"name": "gap"}), is_guessed=False)
        self.assertEqual(fit_sheet(begin_fits(quern_4()), fit, "x").lines[0].cells, [None])

    def test_begin_fits(self):
        self.assertEqual(dict(begin_fits(quern_4()).readings), {})

    def test_spots_left(self):
        fit = PlacedFit(document=quern_4(), fit=Fit(id="f", name="Float", gap={"name": "gap"}), is_guessed=False)
        self.assertEqual(len(spots_left(begin_fits(quern_4()), fit)), 1)

    def test_chamber_view(self):
        self.assertTrue(chamber_view(begin_fits(quern_4()), ChamberAsked()) is None)

    def test_fit_spots(self):
        side = {"name": "bore", "planes": ("front", "rear"), "axes": ("up", "across")}
        fit = Fit(id="m", name="Mains", at="mains", count=5, outer=side, inner={"name": "journal"})
        self.assertEqual((len(fit_spots(quern_4(), fit)), fit_spots(quern_4(), fit)[1].key), (25, "main 1|outer|front|across"))

    def test_brings_in(self):
        self.assertEqual(
            [way.words for way in brings_in(Estimate(value=0.18, u=0.005), (0.25, 0.45), wanted_mm=0.35, is_filed=True)],
            ["It is {fine:0.0700} too tight.", "File the ring by {fine:0.1700} and read it again."],
        )

    def test_temperature_slip(self):
        self.assertEqual(
            (temperature_slip(215), temperature_slip(21.5)), ("215 °C is no temperature of a part in the shop: did you mean 21.5?", "")
        )
