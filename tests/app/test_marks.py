"""State marks and origin squares differ by shape, not by colour alone."""

import pytest
from PySide6.QtCore import QRectF
from PySide6.QtGui import QImage, QPainter, qGray

from firecrest.app.theme.style import colour, holder
from firecrest.app.widgets.chain import THICK, THIN, half_width
from firecrest.app.widgets.find import matches
from firecrest.app.widgets.marks import paint_mark, paint_origin


def drawn(paint, what):
    """Black and white picture of one mark."""
    image = QImage(24, 24, QImage.Format.Format_ARGB32)
    ground = colour("sheet")
    image.fill(ground)
    painter = QPainter(image)
    paint(painter, QRectF(4, 4, 16, 16), what)
    painter.end()
    grey = image.convertToFormat(QImage.Format.Format_Grayscale8)
    paper = qGray(ground.rgb())
    return bytes(abs(value - paper) > 40 for value in bytes(grey.bits()))


@pytest.mark.parametrize("choice", ["light", "dark"])
def test_every_state_has_its_own_shape(qapp, settings, choice):
    holder.choose(choice)
    states = ("met", "close", "short", "wish", "unknown", "half", "none")
    assert len({drawn(paint_mark, s) for s in states}) == len(states)
    holder.choose("light")


def test_every_origin_has_its_own_square(qapp, settings):
    holder.choose("light")
    assert len({drawn(paint_origin, o) for o in ("measured", "sheet", "estimate", "")}) == 4
    assert drawn(paint_origin, "sheet") == drawn(paint_origin, "derived")


def test_the_rope_is_as_thick_as_there_is_to_spare():
    assert half_width(-1.8) == half_width(-9.0) == pytest.approx(THIN)
    assert half_width(6.0) == half_width(20.0) == half_width(None) == pytest.approx(THICK)
    assert half_width(2.1) == pytest.approx((THIN + THICK) / 2)


@pytest.mark.parametrize(
    ("query", "text", "found"),
    [
        ("add mass", "Added mass, each", True),
        ("MASS", "Moving mass Mmp Rowan R16", True),
        ("rowan", "Rowan R16", True),
        ("port", "Rowan R16", False),
        ("", "anything", True),
    ],
)
def test_every_word_of_a_query_must_occur(query, text, found):
    assert (matches(query, text) is not None) == found


def test_beginnings_of_words_rank_before_their_middles():
    assert matches("mass", "Added mass") < matches("mass", "Biomassive figure")
