"""Templates of panels as DXF and SVG: mm, 1:1, arcs as arcs, one layer for each kind of line."""

import io
from html import escape
from math import atan, hypot, sin

from firecrest.assessment.cabinet.template import LAYERS, Template
from firecrest.core.cabinet.loops import Loop

MM = 1e3
COLOURS = {"OUTLINE": 7, "THROUGH": 1, "RECESS": 5, "DRILL": 3, "GRAIN": 8, "CENTRE": 6, "TEXT": 8}
"""Numbers of the colours that every drawing program has."""
INKS = {
    "OUTLINE": "black",
    "THROUGH": "firebrick",
    "RECESS": "royalblue",
    "DRILL": "seagreen",
    "GRAIN": "dimgray",
    "CENTRE": "purple",
    "TEXT": "dimgray",
}
TEXT_HEIGHT, LINE, RIM = 4.0, 0.25, 5.0


def template_dxf(template: Template) -> bytes:
    """A DXF of one panel: closed polylines with bulges, circles, lines and texts."""
    import ezdxf  # takes a third of a second, and few ask for it
    from ezdxf import units

    document = ezdxf.new("R2010", setup=True)
    document.units = units.MM
    for layer in LAYERS:
        document.layers.add(layer, color=COLOURS[layer])
    space = document.modelspace()
    for layer, loop in template.loops:
        points = [(x * MM, y * MM, bulge) for x, y, bulge in loop]
        space.add_lwpolyline(points, format="xyb", close=True, dxfattribs={"layer": layer})
    for layer, x, y, d in template.circles:
        space.add_circle((x * MM, y * MM), d * MM / 2, dxfattribs={"layer": layer})
    for layer, a, b in template.lines:
        start, end = ((x * MM, y * MM) for x, y in (a, b))
        space.add_line(start, end, dxfattribs={"layer": layer})
    for words in template.words:
        text = space.add_text(words.text, height=TEXT_HEIGHT, dxfattribs={"layer": "TEXT"})
        text.set_placement((words.at[0] * MM + 2, words.at[1] * MM + 2))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


def template_svg(template: Template) -> bytes:
    """An SVG of one panel whose units are millimetres on paper."""
    wide, high = (side * MM + 2 * RIM for side in template.size)
    left, top = template.low[0] * MM - RIM, -(template.low[1] + template.size[1]) * MM - RIM
    rows = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" '
        f'viewBox="{left:.3f} {top:.3f} {wide:.3f} {high:.3f}">',
        f"<title>{escape(template.name)}</title>",
    ]
    for layer in LAYERS:
        rows.append(f'<g id="{layer}" fill="none" stroke="{INKS[layer]}" stroke-width="{LINE}">')
        rows += [f'<path d="{_path(loop)}"/>' for own, loop in template.loops if own == layer]
        rows += [
            f'<circle cx="{x * MM:.4f}" cy="{-y * MM:.4f}" r="{d * MM / 2:.4f}"/>'
            for own, x, y, d in template.circles
            if own == layer
        ]
        rows += [
            f'<path d="M{a[0] * MM:.4f} {-a[1] * MM:.4f}L{b[0] * MM:.4f} {-b[1] * MM:.4f}"/>'
            for own, a, b in template.lines
            if own == layer
        ]
        if layer == "TEXT":
            rows += [
                f'<text x="{w.at[0] * MM + 2:.3f}" y="{-w.at[1] * MM - 2:.3f}" '
                f'font-size="{TEXT_HEIGHT}" stroke="none" fill="{INKS[layer]}">'
                f"{escape(w.text)}</text>"
                for w in template.words
            ]
        rows.append("</g>")
    return "\n".join([*rows, "</svg>", ""]).encode()


def _path(loop: Loop) -> str:
    """A loop as path data; y grows downwards."""
    x, y, _ = loop[0]
    parts = [f"M{x * MM:.4f} {-y * MM:.4f}"]
    for (px, py, bulge), (nx, ny, _) in zip(loop, [*loop[1:], loop[0]], strict=True):
        if not bulge:
            parts.append(f"L{nx * MM:.4f} {-ny * MM:.4f}")
            continue
        angle = 4 * atan(bulge)
        r = abs(hypot(nx - px, ny - py) / (2 * sin(angle / 2))) * MM
        large, sweep = int(abs(angle) > 3.14159265), int(bulge < 0)
        parts.append(f"A{r:.4f} {r:.4f} 0 {large} {sweep} {nx * MM:.4f} {-ny * MM:.4f}")
    return "".join([*parts, "Z"])
