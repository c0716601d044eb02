"""Drivers and boxes as the references state them, as networks of the program."""

from math import pi, sqrt

import numpy as np

from firecrest.core.acoustics.chambers import closed_resonance, compliance, lossy_chamber
from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.acoustics.openings.port import Port
from firecrest.core.air import DATA_SHEET_AIR as AIR
from firecrest.core.circuit.elements import Chamber, DriverGroup, Network


def constants_of(ts):
    """Constants of Fs, Qes, Qms, Re, Sd and Vas or Mms."""
    omega, s_d = 2 * pi * ts["Fs"], ts["Sd"]
    if "Vas" in ts:
        c_ms = ts["Vas"] / (AIR.stiffness * s_d**2)
        m_ms = 1 / (omega**2 * c_ms)
    else:
        m_ms = ts["Mms"]
        c_ms = 1 / (omega**2 * m_ms)
    return DriverConstants(
        ts["Re"],
        ts["Le"],
        ts.get("L2", 0.0),
        ts.get("R2", 0.0),
        s_d,
        sqrt(omega * m_ms * ts["Re"] / ts["Qes"]),
        m_ms,
        c_ms,
        omega * m_ms / ts["Qms"],
    )


def boxed(ts, box):
    """One driver in its box; without one in free air, where nothing squeezes its back."""
    driver = constants_of(ts)
    if box is None:
        return Network((Chamber(1e3),), (DriverGroup(driver, 0),))
    air = compliance(box["V"], AIR)
    if box["kind"] == "sealed":
        reference = closed_resonance(ts["Fs"], ts["Vas"], box["V"])
        return Network((lossy_chamber(air, reference, box["QL"], None),), (DriverGroup(driver, 0),))
    mass = 1 / ((2 * pi * box["fb"]) ** 2 * air)
    loss = 2 * pi * box["fb"] * mass / box["QP"] if "QP" in box else 0.0
    port = Port(mass, box.get("port_area", 1e-3), 0, loss)
    chamber = lossy_chamber(air, np.float64(box["fb"]), box["QL"], None)
    return Network((chamber,), (DriverGroup(driver, 0),), (port,))
