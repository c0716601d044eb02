"""The documentation is what the program does."""

import importlib.util
import json
import re
from pathlib import Path

import pytest

from firecrest.assessment.assess import assess
from firecrest.core.limits.kinds import KINDS
from firecrest.design.text import project_from_json
from firecrest.present.report import report

ROOT = Path(__file__).parent.parent
FORMAT = (ROOT / "docs/format.md").read_text(encoding="utf-8")


@pytest.fixture(scope="module")
def generator():
    spec = importlib.util.spec_from_file_location("format_docs", ROOT / "script/_format.py")
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def test_format_tables_and_schema_are_current(generator):
    assert generator.format_page(FORMAT) == FORMAT, "run script/format"
    stored = (ROOT / "docs/design.schema.json").read_text(encoding="utf-8")
    assert generator.schema_text() == stored, "run script/format"


def test_the_design_written_by_hand_in_the_docs_plays():
    text = re.search(r"```json\n(.*?)```", FORMAT, re.S).group(1)
    assessment = assess(project_from_json(text).design)
    assert assessment.promise("loudness").predicted is not None
    assert assessment.missing == ()


def test_every_key_of_the_report_is_documented(slipway):
    body = report(assess(slipway), 2.83, assess(slipway).acoustic.frequency)
    keys = {*body, *body["at_drive"], *body["curves"], *body["loudness"], *body["runtime"]}
    assert [key for key in keys if f"`{key}`" not in FORMAT] == []
    for name in (kind.key for kind in KINDS if kind.detail):
        assert f"`{name}`" in FORMAT
    json.dumps(body, allow_nan=False)


PAGES = [*ROOT.glob("*.md"), *(ROOT / "docs").rglob("*.md")]


@pytest.mark.parametrize("page", sorted(PAGES), ids=lambda p: p.name)
def test_links_between_pages_lead_somewhere(page):
    for target in re.findall(r"\]\(([^)#]+)\)", page.read_text(encoding="utf-8")):
        assert (page.parent / target).exists(), target
