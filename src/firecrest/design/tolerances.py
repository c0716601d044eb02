"""How far figures that no part's sheet states may be off: the one table of likely ranges."""

from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, number


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Tolerances:
    """Likely ranges (5 to 95 %), a share either way; each with the reason it is so wide."""

    losses: float = number(
        "Leak and absorption",
        "share",
        0,
        2,
        "%",
        default=0.3,
        digits=0,
        help="Of figures typed by hand; one chosen in words has the range of these words.",
    )
    stuffing: float = number(
        "Stuffing",
        "share",
        0,
        2,
        "%",
        default=0.3,
        digits=0,
        help="Of what stuffing adds: how tightly it is packed is hard to repeat.",
    )
    fibre: float = number(
        "Fibre, flow resistance",
        "share",
        0,
        2,
        "%",
        default=0.2,
        digits=0,
        help="Wool is packed unevenly, and sheets of fibre state it for one density.",
    )
    measured_air: float = number(
        "Measured air volume",
        "share",
        0,
        1,
        "%",
        default=0.02,
        digits=1,
        help="Filling a box with rice or water and weighing it is good to about 2 %.",
    )
    port_ends: float = number(
        "End correction of ports",
        "share",
        0,
        2,
        "%",
        default=0.1,
        digits=0,
        help="Walls, flanges and what stands before an end move it by about a tenth.",
    )
    port_speed: float = number(
        "Air speed limit, set by hand",
        "share",
        0,
        2,
        "%",
        default=0.15,
        digits=0,
        help="Where noise is noticed differs from ear to ear and from programme to programme.",
    )
    port_speed_estimate: float = number(
        "Air speed limit, by edges",
        "share",
        0,
        2,
        "%",
        default=0.3,
        digits=0,
        help="An estimate from the shape of the edges, the frequency and the width.",
    )
    port_loss: float = number(
        "What fast air loses in ports",
        "share",
        0,
        2,
        "%",
        default=0.33,
        digits=0,
        help="By the shape of the ends and the bends, after a handbook: good to about a third.",
    )
    panel_density: float = number(
        "Panel density",
        "share",
        0,
        1,
        "%",
        default=0.08,
        digits=0,
        help="Ply and board differ that much from batch to batch and with moisture.",
    )
    panel_thickness: float = number(
        "Panel thickness",
        "share",
        0,
        1,
        "%",
        default=0.03,
        digits=0,
        help="Nominal 12 mm is often 11.7 mm.",
    )
    cell_capacity: float = number(
        "Cell capacity, new",
        "share",
        0,
        1,
        "%",
        default=0.05,
        digits=0,
        help="Spread of new cells of one kind at a moderate current.",
    )
    cell_capacity_aged: float = number(
        "Cell capacity, salvaged or aged",
        "share",
        0,
        1,
        "%",
        default=0.15,
        digits=0,
        help="What is left of used cells differs much from one to the next.",
    )
    cell_resistance: float = number(
        "Cell resistance",
        "share",
        0,
        2,
        "%",
        default=0.2,
        digits=0,
        help="Goes with charge, age and how the contacts are made.",
    )
    amplifier_power: float = number(
        "Amplifier claims",
        "share",
        0,
        2,
        "%",
        default=0.1,
        digits=0,
        help="Of the claimed watts, where the sheet of the board gives no range of its own.",
    )
    amplifier_losses: float = number(
        "Amplifier losses",
        "share",
        0,
        2,
        "%",
        default=0.2,
        digits=0,
        help="One efficiency figure, or none at all, stands for all levels.",
    )
    coil_heat: float = number(
        "Heat of coils, estimated",
        "share",
        0,
        2,
        "%",
        default=0.4,
        digits=0,
        help="Thermal resistances that no sheet states: usual ones for the size of the coil.",
    )
    temperature: float = number(
        "Air temperature",
        "temperature difference",
        0,
        40,
        "K",
        default=5.0,
        digits=0,
        help="An evening may be that much cooler or warmer than was thought.",
    )
