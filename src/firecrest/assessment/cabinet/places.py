"""Where drivers and openings sound from: their places on the panels, or as it is said."""

from collections.abc import Sequence
from typing import Any, TypeVar

from firecrest.assessment.columns import changed
from firecrest.assessment.lower import inputs
from firecrest.assessment.memo import Memo
from firecrest.core.arrays import Number
from firecrest.core.cabinet.frames import Frame
from firecrest.design.box import DriverGroup, Port, Position, RadiatorSet
from firecrest.design.case import Case
from firecrest.design.shapes import frames_of, shape_of

Element = TypeVar("Element", bound=Any)


def place_of(case: Case, element: DriverGroup | RadiatorSet | Port) -> Position:
    """The middle of an element's places, as heard in front of the box; else as it is said."""
    made: Position = _located(element, frames_of(shape_of(case))).place
    return made


def located(case: Case, elements: Sequence[Element]) -> tuple[Element, ...]:
    """Elements with the places that follow from where they are mounted."""
    if not any(e.mounts for e in elements):
        return tuple(elements)
    frames = frames_of(shape_of(case))
    return tuple(_located(e, frames) for e in elements)


def _located(element: Element, frames: dict[str, Frame]) -> Element:
    points = [frames[m.panel].at(m.u, m.v) for m in element.mounts if m.panel in frames]
    if not points:
        return element
    right, up, forward = (_mean([p[k] for p in points]) for k in range(3))
    place = changed(element.place, {"right": right, "up": up, "forward": forward})
    made: Element = changed(element, {"place": place})
    return made


def _mean(values: Sequence[Number]) -> Number:
    total: Number = 0.0
    for value in values:
        total = total + value
    return total / len(values)


def unplaced(elements: inputs.Elements, memo: Memo) -> inputs.Elements:
    """The same without places: all that the network is made of.

    They stay the same objects wherever things are moved to, and with them all that follows.
    """
    return memo(
        sounding_elements,
        None,
        elements.chambers,
        tuple(_unplaced(g, memo) for g in elements.groups),
        tuple(_unplaced(o, memo) for o in elements.openings),
        elements.air_speed,
        elements.air_loss,
    )


def _unplaced(element: Element, memo: Memo) -> Element:
    kept = {k: v for k, v in vars(element).items() if k not in PLACED}
    made: Element = memo(_made, type(element), tuple(kept), *kept.values())
    return made


PLACED = ("place", "mounts")
MIDDLE = Position()


def _made(kind: type, names: tuple[str, ...], *values: Any) -> Any:
    """An element with these figures in the middle of the front; ranges were checked before."""
    made: Any = object.__new__(kind)
    vars(made).update(zip(names, values, strict=True))
    vars(made).update(place=MIDDLE, mounts=())
    return made


def sounding_elements(
    case: Case | None,
    chambers: tuple[Any, ...],
    groups: tuple[inputs.Group, ...],
    openings: tuple[inputs.Opening, ...],
    air_speed: Number,
    air_loss: Number,
) -> inputs.Elements:
    """All that sound depends on; ``case`` is None where nothing has a place in it."""
    if case is not None:
        groups, openings = located(case, groups), located(case, openings)
    return inputs.Elements(chambers, groups, openings, air_speed=air_speed, air_loss=air_loss)
