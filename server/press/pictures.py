"""A photograph brought to a bounded size, upright, with nothing in it of where, when and with what it was taken. Done aside."""

__all__ = ["Bounded", "bounded", "on_paper"]

from contextlib import suppress
from functools import lru_cache
from io import BytesIO
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from press.aside import aside

if TYPE_CHECKING:  # what reads pictures is imported aside alone
    from PIL import Image
    from PIL.ImageFile import ImageFile

SORT = "pictures"
LONGEST, ON_PAPER, SMALL = 2560, 1200, 480  # pixels of the longer side: to see a letter on a cap by, and beside a line of the tape
MOST_PIXELS = 150_000_000
QUALITY = 86
FORMATS = ("JPEG", "PNG", "WEBP", "HEIF")
NO_PICTURE = "This is no picture that can be read: choose a JPEG, PNG, WebP or HEIC file."


class Bounded(NamedTuple):
    """A picture as it is kept, the same small, and its size in pixels."""

    whole: bytes
    small: bytes
    width: int
    height: int


def bounded(file: Path) -> Bounded | str:
    """Return the picture in a file as it is kept; what is wrong in a sentence where it is none."""
    return aside(SORT, _bounded, file)


@lru_cache(maxsize=32)  # a page that is set closer until it fits shows the same ones each time
def on_paper(folder: Path, digest: str) -> bytes:
    """Return a kept picture as fine as paper shows it, four a page."""
    from PIL import Image

    with Image.open(folder / digest[:2] / f"{digest}.jpg", formats=("JPEG",)) as kept:
        kept.draft("RGB", (ON_PAPER, ON_PAPER))
        kept.thumbnail((ON_PAPER, ON_PAPER))
        return _jpeg(kept)


def _bounded(file: Path) -> Bounded | str:
    from pi_heif import register_heif_opener
    from PIL import Image, ImageOps, UnidentifiedImageError

    register_heif_opener()
    Image.MAX_IMAGE_PIXELS = None  # bounded below, in a sentence of our own
    try:
        with Image.open(file, formats=FORMATS) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                most = MOST_PIXELS // 1_000_000
                return f"This picture has {opened.width} x {opened.height} pixels; {most} million is the most. Take it smaller."
            opened.draft("RGB", (LONGEST, LONGEST))  # a JPEG is read no finer than it will be
            upright = ImageOps.exif_transpose(_plain(opened))
            upright.thumbnail((LONGEST, LONGEST))
            whole, size = _jpeg(upright), upright.size
            upright.thumbnail((SMALL, SMALL))
            return Bounded(whole, _jpeg(upright), *size)
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, MemoryError):
        return NO_PICTURE


def _plain(opened: "ImageFile") -> "Image.Image":
    """In plain colours as every screen has them, on white where it was clear; what is said beside the picture goes with the original."""
    from PIL import Image, ImageCms

    exif, profile = opened.getexif(), opened.info.get("icc_profile")
    if opened.mode in ("RGBA", "LA", "P", "PA"):
        clear = opened.convert("RGBA")
        plain = Image.new("RGB", clear.size, "white")
        plain.paste(clear, mask=clear.getchannel("A"))
    else:
        plain = opened.convert("RGB")
        if profile and opened.mode == "RGB":
            with suppress(ImageCms.PyCMSError):  # a profile that nobody can read changes nothing
                ImageCms.profileToProfile(plain, ImageCms.ImageCmsProfile(BytesIO(profile)), ImageCms.createProfile("sRGB"), inPlace=True)
    plain.getexif()[0x0112] = exif.get(0x0112, 1)  # which way up it was held
    return plain


def _jpeg(picture: "Image.Image") -> bytes:
    written = BytesIO()
    picture.save(written, "JPEG", quality=QUALITY, optimize=True, exif=b"", icc_profile=None)
    return written.getvalue()
