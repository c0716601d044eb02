"""Masses of a case and all in it, each with where it sits."""

from collections.abc import Iterable, Mapping, Sequence

from firecrest.core.cabinet.balance import Weighed
from firecrest.core.cabinet.braces import Brace, air_taken, middle
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.materials import Infill, Material, material_share
from firecrest.core.cabinet.parts import Part, centre, cut_of, hole, placed, recess
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes.shell import Body, Shell, difference


def shell_body(shell: Shell, parts: Iterable[Part]) -> Body:
    """Walls less openings, recesses and knobs' holes, with their middle."""
    gone = [shell.inside]
    for part in parts:
        if part.mount.panel in shell.frames and cut_of(part) is not None:
            gone += cut_away(part, placed(part, dict(shell.frames)))
    return difference(shell.outside, *gone)


def cut_away(part: Part, at: Frame) -> list[Body]:
    """What a part's recess and hole take of the panel that it is mounted on."""
    found = []
    sunk = float(recess(part))
    deep = float(getattr(part, "recess", 0.0))
    if sunk > 0:
        found.append(Body(sunk, at.at(0.0, 0.0, deep / 2)))
    through = float(hole(part, at.t))
    if through > 0:
        start = deep if sunk > 0 else 0.0
        found.append(Body(through, at.at(0.0, 0.0, (start + at.t) / 2)))
    return found


def case_mass(body: Body, material: Material, infill: Infill | None, wall: float) -> Weighed:
    """The bare case; of a print only a share of the wall is material."""
    share = float(material_share(infill, wall))
    return Weighed("case", float(body.volume) * float(material.density) * share, body.centre)


def brace_masses(
    braces: Iterable[Brace],
    inside: Inside,
    density: float,
    gone: Mapping[int, Sequence[Body]] | None = None,
) -> list[Weighed]:
    """Braces and dividers by the air they take: what sits in grooves replaces wall.

    ``gone``: what openings take of them, by their number.
    """
    made = []
    for k, brace in enumerate(braces):
        at = middle(brace, inside.low, inside.high)
        whole = Body(float(air_taken(brace, inside)), at)
        body = difference(whole, *(gone or {}).get(k, ()))
        x, y, z = (float(c) for c in body.centre)
        made.append(Weighed(brace.name, density * float(body.volume), (x, y, z)))
    return made


def part_masses(parts: Iterable[tuple[Part, Frame]]) -> list[Weighed]:
    """Parts, each with the frame at its place, by their stated mass."""
    return [Weighed(p.name, float(p.mass), centre(p, at)) for p, at in parts]


def foot_masses(
    points: Sequence[tuple[float, float]], each: float, lowest: float, height: float
) -> list[Weighed]:
    """Feet at (x, z), half their height below the case."""
    return [
        Weighed(f"foot {k + 1}", each, (x, lowest - height / 2, z))
        for k, (x, z) in enumerate(points)
    ]
