"""Parts that a new element starts with, from the house shelf."""

from firecrest.design.parts import RadiatorPart

START_RADIATOR = RadiatorPart(
    name="Rowan R16",
    sd=0.0118,
    mmp=0.052,
    cmp=0.0008,
    rmp=0.8,
    xmax=0.0032,
    displacement=0.00011,
    frame=0.165,
    mass=0.24,
    price=17.0,
    origins={
        "sd": "sheet",
        "mmp": "measured",
        "cmp": "measured",
        "rmp": "sheet",
        "xmax": "estimate",
        "mass": "measured",
        "price": "sheet",
    },
)
