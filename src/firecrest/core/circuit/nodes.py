"""A small system of nodal equations on arrays: entered element by element, solved at once."""

import numpy as np

from firecrest.core.arrays import Complex, inverse

GROUNDED = -1
BY_HAND = 4
"""Systems up to this size are eliminated here: that takes fewer passes than a library does."""


class Nodes:
    """Equations sum_j a_ij x_j = b_i with array coefficients (..., F) and ``channels`` drives.

    No pivots are sought: every equation is that of a node with losses of its own, whose diagonal
    does not vanish.
    """

    def __init__(self, count: int, channels: int) -> None:
        self.count, self.channels = count, channels
        self._matrix: dict[tuple[int, int], Complex] = {}
        self._drive: dict[tuple[int, int], Complex] = {}

    def add(self, row: int, column: int, value: Complex) -> None:
        """Add to a coefficient."""
        known = self._matrix.get((row, column))
        self._matrix[row, column] = value if known is None else known + value

    def drive(self, row: int, channel: int, value: Complex) -> None:
        """Add to what drives an equation per volt of a channel."""
        known = self._drive.get((row, channel))
        self._drive[row, channel] = value if known is None else known + value

    def join(self, a: int, b: int, own: Complex, through: Complex) -> None:
        """Enter a two-ended element; an end below 0 is held at rest."""
        for here, there in ((a, b), (b, a)):
            if here > GROUNDED:
                self.add(here, here, own)
                if there > GROUNDED:
                    self.add(here, there, -through)

    def solved(self) -> tuple[Complex, ...]:
        """Answers, each (channels, ..., F)."""
        values = (*self._matrix.values(), *self._drive.values())
        shape = np.broadcast_shapes(*(np.shape(v) for v in values))
        if self.count == self.channels == 1:
            only = np.asarray(self._drive[0, 0])
            right = [only.reshape((1,) * (1 + len(shape) - only.ndim) + only.shape)]
        else:
            right = [self._right(row, shape) for row in range(self.count)]
        if self.count <= BY_HAND:
            return self._eliminated(right)
        return self._by_library(right, shape)

    def _right(self, row: int, shape: tuple[int, ...]) -> Complex:
        found = np.zeros((self.channels, *shape), dtype=np.complex128)
        for channel in range(self.channels):
            value = self._drive.get((row, channel))
            if value is not None:
                found[channel] = value
        return found

    def _eliminated(self, right: list[Complex]) -> tuple[Complex, ...]:
        """Gaussian elimination, coefficient by coefficient."""
        matrix, count = dict(self._matrix), self.count
        for pivot in range(count - 1):
            own = inverse(matrix[pivot, pivot])
            for row in range(pivot + 1, count):
                below = matrix.get((row, pivot))
                if below is None:
                    continue
                factor = below * own
                for column in range(pivot + 1, count):
                    above = matrix.get((pivot, column))
                    if above is not None:
                        known = matrix.get((row, column))
                        step = factor * above
                        matrix[row, column] = -step if known is None else known - step
                right[row] = right[row] - factor * right[pivot]
        answer: list[Complex] = [np.zeros(())] * count
        for row in reversed(range(count)):
            left = right[row]
            for column in range(row + 1, count):
                value = matrix.get((row, column))
                if value is not None:
                    left = left - value * answer[column]
            answer[row] = np.asarray(left * inverse(matrix[row, row]))
        return tuple(answer)

    def _by_library(self, right: list[Complex], shape: tuple[int, ...]) -> tuple[Complex, ...]:
        matrix = np.zeros((*shape, self.count, self.count), dtype=np.complex128)
        for (row, column), value in self._matrix.items():
            matrix[..., row, column] = value
        answer = np.linalg.solve(matrix, np.moveaxis(np.stack(right), (0, 1), (-2, -1)))
        return tuple(np.moveaxis(answer[..., node, :], -1, 0) for node in range(self.count))
