"""Words of the choices of the Cabinet stage."""

from firecrest.core.cabinet.frames import Frame
from firecrest.design.standing import is_divider, plate_of

EDGES = (
    ("square", "square"),
    ("vertical", "upright ones round"),
    ("front", "front's round"),
    ("all", "all round"),
)
OUTLINE_AXES = (("x", "side view"), ("y", "view from above"))
AXES = (("x", "left to right"), ("y", "upwards"), ("z", "front to back"))
RING_JOINTS = (("butt", "butt"), ("rabbet", "rabbet"), ("dado", "groove"), ("mitre", "mitre"))
COVER_JOINTS = (("butt", "butt"), ("rabbet", "rabbet"), ("dado", "groove"))
RING_THROUGH = (("top_bottom", "top and bottom"), ("sides", "the sides"))
COVER_THROUGH = (("cover", "the cover"), ("ring", "the ring"))
GROUNDS = tuple(
    (name, name)
    for name in (
        "rubber on wood",
        "rubber on stone",
        "rubber, wet",
        "felt on wood",
        "plastic on varnish",
    )
)
LIE = (("u", "across"), ("v", "upwards"), ("w", "inwards"))
GRAINS = (("free", "does not matter"), ("longer", "along the longer side"), ("upright", "upright"))
FORMS = (("plate", "plate with a window"), ("shelf", "shelf"), ("dowel", "dowel"))


def plain_panel(panel: str) -> str:
    """A panel by its name; a face of a divider by the number of that."""
    return f"divider {plate_of(panel) + 1}" if is_divider(panel) else panel


def panel_word(panel: str, frame: Frame) -> str:
    """A panel by its name; a face of a divider, framed so, by where it looks."""
    if not is_divider(panel):
        return panel
    ways = (("left", "right"), ("bottom", "top"), ("back", "front"))
    looks = [float(c) for c in frame.normal]
    k = max(range(3), key=lambda axis: abs(looks[axis]))
    return f"{ways[k][looks[k] > 0]} of {plain_panel(panel)}"
