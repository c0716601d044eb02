"""Another kind of box: closed, with a port, with radiators, each from its sensible start."""

from collections.abc import Iterator
from typing import get_args

from firecrest.core.note import note
from firecrest.proposals.layouts import Kind, kind_of, with_kind
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt


def opening(scene: Scene) -> Iterator[Proposal]:
    """Of the first chamber."""
    now = kind_of(scene.design)
    for kind in get_args(Kind):
        if kind != now:
            title = note("opening", kind=kind)
            path = ("box", "openings")
            yield from attempt("opening", title, path, with_kind, scene.design, kind)
