"""Templates measured: a circle in DXF, SVG and PDF is as large as its cut-out."""

import io
import re
import zlib
from math import atan, hypot, pi, sin

import ezdxf
import pytest
from tests.assessment.cabinet.made import drawn, placed

from firecrest.app.template_pages import templates_pdf
from firecrest.assessment.cabinet.template import template_of, templates_of
from firecrest.core.cabinet.templates import pages_of
from firecrest.design.case_shape import Rectangular
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.files.templates import template_dxf, template_svg
from firecrest.proposals.shaping import SHAPES, with_shape
from firecrest.proposals.siting import placed_all

CUT = 0.116


def end_panel():
    return template_of(drawn(placed())[1], "left")


def _area(line):
    """Area of a closed polyline with bulges, mm2."""
    points = [(x, y, b) for x, y, _, _, b in line.get_points()]
    total = 0.0
    for (x, y, bulge), (nx, ny, _) in zip(points, [*points[1:], points[0]], strict=True):
        total += (x * ny - nx * y) / 2
        if bulge:
            angle = 4 * atan(bulge)
            r = hypot(nx - x, ny - y) / (2 * sin(angle / 2))
            total += r * r * (angle - sin(angle)) / 2
    return abs(total)


def test_a_dxf_opens_with_layers_in_mm_and_closed_outlines_of_the_stated_area():
    recessed = set_number(placed(), ("box", "groups", 0, "mounts", 0, "recess"), 0.004)
    template = template_of(drawn(recessed)[1], "front")
    document = ezdxf.read(io.StringIO(template_dxf(template).decode()))
    assert document.units == ezdxf.units.MM
    lines = {}
    for line in document.modelspace().query("LWPOLYLINE"):
        assert line.closed
        lines.setdefault(line.dxf.layer, []).append(_area(line))
    assert lines["OUTLINE"] == pytest.approx([338 * 198])
    assert lines["THROUGH"] == pytest.approx([pi / 4 * 116**2] * 2)
    assert lines["RECESS"] == pytest.approx([pi / 4 * 132**2])
    assert {c.dxf.radius for c in document.modelspace().query("CIRCLE")} == {1.5}
    assert "recess 4.0 mm" in [t.dxf.text for t in document.modelspace().query("TEXT")]


def test_an_svg_is_in_millimetres_and_its_arcs_are_arcs():
    text = template_svg(end_panel()).decode()
    wide = float(re.search(r'width="([\d.]+)mm"', text)[1])
    assert wide == pytest.approx(1e3 * end_panel().size[0] + 10)
    assert re.search(r"A72\.5000 72\.5000 0", text)
    for layer in ("OUTLINE", "THROUGH", "DRILL", "CENTRE"):
        assert f'id="{layer}"' in text


def _circles_in(pdf):
    """Widths in mm of paths of curves, page by page, by the scale their stream sets."""
    found = []
    for stream in re.finditer(rb"stream\r?\n(.*?)\r?\nendstream", pdf, re.DOTALL):
        try:
            text = zlib.decompress(stream[1]).decode("latin1")
        except zlib.error:
            continue
        if " c\n" not in text:
            continue
        page = float(re.search(r"([\d.]+) 0 0 -[\d.]+ 0 [\d.]+ cm", text)[1])
        own = float(re.findall(r"([\d.]+) 0 0 ([\d.]+) [-\d.]+ [-\d.]+ cm", text)[-1][0])
        for path in re.findall(r"((?:[-\d. ]+ [ml]\n|[-\d. ]+ c\n)+)h", text):
            if " c\n" in path:
                xs = [float(n) for row in path.splitlines() for n in row.split()[:-1][0::2]]
                found.append((max(xs) - min(xs)) * page * own * 25.4 / 72)
    return found


def test_a_circle_of_145_mm_in_the_pages_is_145_mm(qapp):
    found = _circles_in(templates_pdf([end_panel()]))
    assert max(found) == pytest.approx(145.0, abs=0.05)


def test_a_large_panel_is_tiled_and_every_page_is_named(qapp):
    templates = templates_of(drawn(placed())[1])
    pdf = templates_pdf(templates)
    pages = sum(pages_of(*t.size) for t in templates)
    assert len(re.findall(rb"/Type /Page\b(?!s)", pdf)) == pages


def test_a_router_template_is_larger_by_half_the_bush_less_the_cutter():
    plain, wide = (template_of(drawn(placed())[1], "left", by) for by in (0.0, 0.0025))
    widths = [max(x for x, _, _ in t.loops[1][1]) for t in (plain, wide)]
    assert widths[1] - widths[0] == pytest.approx(0.0025)


@pytest.mark.parametrize("kind", list(SHAPES))
def test_every_shape_has_templates_whose_holes_lie_on_their_panels(kind):
    made = placed_all(with_shape(placed(), kind)[1])
    for template in templates_of(drawn(made)[1]):
        assert template.size[0] > 0.02
        assert template_dxf(template)
        assert template_svg(template)


def test_let_in_panels_are_as_large_as_they_are_cut():
    joints = Rectangular().joints
    front = rebuilt(joints.front, type="rabbet", through="ring", depth=0.006)
    shape = rebuilt(Rectangular(), joints=rebuilt(joints, front=front))
    drawing = drawn(replace_at(placed(), ("box", "case", "shape"), shape))[1]
    assert template_of(drawing, "front").size == pytest.approx((0.314 + 0.012, 0.174 + 0.012))
    side = template_of(drawing, "left")
    assert side.size == pytest.approx((0.188 - 0.012, 0.174))
    assert side.low[0] == pytest.approx(-0.094 + 0.012)
