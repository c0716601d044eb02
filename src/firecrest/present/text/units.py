"""In which units figures are shown: one object, which every text and field asks.

A kind of figure is a quantity and the unit it is usually shown in. Who shows it in another one
chooses that here, for the field and for all that is said about such figures.
"""

from collections.abc import Callable, Iterable
from typing import SupportsFloat

from firecrest.core.units import QUANTITIES, figure, from_si, shown, to_si

MOST_DIGITS = 5


class ShownUnits:
    """The units in force; ``follow`` gives the object that knows what was chosen."""

    def __init__(self) -> None:
        self._chosen: Callable[[str, str], str] = lambda quantity, usual: usual
        self._known: dict[tuple[str, str], str] = {}

    def follow(self, chosen: Callable[[str, str], str]) -> None:
        """``chosen(quantity, usual unit)`` is asked from now on, once for each kind of figure."""
        self._chosen, self._known = chosen, {}

    def unit(self, quantity: str, usual: str) -> str:
        """The unit in force for a kind of figure; the usual one where none of its own is chosen."""
        known = self._known.get((quantity, usual))
        if known is None:
            chosen, labels = (
                self._chosen(quantity, usual),
                [u.label for u in QUANTITIES[quantity].units],
            )
            known = self._known[quantity, usual] = chosen if chosen in labels else usual
        return known

    def digits(self, quantity: str, usual: str, digits: int) -> int:
        """Decimals in the unit in force that keep about the resolution of the usual one."""
        unit = self.unit(quantity, usual)
        if unit == usual:
            return digits
        step = to_si(10.0**-digits, quantity, usual) - to_si(0, quantity, usual)
        own, needed = step / QUANTITIES[quantity].unit(unit).factor, 0
        while own < 0.5 and needed < MOST_DIGITS:
            own *= 10
            needed += 1
        return needed

    def value(self, value: SupportsFloat, quantity: str, usual: str) -> float:
        """An SI value in the unit in force."""
        return from_si(float(value), quantity, self.unit(quantity, usual))

    def text(self, value: SupportsFloat, quantity: str, usual: str, digits: int) -> str:
        """An SI value with its unit, with ``digits`` decimals in the usual one."""
        unit = self.unit(quantity, usual)
        return shown(value, quantity, unit, self.digits(quantity, usual, digits))

    def of(
        self,
        value: SupportsFloat,
        most: SupportsFloat,
        quantity: str,
        usual: str,
        digits: tuple[int, int],
    ) -> str:
        """A value of what there is at most, in one unit, with decimals of both: "2.1 of 4.5 mm"."""
        own, of_most = digits
        part = figure(self.value(value, quantity, usual), self.digits(quantity, usual, own))
        return f"{part} of {self.text(most, quantity, usual, of_most)}"

    def sides(self, values: Iterable[SupportsFloat]) -> str:
        """Lengths beside each other, in one unit: "340 × 200 × 190 mm"."""
        digits, found = self.digits("length", "mm", 0), list(values)
        parts = [figure(self.value(v, "length", "mm"), digits) for v in found[:-1]]
        return " × ".join([*parts, self.text(found[-1], "length", "mm", 0)])


units = ShownUnits()
"""The units of this program."""
told, told_of, told_sides = units.text, units.of, units.sides
