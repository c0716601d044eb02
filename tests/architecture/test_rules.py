"""Rules of the code base that a reader relies on."""

import ast
import re
import subprocess
import sys
from pathlib import Path

import pytest

import firecrest
from firecrest.app.theme.tokens import DARK, LIGHT, TINTS, contrast
from firecrest.assessment.verdicts import WALL
from firecrest.core.limits.kinds import KINDS
from firecrest.present.text import moves
from firecrest.present.text.notes import SENTENCES

ROOT = Path(firecrest.__file__).parent
FILES = sorted(ROOT.rglob("*.py"))
QT_FREE = ["core", "design", "assessment", "proposals", "files", "shelf", "search", "present"]


def names(folder):
    """Dotted names of the modules in a folder."""
    return [
        ".".join(("firecrest", *f.relative_to(ROOT).with_suffix("").parts))
        for f in sorted((ROOT / folder).rglob("*.py"))
    ]


def test_everything_below_the_window_loads_without_qt_pint_or_scipy():
    modules = [m for folder in QT_FREE for m in names(folder)] + ["firecrest.cli"]
    code = (
        "import importlib, sys\n"
        f"for name in {modules!r}: importlib.import_module(name)\n"
        "heavy = ('PySide6', 'shiboken6', 'pint', 'scipy')\n"
        "print([m for m in sys.modules if m.split('.')[0] in heavy])"
    )
    answer = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True)
    assert answer.stdout.strip() == "[]", answer.stderr


def test_a_headless_assessment_loads_no_qt():
    code = (
        "import sys; from firecrest.cli import run; run(['assess', '--demo', 'slipway'])\n"
        "assert not any(m.startswith('PySide6') for m in sys.modules)"
    )
    subprocess.run([sys.executable, "-c", code], check=True, capture_output=True)


@pytest.mark.parametrize("file", FILES, ids=lambda f: str(f.relative_to(ROOT)))
def test_files_and_functions_stay_small(file):
    text = file.read_text(encoding="utf-8")
    assert len(text.splitlines()) <= 400
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.FunctionDef):
            body = node.body[1:] if ast.get_docstring(node) else node.body
            length = (node.end_lineno or 0) - (body[0].lineno if body else node.lineno) + 1
            assert length <= 60, f"{node.name} has {length} lines"


def test_colours_are_named_in_the_theme_only():
    for file in FILES:
        if "theme" not in file.parts:
            assert not re.search(r"#[0-9A-Fa-f]{6}\b", file.read_text(encoding="utf-8")), file


def test_the_window_holds_no_engineering():
    """Nothing in the app converts decibels or solves for physics."""
    for file in (ROOT / "app").rglob("*.py"):
        text = file.read_text(encoding="utf-8")
        assert "firecrest.core.acoustics" not in text, file
        assert "firecrest.core.limits" not in text, file
        assert "firecrest.core.power" not in text, file


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
def test_texts_and_marks_have_contrast(theme):
    for ground in ("paper", "sheet", "tray", "field", "card"):
        for ink in ("ink", "ink2", "olive", "flame", "amber"):
            assert contrast(theme[ink], theme[ground]) >= 4.5, (ink, ground)
        assert contrast(theme["rule2"], theme[ground]) >= 3.0
    pairs = [
        ("onolive", "olive"),
        ("onyolk", "yolk"),
        ("onstripe", "stripe"),
        ("ink", "olivet"),
        ("ink", "flamet"),
        ("ink", "ambert"),
    ]
    for ink, ground in pairs:
        assert contrast(theme[ink], theme[ground]) >= 4.5, (ink, ground)


def test_every_limit_has_its_own_pattern_and_readable_line():
    codes = {kind.code: kind.tint for kind in KINDS}
    assert len(set(codes.values())) == len(codes)
    assert set(codes.values()) == set(TINTS)
    assert all(codes[kind.code] == kind.tint for kind in KINDS)
    for tint in TINTS.values():
        assert contrast(tint.light[1], LIGHT["sheet"]) >= 4.5
        assert contrast(tint.dark[1], DARK["sheet"]) >= 4.5


def texts(node):
    """Literal texts of a tree but for docstrings and what errors say."""
    if isinstance(node, ast.Raise) or (
        isinstance(node, ast.ClassDef) and node.name.endswith("Error")
    ):
        return
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        yield node.value
    for child in ast.iter_child_nodes(node):
        if not (isinstance(child, ast.Expr) and isinstance(child.value, ast.Constant)):
            yield from texts(child)


@pytest.mark.parametrize("folder", ["core", "assessment", "proposals", "search"])
def test_below_the_views_nothing_is_said_in_sentences(folder):
    """Codes and figures go up as notes. Rows of limits and units name themselves."""
    for file in (ROOT / folder).rglob("*.py"):
        if file.name not in ("errors.py", "kinds.py", "units.py", "reading.py"):
            tree = ast.parse(file.read_text(encoding="utf-8"))
            assert [text for text in texts(tree) if len(text.split()) > 3] == [], file


def test_every_note_has_its_sentence_and_every_sentence_its_note():
    used = set()
    for file in FILES:
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "note":
                used |= {c.value for c in ast.walk(node.args[0]) if isinstance(c, ast.Constant)}
    assert used | {WALL} == {*SENTENCES, *moves.TITLES, *moves.REASONS}
    assert set(moves.DETAILS) <= set(moves.TITLES)


def test_everything_public_below_the_window_is_documented():
    public = [
        (file, node)
        for folder in QT_FREE
        for file in sorted((ROOT / folder).rglob("*.py"))
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8")))
        if isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_")
    ]
    bare = [f"{f.name}:{n.name}" for f, n in public if not ast.get_docstring(n)]
    local = {
        "over",
        "at",
        "tuned",
        "origin",
        "spare",
        "note",
        "pressure",
        "table",
        "node",
        "one",
        "remembered",
    }
    assert [name for name in bare if name.split(":")[1] not in local] == []


def test_void_qt_calls_keep_their_hands_off_none(qapp):
    """A known defect of one release of the bindings lost a reference to None in every void call."""
    from PySide6.QtWidgets import QWidget

    widget = QWidget()
    before = sys.getrefcount(None)
    for _ in range(2000):
        widget.update()
    assert sys.getrefcount(None) > before - 500


def test_nothing_runs_beside_the_main_thread_but_the_child_process():
    """A thread that allocates would collect, and destroy, what belongs to the main thread."""
    for file in FILES:
        text = file.read_text(encoding="utf-8")
        if file.name not in ("worker.py", "parallel.py"):
            forbidden = r"\bimport threading|\bQThread|concurrent\.futures|use_all_cores"
            assert not re.search(forbidden, text), file


def test_every_module_of_the_core_with_a_rule_in_it_has_tests_of_its_name():
    tests = Path(__file__).parents[1]
    lacking = []
    for file in sorted((ROOT / "core").rglob("*.py")):
        nodes = ast.walk(ast.parse(file.read_text(encoding="utf-8")))
        namesake = tests / file.relative_to(ROOT).parent / f"test_{file.name}"
        if any(isinstance(n, ast.FunctionDef) for n in nodes) and not namesake.exists():
            lacking.append(str(file.relative_to(ROOT)))
    assert lacking == []


def test_no_pattern_has_a_possessive_group():
    """Python 3.11 up to 3.11.4 gets them wrong: a pasted Vas was lost without a word."""
    for path in FILES:
        assert not re.findall(r"\)(?:[*+?]|\{[\d,{}]+\})\+", path.read_text(encoding="utf-8")), path


def test_units_that_one_may_choose_are_never_literals():
    """Texts ask ``present/text/units`` for them, as fields do."""
    chosen = r"(?:figure\([^{}]*\)|:\.\df)\}(?: |\{THIN_SPACE\})(?:mm|cm²|cm³|L|g|kg|m/s)\b"
    for file in FILES:
        if "present" in file.parts:
            assert not re.search(chosen, file.read_text(encoding="utf-8")), file
