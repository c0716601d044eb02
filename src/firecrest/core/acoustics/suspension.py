"""Suspensions of cones by temperature."""

import numpy as np

from firecrest.core.air import STANDARD_TEMPERATURE
from firecrest.core.arrays import Number, plain

STIFFENING = 0.008
"""Per kelvin of cold, by which surrounds and spiders stiffen. An estimate, 0.004 to 0.012: rubber
and treated cloth well above their glass transition; some hard rubbers stiffen faster below 0 C.
"""


def softness(temperature: Number) -> Number:
    """Compliance at ``temperature`` (K) as a multiple of what it is at 20 C.

    exp(beta (T - 20 C)): the exponential law of rubber over a narrow range (Ferry, Viscoelastic
    Properties of Polymers, 3rd ed. 1980, ch. 11); the rate is an estimate of our own.
    """
    return plain(np.exp(STIFFENING * (temperature - STANDARD_TEMPERATURE)))
