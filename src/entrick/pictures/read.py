"""A picture read from what was sent, by what is in it and not by its name; nothing else in the file
is kept."""

from __future__ import annotations

import io

import numpy as np
import numpy.typing as npt
from PIL import Image, UnidentifiedImageError
from pypdf import PdfReader
from pypdf.errors import PyPdfError

Grey = npt.NDArray[np.uint8]

MOST_PIXELS = 40_000_000
"""Of a picture: an A3 sheet at 400 dpi has 31 million."""

FEWEST = 600
"""Pixels on the long side under which no line can be measured."""

LARGEST = 40 * 2**20
"""Bytes of a file."""

KINDS = frozenset({"PNG", "JPEG", "MPO", "TIFF"})

MOST_PAGES = 20
"""Pages of a PDF in which a picture is looked for."""


class PictureError(Exception):
    """A picture that cannot be used: says why, and what to do."""


def read_picture(content: bytes) -> Grey:
    """Return a picture in shades of grey, rows from the top.

    Parameters
    ----------
    content : bytes
        PNG, JPEG, TIFF, or a PDF that holds a picture.

    Raises
    ------
    PictureError
        Where it is none of these, broken, too large or too small.
    """
    if not content:
        raise PictureError("the file is empty")
    if len(content) > LARGEST:
        raise PictureError(
            f"the file has more than {LARGEST // 2**20} MB; scan at 300 dpi, in grey"
        )
    if content[:1024].lstrip().startswith(b"%PDF"):
        content = _in_pdf(content)
    try:
        with Image.open(io.BytesIO(content)) as image:
            _usable(image)
            # Sixteen bits of grey are brought to eight; colour is seen as grey.
            deep = image.mode.startswith(("I", "F"))
            grey = (
                image.point(lambda value: value / 256).convert("L") if deep else image.convert("L")
            )
            return np.asarray(grey, np.uint8)
    except Image.DecompressionBombError as error:
        raise PictureError(_too_many()) from error
    except UnidentifiedImageError as error:
        raise PictureError(
            "this is no picture the desk can read; save it as PNG, JPEG or TIFF"
        ) from error
    except (OSError, ValueError, SyntaxError) as error:
        raise PictureError("the picture is broken off or damaged; scan or save it again") from error


def _usable(image: Image.Image) -> None:
    """Look at a picture's head before anything of it is unpacked."""
    wide, high = image.size
    if image.format not in KINDS:
        raise PictureError(f"a picture of kind {image.format}; save it as PNG, JPEG or TIFF")
    if wide * high > MOST_PIXELS:
        raise PictureError(_too_many())
    if max(wide, high) < FEWEST:
        raise PictureError(f"the picture is only {wide} by {high} pixels; scan at 150 dpi or more")


def _too_many() -> str:
    return f"the picture has more than {MOST_PIXELS // 10**6} million pixels; 300 dpi are enough"


def _in_pdf(content: bytes) -> bytes:
    """Return the largest picture of the first page that has one."""
    try:
        reader = PdfReader(io.BytesIO(content))
        for page in reader.pages[:MOST_PAGES]:
            found = [image.data for image in page.images]
            if found:
                return max(found, key=len)
    except (
        PyPdfError,
        OSError,
        ValueError,
        KeyError,
        AttributeError,
        NotImplementedError,
    ) as error:
        raise PictureError("this PDF cannot be read; save the scan as PNG or JPEG") from error
    raise PictureError("this PDF holds no picture of a sheet; scan the sheet, or photograph it")
