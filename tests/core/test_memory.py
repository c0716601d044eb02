"""Memory that is let go of stays with the process that asks for it."""

import ctypes
import subprocess
import sys

from firecrest.core.memory import keep_freed

PAGES = """
import resource
import numpy as np
from firecrest.core.memory import keep_freed

def faults(times):
    before = resource.getrusage(resource.RUSAGE_SELF).ru_minflt
    for _ in range(times):
        kept = [np.ones((64, 1024)) for _ in range(8)]
        del kept
    return resource.getrusage(resource.RUSAGE_SELF).ru_minflt - before

{first}
faults(3)
print(faults(50))
"""
ARRAYS = 50 * 8 * (64 * 1024 * 8 // 4096)
"""Pages of all arrays that are made."""


def faults(first):
    """Pages the system had to hand out for arrays made and let go in turn."""
    script = PAGES.format(first=first)
    return int(
        subprocess.run([sys.executable, "-c", script], capture_output=True, check=True).stdout
    )


def test_arrays_made_again_are_not_paid_for_again():
    assert faults("assert keep_freed()") < 0.01 * ARRAYS < faults("")


def test_another_c_library_is_left_alone(monkeypatch):
    monkeypatch.setattr(ctypes, "CDLL", lambda _: object())
    assert keep_freed() is False
