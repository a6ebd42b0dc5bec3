"""Photographs of the demo, drawn: no engine was before any camera. Metal, oil and a little noise, so that they look like a bench's."""

from collections.abc import Callable
from functools import partial
from io import BytesIO
from math import cos, pi, sin

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

WIDE, HIGH = 1600, 1200
STEEL, OIL, CAST, PAINT = "#8d9093", "#3a3125", "#6c6f6b", "#e8e2c8"


def photo(draw: Callable[[ImageDraw.ImageDraw], None], seed: int) -> bytes:
    """Return a picture as a telephone would hand it over."""
    made = Image.new("RGB", (WIDE, HIGH), CAST)
    draw(ImageDraw.Draw(made))
    made = made.filter(ImageFilter.GaussianBlur(1.6))
    grain = np.random.default_rng(seed).normal(0, 9, (HIGH, WIDE, 1))
    light = np.linspace(18, -22, WIDE)[None, :, None] + np.linspace(10, -14, HIGH)[:, None, None]
    lit = np.clip(np.asarray(made, dtype=np.float64) + grain + light, 0, 255).astype(np.uint8)
    written = BytesIO()
    Image.fromarray(lit).save(written, "JPEG", quality=88)
    return written.getvalue()


def _wheel(draw: ImageDraw.ImageDraw, middle: tuple[int, int], reach: int, teeth: int, mark_deg: float) -> None:
    x, y = middle
    for n in range(teeth):
        at = 2 * pi * n / teeth
        draw.ellipse(_round(x + reach * sin(at), y - reach * cos(at), 15), fill="#77797b")
    draw.ellipse(_round(x, y, reach), fill=STEEL, outline="#55585a", width=6)
    draw.ellipse(_round(x, y, reach * 0.3), fill="#5d6062", outline="#44474a", width=5)
    at = mark_deg * pi / 180
    draw.ellipse(_round(x + 0.82 * reach * sin(at), y - 0.82 * reach * cos(at), 16), fill=PAINT)


def _round(x: float, y: float, reach: float) -> tuple[float, float, float, float]:
    return x - reach, y - reach, x + reach, y + reach


def _front(draw: ImageDraw.ImageDraw, left_deg: float = 0.0) -> None:
    draw.line((330, 330, 560, 970), fill="#26241f", width=46)
    draw.line((1270, 330, 1040, 970), fill="#26241f", width=46)
    draw.line((330, 170, 1270, 170), fill="#26241f", width=46)
    _wheel(draw, (480, 350), 190, 40, left_deg)
    _wheel(draw, (1120, 350), 190, 40, 0.0)
    _wheel(draw, (800, 960), 150, 22, 0.0)
    draw.ellipse(_round(1090, 700, 95), fill="#7d8082", outline="#55585a", width=6)
    for x in (480, 1120):
        draw.line((x, 60, x, 140), fill=PAINT, width=12)


def _cap(draw: ImageDraw.ImageDraw) -> None:
    draw.rounded_rectangle((300, 380, 1300, 860), 70, fill=STEEL, outline="#5a5d5f", width=8)
    for x in (450, 1150):
        draw.ellipse(_round(x, 620, 95), fill="#6a6d6f", outline="#46494b", width=8)
        draw.regular_polygon((x, 620, 60), 6, fill="#94979a", outline="#54575a")
    draw.line((770, 500, 770, 740), fill="#4b4e50", width=14)
    draw.line((830, 500, 830, 740), fill="#4b4e50", width=14)
    draw.polygon(((980, 620), (920, 585), (920, 655)), fill="#4b4e50")


def _bearing(draw: ImageDraw.ImageDraw) -> None:
    draw.ellipse(_round(800, 600, 430), fill="#85888a", outline="#505355", width=10)
    draw.ellipse(_round(800, 600, 300), fill="#595c5e", outline="#3f4244", width=8)
    for n in range(11):
        at = 2 * pi * n / 11
        draw.ellipse(_round(800 + 365 * sin(at), 600 - 365 * cos(at), 48), fill="#b4b7b9", outline="#6b6e70", width=4)
    draw.ellipse(_round(800, 600, 170), fill=OIL)
    for n in range(9):
        draw.line((1080 + 6 * n, 380 + 9 * n, 1170 + 4 * n, 420 + 12 * n), fill="#33312d", width=5)


FRONT, FRONT_OFF, CAP, BEARING = (
    partial(photo, _front, 1),
    partial(photo, partial(_front, left_deg=18.0), 2),
    partial(photo, _cap, 3),
    partial(photo, _bearing, 4),
)
