"""Where things sit in a case: places on its panels, and the box that a bare thing fills."""

from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, identity, number


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Mount:
    """A place on a panel, from the middle of its outer face, as it is seen from outside."""

    panel: str = identity("front", "Panel")
    u: float = number(
        "To the right", "length", -3, 3, "mm", default=0.0, digits=1, help="As seen from outside."
    )
    v: float = number(
        "Upwards", "length", -3, 3, "mm", default=0.0, digits=1, help="As seen from outside."
    )
    rot: float = number(
        "Turned",
        "angle",
        -6.3,
        6.3,
        "°",
        default=0.0,
        digits=0,
        help="Counter-clockwise, as seen from outside.",
    )
    recess: float = number(
        "Recessed",
        "length",
        0,
        0.1,
        "mm",
        default=0.0,
        digits=1,
        help="How deep its frame is let into the panel; 0 sits on it.",
    )
    from_inside: bool = choice(
        "Fitted from inside", default=False, help="Its frame then sits behind the panel."
    )
    standoff: float = number(
        "Stands off",
        "length",
        0,
        0.5,
        "mm",
        default=0.004,
        digits=1,
        help="Of boards and packs: from the panel's inside.",
    )
