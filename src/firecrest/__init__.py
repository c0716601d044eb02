"""Firecrest: sizes small self-powered loudspeakers against their promises."""

import os

# Our arrays are small: threads of the linear algebra library cost more than they give, and a
# spinning pool steals the core that draws. Must be set before NumPy is first imported.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

__version__ = "0.5.0"
