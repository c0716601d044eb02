"""Parts that a new element starts with, from the house shelf."""

from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.sources import Cell, CellPoint, Pack, ProtectionBoard

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

START_SATELLITE = DriverPart(
    name="Alder F8-4",
    size=0.0762,
    nominal=4.0,
    re=3.4,
    le=0.00011,
    fs=96.0,
    qes=0.585,
    qms=4.1,
    qts=0.512,
    vas=0.0008995,
    sd=0.003,
    xmax=0.0032,
    xmech=0.0052,
    pe=20.0,
    displacement=0.000063,
    frame=0.08,
    cut_out=0.071,
    depth=0.048,
    mass=0.31,
    price=14.0,
    origins=dict.fromkeys(
        ("re", "le", "fs", "qes", "qms", "qts", "vas", "sd", "xmax", "xmech", "pe"), "sheet"
    ),
)

START_TWEETER = DriverPart(
    name="Hazel T25-8",
    kind="tweeter",
    size=0.0254,
    nominal=8.0,
    re=5.8,
    le=3e-05,
    fs=720.0,
    qes=0.67,
    qms=3.9,
    qts=0.572,
    vas=1.082e-05,
    sd=0.00076,
    xmax=0.0005,
    pe=30.0,
    displacement=4.1e-05,
    frame=0.104,
    cut_out=0.074,
    depth=0.032,
    mass=0.48,
    price=29.0,
    play_from=2000.0,
    origins=dict.fromkeys(
        ("re", "le", "fs", "qes", "qms", "qts", "vas", "sd", "xmax", "pe", "play_from"), "sheet"
    ),
)

START_CELL = Cell(
    name="Flint 21",
    capacity=14400.0,
    max_current=12.0,
    cut_off=2.8,
    table=tuple(
        CellPoint(charge=q, rest_voltage=v, resistance=r)
        for q, v, r in (
            (0, 2.95, 0.036),
            (0.05, 3.28, 0.03),
            (0.1, 3.4, 0.026),
            (0.2, 3.52, 0.022),
            (0.3, 3.59, 0.021),
            (0.4, 3.64, 0.02),
            (0.5, 3.7, 0.02),
            (0.6, 3.78, 0.02),
            (0.7, 3.88, 0.02),
            (0.8, 3.97, 0.02),
            (0.9, 4.06, 0.02),
            (1, 4.18, 0.02),
        )
    ),
    volume=0.000028,
    mass=0.069,
    price=5.4,
)
START_PACK = Pack(
    kind="pack",
    cell=START_CELL,
    series=5,
    parallel=1,
    board=ProtectionBoard(max_current=12.0, cut_off=15.25, resistance=0.015),
)
