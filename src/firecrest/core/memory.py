"""Memory of a process that works out columns of designs, one after the other.

Arrays of a few hundred kilobytes are made and let go all the time. The C library by default hands
such memory back to the system at once, and each new array is paid for again, page by page.
"""

import ctypes

TRIM_THRESHOLD, MMAP_THRESHOLD = -1, -3
"""Parameters of mallopt(3), GNU C library."""
KEPT = 256 << 20
"""Bytes let go that stay with the process: more than any job uses at once."""
FROM_THE_HEAP = 32 << 20
"""Largest array, bytes, that comes from what is kept: the most that can be asked for."""


def keep_freed() -> bool:
    """From now on this process keeps what it lets go of; False where the C library can't."""
    try:
        mallopt = ctypes.CDLL(None).mallopt
    except AttributeError:
        return False
    return bool(mallopt(TRIM_THRESHOLD, KEPT) and mallopt(MMAP_THRESHOLD, FROM_THE_HEAP))
