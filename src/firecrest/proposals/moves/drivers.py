"""Drivers: one more of the same, and the other wiring of those there."""

from collections.abc import Iterator, Mapping

from firecrest.core.note import note
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at, value_at
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt


def second(scene: Scene) -> Iterator[Proposal]:
    """One more driver of each group, in parallel and in series."""
    for k, group in enumerate(scene.design.box.groups):
        place = ("box", "groups", k)
        for way, other in (("in_parallel", "in_series"), ("in_series", "in_parallel")):
            if getattr(group, other) == 1:
                change = {way: getattr(group, way) + 1}
                title = note("second", part=group.driver.name, parallel=way == "in_parallel")
                yield from attempt(
                    "second", title, (*place, way), _rewired, scene.design, k, change
                )


def wiring(scene: Scene) -> Iterator[Proposal]:
    """Series in place of parallel, and the other way; two coils the other way too."""
    for k, group in enumerate(scene.design.box.groups):
        place = ("box", "groups", k)
        changes: list[dict[str, object]] = []
        if group.in_series != group.in_parallel:
            changes.append({"in_series": group.in_parallel, "in_parallel": group.in_series})
        if group.driver.coils == 2:
            now = group.driver.stated_for if group.coils == "as stated" else group.coils
            changes.append({"coils": "parallel" if now == "series" else "series"})
        for change in changes:
            way = str(change.get("coils") or ("series" if group.in_parallel > 1 else "parallel"))
            title = note("wiring", part=group.driver.name, way=way, coils="coils" in change)
            path = (*place, "in_parallel")
            yield from attempt("wiring", title, path, _rewired, scene.design, k, change)


def _rewired(design: Design, place: int, change: Mapping[str, object]) -> Design:
    path = ("box", "groups", place)
    return replace_at(design, path, rebuilt(value_at(design, path), **change))
