"""The reference cases of the cabinet as the core's own shapes and parts."""

import json
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from firecrest.core.cabinet import parts
from firecrest.core.cabinet.braces import Brace
from firecrest.core.cabinet.cutouts import CutOut, Rectangle, Round, Truncated
from firecrest.core.cabinet.materials import MATERIALS, Infill
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes import ball, box, cylinder, prism, stack, taper, vase
from firecrest.core.cabinet.shapes.shell import Shell

DATA = Path(__file__).parent / "data" / "cabinet"
CASES = {case["id"]: case for case in json.loads((DATA / "cases.json").read_text())["cases"]}


@cache
def expected(name: str) -> dict[str, Any]:
    return json.loads((DATA / f"{name}.json").read_text())


NAMES = {
    "birch ply": "birch plywood",
    "MDF": "fibreboard (MDF)",
    "light ply": "light plywood",
    "PLA": "solid PLA print",
    "PETG": "PETG print",
    "wood-filled PLA": "wood-filled PLA print",
}
"""The reference's names of the materials, and this program's."""


@dataclass(frozen=True)
class Case:
    raw: dict[str, Any]
    shape: Any
    shell: Shell
    parts: list[Any]
    braces: list[Brace]

    @property
    def infill(self) -> Infill | None:
        said = self.raw["print"]
        return None if said is None else Infill(said["skin"], said["infill"])

    @property
    def material(self):
        return MATERIALS[NAMES[self.raw["material"]]]

    @property
    def frames(self):
        return self.shell.frames

    @property
    def inside(self):
        return Inside(self.shape, self.shell.inside.volume, self.shell.low, self.shell.high)


@cache
def case(name: str) -> Case:
    raw = CASES[name]
    shape, module = shape_of(raw["shape"])
    return Case(
        raw,
        shape,
        module.shell(shape),
        [part_of(p) for p in raw["parts"]],
        [brace_of(b) for b in raw["braces"]],
    )


def shape_of(said: dict[str, Any]):
    kind = said["kind"]
    if kind == "box":
        joints = {k: box.Joint(**v) for k, v in said["joints"].items()}
        turned = said["round"]
        rounding = turned and box.Rounding(
            turned["edges"], turned["radius"], turned["inside"] == "follow"
        )
        return box.Box(said["L"], said["H"], said["D"], said["t"], **joints, rounding=rounding), box
    if kind == "taper":
        keys = ("L", "H", "D", "Lb", "Hb", "ox", "oy", "t")
        return taper.Taper(*(said[k] for k in keys)), taper
    if kind == "prism":
        return prism.Prism(
            said["axis"],
            said["length"],
            tuple(tuple(p) for p in said["points"]),
            tuple(said["names"]),
            tuple(said["t"]),
            tuple(said["ends"]),
            said["ends_through"],
        ), prism
    if kind == "cylinder":
        keys = ("axis", "R", "length", "t")
        ends = tuple(said["ends"])
        return cylinder.Cylinder(*(said[k] for k in keys), ends, said["ends_through"]), cylinder
    if kind == "ball":
        keys = ("R", "front", "bottom", "t", "t_front", "t_bottom")
        return ball.Ball(*(said[k] for k in keys)), ball
    if kind == "vase":
        high = said["profile"][-1][0]
        wide = max(r for _, r in said["profile"])
        shares = tuple((h / high, r / wide) for h, r in said["profile"])
        walls = (said[k] for k in ("t", "t_floor", "t_top"))
        return vase.Vase(shares, high, wide, *walls), vase
    edge, layers = said["outline"], said["layers"]
    front = layers.index("ring")
    rings = layers.count("ring")
    return stack.Stack(
        stack.rectangle(edge["a"], edge["b"]),
        edge["r"],
        said["wall"],
        said["layer"],
        front,
        rings,
        len(layers) - front - rings,
    ), stack


def cut_of(said: dict[str, Any]) -> CutOut:
    if said["shape"] == "round":
        return Round(said["d"])
    if said["shape"] == "truncated":
        return Truncated(said["d"], said["flats"])
    return Rectangle(said["a"], said["b"], said["r"])


def _known(value: float | None, estimate: float) -> float:
    return estimate if value is None else value


def part_of(said: dict[str, Any]):
    mount = parts.Mount(
        said["panel"], said["u"], said["v"], said["rot"], said.get("chamber", "main")
    )
    start = (said["name"], mount)
    kind = said["kind"]
    if kind in ("driver", "radiator"):
        cut = cut_of(said["cut"])
        common = {
            "cut": cut,
            "frame": _known(said["frame"], cut.d + parts.FRAME_OVER),
            "recess": said["recess"],
            "depth": said["depth"],
            "mass": said["mass"],
            "from_inside": said["mounted"] != "outside",
            "displacement": said["displacement"],
            "sd": said.get("Sd"),
            "xmax": said["Xmax"],
            "moving_mass": said["M_moving"],
        }
        if kind == "driver":
            return parts.Driver(
                *start,
                **common,
                magnet_d=_known(said["magnet_d"], parts.MAGNET_SHARE * cut.d),
                magnet_h=_known(said["magnet_h"], parts.MAGNET_DEEP * said["depth"]),
            )
        return parts.Radiator(*start, **common, end_d=said["end_d"], sag=said["sag"])
    if kind == "board":
        return parts.Board(*start, tuple(said["size"]), said["standoff"], said["mass"])
    if kind == "pack":
        keys = ("cell_d", "cell_length")
        return parts.Pack(
            *start,
            *(said[k] for k in keys),
            tuple(said["n"]),
            said["axis"],
            said["wrap"],
            said["wrapped"],
            said["standoff"],
            said["mass"],
        )
    if kind == "cup":
        return parts.Cup(*start, cut_of(said["cut"]), said["depth"], said["mass"])
    if kind == "port":
        bends = tuple(parts.Bend(**b) for b in said["bends"])
        keys = ("inner_d", "wall", "length")
        return parts.Port(*start, *(said[k] for k in keys), bends, None, said["mass"])
    return parts.Knob(*start, cut_of(said["cut"]), said["bushing"], said["nut"], said["mass"])


def brace_of(said: dict[str, Any]) -> Brace:
    window = said["window"] and cut_of(said["window"])
    return Brace(
        said["name"], said["axis"], said["at"], said["t"], window, said["divider"], said["groove"]
    )
