"""Names are free: elements refer to each other by id, so a new name changes no figure."""

import json

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.sharing import shared_air
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.frame import moves
from firecrest.present.parts import wiring
from firecrest.present.plot import views
from firecrest.present.size import boxes


def renamed(node):
    """A tree of JSON in which every name is another one, and all chambers are called alike."""
    if isinstance(node, dict):
        return {k: "Alike" if k == "name" else renamed(v) for k, v in node.items()}
    return [renamed(item) for item in node] if isinstance(node, list) else node


def seen(design):
    """What is worked out and proposed, without the words."""
    a = assess(design)
    figures = [(p.key, p.predicted, p.state) for p in a.promises]
    proposed = next(moves.moves_of(design))
    ways = [wiring.ways(a, place)[0].least for place in range(len(design.box.groups))]
    edges = [(e.path, e.kind, e.x, e.y) for e in boxes.picture(a).elements]
    return figures, shared_air(a), len(proposed), ways, edges, len(views.response_plot(a).curves)


@pytest.mark.parametrize("name", demo_names())
def test_other_names_change_no_figure(name):
    design = read_demo(name)
    body = renamed(json.loads(project_to_json(project_of(design))))
    assert seen(project_from_json(json.dumps(body)).design) == seen(design)
