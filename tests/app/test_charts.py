"""Charts: axes, pixels, and labels that never stand over one another."""

import numpy as np
import pytest
from PySide6.QtCore import QCoreApplication, QEvent, QRectF, Qt
from PySide6.QtGui import QImage, QPainter
from PySide6.QtTest import QTest

from firecrest.app.session import Session
from firecrest.app.theme.tokens import TINTS
from firecrest.app.widgets import chart_labels
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.chart_labels import LabelPainter
from firecrest.app.widgets.chart_paint import polygon
from firecrest.app.widgets.patterns import DRAWINGS, limit_brush
from firecrest.assessment.assess import assess
from firecrest.core.errors import FirecrestError
from firecrest.core.limits.kinds import KINDS, tint_of
from firecrest.design.edits.paths import set_number
from firecrest.present.plot.axes import x_ticks, y_ticks
from firecrest.present.plot.ceiling import ceiling_plot
from firecrest.present.plot.plots import travel_plots
from firecrest.present.plot.views import impedance_plot
from firecrest.present.power.hours import evening
from tests.app.helpers import settle
from tests.rects import inside


@pytest.fixture
def chart(qapp, settings, slipway):
    made = Chart(Session(slipway), height=280)
    made.resize(816, 300)
    made.show_plot(ceiling_plot(made.session.assessment))
    made.show()
    settle()
    yield made
    made.hide()
    made.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def random_designs(base, count):
    """Designs scattered around ``base``."""
    rng = np.random.default_rng(7)
    ranges = [
        (("box", "case", "depth"), 0.12, 0.4),
        (("box", "openings", 0, "added_mass"), 0, 0.2),
        (("box", "openings", 0, "radiator", "xmax"), 1e-3, 0.02),
        (("box", "groups", 0, "driver", "xmax"), 5e-4, 0.012),
        (("box", "groups", 0, "driver", "pe"), 2, 100),
        (("power", "source", "board", "max_current"), 1, 20),
        (("power", "boards", 0, "part", "current_limit"), 0.5, 10),
        (("power", "lead", "contacts"), 0, 0.8),
        (("brief", "loudness", "level"), 80, 108),
        (("brief", "bass", "frequency"), 30, 120),
        (("voice", "channels", 0, "blocks", 1, "gain"), -12, 12),
    ]
    for _ in range(count):
        design = base
        for path, low, high in ranges:
            try:
                design = set_number(design, path, float(rng.uniform(low, high)))
            except FirecrestError:
                continue
        yield design


def test_labels_of_200_random_designs_never_overlap(chart, slipway, monkeypatch):
    placed = []
    real = chart_labels.place

    def recorded(requests, area, taken):
        answer = real(requests, area, taken)
        if len(requests) > 1:
            placed.append((area, [*(r for r in answer if r is not None), taken[-1]]))
        return answer

    monkeypatch.setattr(chart_labels, "place", recorded)
    image = QImage(816, 300, QImage.Format.Format_ARGB32)
    for design in random_designs(slipway, 200):
        chart.show_plot(ceiling_plot(assess(design)))
        painter = QPainter(image)
        LabelPainter(painter, chart.plot_area(), chart.to_pixels, 1.0).over(chart.content)
        painter.end()
    assert len(placed) >= 200
    for area, rects in placed:
        assert rects
        for k, rect in enumerate(rects):
            assert inside(rect, area)
            assert not any(rect.overlaps(other) for other in rects[k + 1 :])


def test_pixels_follow_the_axes(chart):
    area = chart.plot_area()
    x, y = chart.to_pixels(np.array([30.0, 1000.0]), np.array(chart.content.y_range))
    assert x == pytest.approx([area.left(), area.right()])
    assert y == pytest.approx([area.bottom(), area.top()])
    (middle,), _ = chart.to_pixels(np.array([np.sqrt(30.0 * 1000.0)]), np.array([90.0]))
    assert middle == pytest.approx(area.center().x(), abs=1)


def test_a_polygon_has_the_points_it_is_made_of():
    made = polygon(np.array([1.0, 2.5]), np.array([3.0, -4.0]))
    assert [(p.x(), p.y()) for p in made] == [(1.0, 3.0), (2.5, -4.0)]
    assert len(polygon(np.array([]), np.array([]))) == 0


def test_ticks_stand_at_1_2_5_and_the_last_carries_the_unit(chart):
    ticks = x_ticks(chart.content)
    assert ticks[0][1] == "30"
    assert ticks[-1][1] == "1 kHz"
    levels = y_ticks(chart.content, chart.height())
    assert levels[-1][1].endswith(" dB")


def test_a_ghost_never_changes_the_range(chart, slipway):
    before = chart.content.y_range
    loud = assess(set_number(slipway, ("power", "source", "series"), 12))
    chart.show_plot(ceiling_plot(chart.session.assessment), ceiling_plot(loud))
    assert chart.content.y_range == before
    assert chart.grab().toImage() != QImage()


def test_the_ceiling_is_painted_in_the_colour_of_its_limit(chart):
    image = chart.grab().toImage()
    run = next(r for r in chart.content.tints if r.code == "V")
    at = int(np.searchsorted(run.x, 200.0))
    (x,), (y,) = chart.to_pixels(run.x[at : at + 1], run.y[at : at + 1])
    seen = image.pixelColor(int(x), int(y))
    assert seen.blue() > seen.red() + 60


def test_charts_speak(chart):
    assert chart.accessibleName() == "Ceiling plot"
    assert "Radiator travel −0.8" in chart.accessibleDescription()
    chart.show_plot(impedance_plot(chart.session.assessment))
    assert "peaks at" in chart.accessibleDescription()


@pytest.mark.parametrize(
    "make", [lambda a: evening(a, "promise")[0], impedance_plot, lambda a: travel_plots(a)[0]]
)
def test_other_axes_are_drawn_too(chart, make):
    chart.show_plot(make(chart.session.assessment))
    settle()
    assert x_ticks(chart.content)
    assert chart.plot_area().intersects(QRectF(chart.rect()))


def test_every_pattern_is_drawn_and_differs(qapp):
    tiles = {}
    for code in {kind.code for kind in KINDS}:
        assert tint_of(code) in DRAWINGS
        image = limit_brush(code, *TINTS[tint_of(code)].light, 1.0).textureImage()
        grey = image.convertToFormat(QImage.Format.Format_Grayscale8)
        tiles[code] = bytes(grey.bits())
    assert len(set(tiles.values())) == len(TINTS)


def test_patterns_are_redrawn_at_the_screens_scale(qapp):
    once, twice = (limit_brush("R", *TINTS["rising"].light, r).texture() for r in (1.0, 2.0))
    assert twice.width() == 2 * once.width()
    assert once.width() % 8 == 0


def test_a_plot_is_looked_at_closer_about_the_crosshair_and_whole_again(window):
    window.show_stage("size")
    settle()
    chart = window.stage.chart
    chart.setFocus()
    window.session.look_at(60.0)
    whole = chart.content.x_range
    for key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
        QTest.keyClick(chart, key)
    low, high = chart.content.x_range
    assert low < 60 < high
    assert np.log(high / low) == pytest.approx(np.log(whole[1] / whole[0]) / 4)
    assert whole[0] <= low
    window.session.edit_number(("box", "case", "depth"), 0.19)
    settle()
    assert chart.content.x_range == pytest.approx((low, high)), "an edit keeps it"
    for _ in range(9):
        QTest.keyClick(chart, Qt.Key.Key_Plus)
    QTest.keyClick(chart, Qt.Key.Key_Minus)
    QTest.keyClick(chart, Qt.Key.Key_0)
    assert chart.content.x_range == whole
