"""Random valid designs over the whole declared ranges, extremes included."""

import dataclasses
import math
import types
from collections.abc import Mapping
from functools import cache
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from firecrest.core.errors import FirecrestError
from firecrest.design.amplifiers import Amplifier, DspBoard, Efficiency, Receiver
from firecrest.design.box import OUTSIDE, Box
from firecrest.design.brief import Brief
from firecrest.design.design import Design
from firecrest.design.edits.paths import replace_at, value_at
from firecrest.design.fields import field_facts
from firecrest.design.power import BUS, FittedAmplifier, FittedDsp, FittedReceiver, Power
from firecrest.design.shapes import SIX
from firecrest.design.sources import Cell, Mains
from firecrest.design.voice import Channel, Voice

TRIES = 60


def random_design(random, bases):
    """A valid design: one of ``bases`` with some figures anywhere in their range, or all anew."""
    while True:
        try:
            if random.random() < 0.5:
                return _mutated(random, random.choice(bases))
            return _anew(random)
        except (FirecrestError, ValueError):
            continue


def number_in(random, facts):
    """A number of a field's range: an end, or anywhere between, evenly in itself or its log."""
    low, high = facts.low, facts.high
    mode = random.random()
    if mode < 0.1:
        value = low
    elif mode < 0.2:
        value = high
    elif mode < 0.6 and high > 0:
        floor = low if low > 0 else high * 1e-6
        value = math.exp(random.uniform(math.log(floor), math.log(high)))
    else:
        value = random.uniform(low, high)
    value = min(max(value, low), high)
    return round(value) if facts.whole else value


def _mutated(random, design):
    paths = list(_number_paths(design, ()))
    for _ in range(random.choice((1, 1, 2, 4, 12, 40))):
        path = random.choice(paths)
        facts = field_facts(type(value_at(design, path[:-1])), path[-1])
        value = None if facts.optional and random.random() < 0.3 else number_in(random, facts)
        try:
            design = replace_at(design, path, value)
        except FirecrestError:
            continue
    return design


def _number_paths(node, path):
    if dataclasses.is_dataclass(node):
        for f in dataclasses.fields(node):
            if field_facts(type(node), f.name) is not None:
                yield (*path, f.name)
            else:
                yield from _number_paths(getattr(node, f.name), (*path, f.name))
    elif isinstance(node, tuple):
        for place, item in enumerate(node):
            yield from _number_paths(item, (*path, place))


def _anew(random):
    chambers = [f"room-{k}" for k in range(random.choice((1, 1, 1, 2, 3, 4)))]
    channels = [f"way-{k}" for k in range(random.choice((1, 1, 1, 2, 3)))]
    made = Maker(random, chambers, channels)
    box = made.model(Box)
    rooms = [dataclasses.replace(r, id=n) for r, n in zip(made.chambers(), chambers, strict=True)]
    share = sum(r.share for r in rooms)
    if share > 1:
        rooms = [dataclasses.replace(r, share=max(r.share / share * 0.999, 0.001)) for r in rooms]
    case = dataclasses.replace(box.case, wall=min(box.case.wall, 0.2 * min(_outer(box.case))))
    groups = [
        dataclasses.replace(made.group(), id=f"g{k}", channel=channels[k % len(channels)])
        for k in range(max(len(channels), random.choice((1, 1, 2, 4))))
    ]
    box = dataclasses.replace(box, case=case, chambers=tuple(rooms), groups=tuple(groups))
    ways = tuple(
        dataclasses.replace(made.model(Channel), id=n, outputs=1, first=None) for n in channels
    )
    power = _power(random, made, len(ways))
    boards = [board for _, board in power.amplifiers]
    ways = tuple(
        dataclasses.replace(way, board=boards[k % len(boards)].id) for k, way in enumerate(ways)
    )
    return Design(
        name="random", brief=made.model(Brief), box=box, power=power, voice=Voice(channels=ways)
    )


def _power(random, made, ways):
    """Boards enough for ``ways`` channels, each on the source or behind a converter."""
    power = made.model(Power)
    mains = isinstance(power.source, Mains)
    converters = () if mains else power.converters
    rails = [BUS, *(c.id for c in converters)]
    boards = []
    for k in range(random.choice((1, 1, 1, 2))):
        part = made.model(Amplifier)
        part = dataclasses.replace(part, channels=max(part.channels, ways), own_mains=mains)
        rail = BUS if mains else random.choice(rails)
        boards.append(FittedAmplifier(id=f"amp-{k}", part=part, rail=rail))
    boards.append(FittedDsp(part=made.model(DspBoard), rail=random.choice(rails)))
    if random.random() < 0.3:
        boards.append(FittedReceiver(part=made.model(Receiver), rail=random.choice(rails)))
    random.shuffle(boards)
    loads = tuple(dataclasses.replace(x, rail=random.choice(rails)) for x in power.other_loads)
    return dataclasses.replace(
        power, boards=tuple(boards), converters=converters, other_loads=loads
    )


def _outer(case):
    return case.length, case.height, case.depth


@cache
def _hints(model):
    return get_type_hints(model, include_extras=True)


class Maker:
    """Makes models from their declarations."""

    def __init__(self, random, chambers, channels):
        self.random, self._chambers, self._channels = random, chambers, channels

    def chambers(self):
        from firecrest.design.box import Chamber

        return [self.model(Chamber) for _ in self._chambers]

    def group(self):
        from firecrest.design.box import DriverGroup

        group = self.model(DriverGroup)
        coils = group.coils if group.driver.coils == 2 else "as stated"
        return dataclasses.replace(group, coils=coils)

    def model(self, model):
        """A model with every field made up; a field with a default often keeps it."""
        for _ in range(TRIES):
            try:
                return self._model(model)
            except ValueError:
                continue
        raise ValueError(f"no valid {model.__name__} found")

    def _model(self, model):
        hints = _hints(model)
        given: dict[str, Any] = {}
        for f in dataclasses.fields(model):
            if f.name in ("origins", "tolerances", "set_aside", "shelf"):
                continue
            if f.name == "chambers" and model is Box:
                continue
            given[f.name] = self._value(model, f.name, hints[f.name])
        if model is Cell:
            given["table"] = self._rising(given["table"])
        if model is Amplifier and given["efficiency"] is not None:
            claim = self.random.randrange(len(given["claims"]))
            given["efficiency"] = Efficiency(value=given["efficiency"].value, claim=claim)
        return model(**given)

    def _rising(self, points):
        charges = sorted(self.random.sample(range(1001), len(points)))
        return tuple(
            dataclasses.replace(p, charge=c / 1000) for p, c in zip(points, charges, strict=True)
        )

    def _value(self, model, name, hint):
        random = self.random
        facts = field_facts(model, name)
        if facts is not None:
            return None if facts.optional and random.random() < 0.25 else number_in(random, facts)
        if name == "rail":
            return BUS
        if name == "boards":
            return (FittedAmplifier(part=self.model(Amplifier)), FittedDsp(part=DspBoard(name="d")))
        if name in ("id", "channel", "board"):
            return f"x{random.randrange(10**6)}"
        if name == "panel":
            return random.choice((*SIX, "front", "back", "divider-1", "divider-1-far", "edge-3"))
        if name == "holds":
            return random.choice(("", *self._chambers))
        if name in ("chamber", "front", "opens_to"):
            inner = name == "chamber"
            return random.choice(self._chambers if inner else [OUTSIDE, OUTSIDE, *self._chambers])
        return self._of_type(model, name, hint)

    def _of_type(self, model, name, hint):
        random = self.random
        origin, arguments = get_origin(hint), get_args(hint)
        if origin is Annotated:
            return self._of_type(model, name, arguments[0])
        if origin is Literal:
            return random.choice(arguments)
        if origin is tuple:
            return self._items(model, name, arguments[0])
        if origin in (Union, types.UnionType):
            kinds = list(arguments)
            return self._of_type(model, name, random.choice(kinds))
        if hint is type(None):
            return None
        if hint is bool:
            return random.random() < 0.5
        if hint is str:
            return random.choice(("A name", "ø & <b>wide</b>", "", "x" * 80))[:80]
        if origin is Mapping:
            return {}
        return self.model(hint)

    def _items(self, model, name, kind):
        least = {"groups": 1, "claims": 1, "table": 2, "channels": 1}.get(name, 0)
        count = max(least, self.random.choice((0, 0, 1, 1, 2, 3)))
        return tuple(self._of_type(model, name, kind) for _ in range(count))
