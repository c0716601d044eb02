"""The models: ranges, references, and messages."""

import dataclasses
import json

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.errors import DesignError, FirecrestError
from firecrest.design.box import Case, Port
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.design.fields import field_facts, label_of
from firecrest.design.project import project_of
from firecrest.design.text import json_schema, project_from_json, project_to_json

COST = ("brief", "cost", "price")


def body(design):
    return json.loads(project_to_json(project_of(design)))


def test_round_trip(slipway, blank):
    for design in (slipway, blank):
        assert project_from_json(project_to_json(project_of(design))).design == design


def test_ranges_are_declared_once_and_read_by_fields(slipway):
    facts = field_facts(Case, "length")
    assert (facts.low, facts.high, facts.unit) == (0.03, 3, "mm")
    assert facts.range_text() == "30 to 3000 mm"
    assert facts.range_text("in") == "1.181 to 118.1 in"
    assert field_facts(Port, "shape") is None
    assert label_of(Port, "shape") == "Shape"
    with pytest.raises(DesignError, match="Length can be 30 to 3000 mm"):
        set_number(slipway, ("box", "case", "length"), 5.0)


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        (("box", "groups", 0, "chamber"), "attic", "there is no chamber attic"),
        (("box", "groups", 0, "channel"), "left", "no voice channel left"),
        (("box", "groups", 0, "front"), "main", "faces the chamber behind it"),
        (("box", "openings", 0, "opens_to"), "main", "leads back into it"),
        (("box", "chambers", 0, "id"), "outside", "cannot have the id outside"),
        (("box", "case", "wall"), 0.098, "leave no room inside"),
        (("voice", "channels", 0, "outputs"), 3, "the voice uses 3 outputs"),
        (("power", "boards", 0, "part", "own_mains"), True, "disagree about a mains supply"),
        (("voice", "channels", 0, "blocks", 0, "frequency"), 21600.0, "can be 5 to 20000 Hz"),
        (("power", "boards", 1, "part", "sample_rate"), 1.0, "can be 32 to 384 kHz"),
        (("brief", "bass", "drop"), 5, "3, 6 or 10"),
        (("name",), "x" * 200, "at most 80"),
    ],
)
def test_a_design_that_does_not_hold_together_is_refused(slipway, path, value, words):
    with pytest.raises(DesignError, match=words):
        replace_at(slipway, path, value)


def test_linkwitz_riley_needs_even_orders(slipway):
    block = ("voice", "channels", 0, "blocks", 0)
    odd = replace_at(slipway, (*block, "order"), 3)
    with pytest.raises(DesignError, match="even order"):
        replace_at(odd, (*block, "family"), "linkwitz_riley")


def test_cell_tables_must_rise(slipway):
    table = slipway.power.source.cell.table
    with pytest.raises(DesignError, match="must rise in charge"):
        replace_at(slipway, ("power", "source", "cell", "table"), table[::-1])


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "not readable JSON"),
        ("[1]", 'no "schema" number'),
        ("{}", 'no "schema" number'),
        ('{"schema": 99}', "Open it with a newer Firecrest"),
        ('{"schema": 0}', "is not known"),
        ("[" * 100000, "not readable JSON"),
        ('{"schema": 1}', "brief"),
    ],
)
def test_foreign_text_is_refused_with_a_reason(text, words):
    with pytest.raises(DesignError, match=words):
        project_from_json(text)


def test_unknown_keys_and_infinities_are_refused_by_place(slipway):
    wrong = body(slipway)
    wrong["variants"][0]["box"]["case"]["colour"] = "red"
    with pytest.raises(DesignError, match=r"box.case.colour"):
        project_from_json(json.dumps(wrong))
    wrong = body(slipway)
    wrong["brief"]["loudness"]["level"] = float("inf")
    with pytest.raises(DesignError, match="level"):
        project_from_json(json.dumps(wrong))


def leaves(node, path=()):
    items = node.items() if isinstance(node, dict) else enumerate(node)
    for key, value in items:
        here = (*path, key)
        yield here
        if isinstance(value, dict | list):
            yield from leaves(value, here)


@settings(max_examples=150)
@given(data=st.data())
def test_any_mutation_is_read_or_refused_by_our_own_error(slipway, data):
    wrong = body(slipway)
    path = data.draw(st.sampled_from(list(leaves(wrong))))
    junk = st.one_of(
        st.none(),
        st.booleans(),
        st.floats(),
        st.integers(),
        st.text(max_size=5),
        st.just([]),
        st.just({}),
    )
    node = wrong
    for step in path[:-1]:
        node = node[step]
    node[path[-1]] = data.draw(junk)
    try:
        project_from_json(json.dumps(wrong))
    except FirecrestError as error:
        assert str(error)


@given(st.binary(max_size=200))
def test_random_bytes_are_no_design(junk):
    with pytest.raises(DesignError):
        project_from_json(junk)


def test_edits_share_untouched_branches(slipway):
    edited = set_number(slipway, COST, 400.0)
    assert edited.box is slipway.box
    assert edited.power is slipway.power
    assert edited.brief.bass is slipway.brief.bass
    with pytest.raises(dataclasses.FrozenInstanceError):
        edited.name = "other"


def test_schema_is_generated_and_names_every_branch():
    schema = json_schema()
    assert set(schema["properties"]) == {"schema", "name", "brief", "variants", "in_force"}
    assert {"Box", "Power", "Voice", "MeasuredCurve"} <= set(schema["$defs"])


@pytest.mark.parametrize(
    "text",
    [
        b'{"schema": 3, "name": [' + b"1," * 4_000_000 + b"1]}",
        b"[" * 100_000,
        b'{"schema": 3, "a": ' + b"[" * 900 + b"]" * 900 + b"}",
        b'{"schema": 1' + b"0" * 5000 + b"}",
        b'{"schema": true}',
        b'{"schema": 3, "name": "\\ud800"}',
        b'{"schema": 3, "' + b"k" * 1_000_000 + b'": 1}',
        b"\xff\xfe\x00{",
        b"\x00",
    ],
)
def test_texts_of_any_kind_get_a_short_answer_of_our_own(text):
    """8 MB of ones used to take 36 s and 6.5 GB."""
    with pytest.raises(DesignError) as told:
        project_from_json(text)
    assert not told.value.unforeseen
    assert len(str(told.value)) < 1500
