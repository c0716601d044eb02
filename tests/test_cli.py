"""The command line: table, JSON, exit status, errors; no Qt."""

import json
import re

import pytest

from firecrest import cli
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.design.text import project_to_json
from firecrest.files.container import Document, write_document


@pytest.fixture
def run(capsys):
    def call(*arguments):
        code = cli.run(list(map(str, arguments)))
        out, err = capsys.readouterr()
        return code, out, err

    return call


def test_a_short_design_prints_its_promises_and_why(run):
    code, out, _ = run("assess", "--demo", "slipway")
    assert code == 1
    assert re.search(r"Loudness +95.2 dB +96.0.dB +close, ±2.\d.dB +close call +92.\d to 9", out)
    assert "Radiator travel gives out first" in out
    assert re.search(r"Xmax of Rowan R16 \(±40 %\) makes \d\d % of Bass reach's", out)


def test_a_kept_design_ends_with_status_0(run, tmp_path, blank):
    path = tmp_path / "kept.firecrest"
    write_document(path, Document(project_of(blank)))
    code, out, _ = run("assess", path)
    assert code == 0
    assert re.search(r"Loudness .* kept in nearly every build", out)


def test_json_reports_the_same_figures_and_the_asked_grid(run, tmp_path, slipway):
    path = tmp_path / "design.json"
    path.write_text(project_to_json(project_of(slipway)))
    code, out, _ = run(
        "assess", path, "--json", "--volts", 4, "--start", 20, "--stop", 200, "--points", 5
    )
    body = json.loads(out)
    assert code == 1
    assert body["format"] == "firecrest-report-1"
    assert body["doubt"]["promises"]["loudness"]["low"] < 95.2
    assert body["doubt"]["not_sure_of"][0]["path"] == "box.openings.0.radiator.xmax"
    assert len(body["doubt"]["ceiling"]["low"]) == len(body["doubt"]["ceiling"]["frequency"])
    assert body["loudness"]["level"] == pytest.approx(95.2, abs=0.1)
    assert body["at_drive"]["volts"] == 4
    assert body["at_drive"]["frequency"] == pytest.approx(
        [20, 35.566, 63.246, 112.468, 200], rel=1e-4
    )
    assert len(body["at_drive"]["terminals"]["cone_peak_m"][0]) == 5
    assert len(body["curves"]["first_to_give"]) == len(body["curves"]["frequency"])


def test_the_grid_asked_for_does_not_change_the_promises(run, tmp_path, slipway):
    path = tmp_path / "design.json"
    path.write_text(project_to_json(project_of(slipway)))
    coarse = json.loads(run("assess", path, "--json", "--points", 7)[1])
    fine = json.loads(run("assess", path, "--json", "--points", 900)[1])
    assert coarse["promises"] == fine["promises"]
    assert coarse["at_drive"]["tables"] == fine["at_drive"]["tables"]


def test_unknown_figures_are_null_not_numbers(run, tmp_path, slipway):
    path = tmp_path / "design.json"
    path.write_text(
        project_to_json(
            project_of(set_number(slipway, ("box", "groups", 0, "driver", "vas"), None))
        )
    )
    code, out, _ = run("assess", path, "--json")
    body = json.loads(out)
    assert code == 1
    assert body["promises"][0]["predicted"] is None
    assert body["missing"]
    assert "curves" not in body


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("assess", "none.firecrest"), "is not there"),
        (("assess",), "Name a FILE"),
        (("assess", "--demo", "none"), "There is no demo called none"),
        (("assess", "--demo", "slipway", "--volts", "x"), "--volts"),
        (("assess", "--demo", "slipway", "--volts", "0"), "--volts"),
        (
            ("assess", "--demo", "slipway", "--start", "500", "--stop", "100"),
            "--stop must be above",
        ),
        (("assess", "--demo", "slipway", "--points", "1"), "--points"),
        (("assess", "--demo", "slipway", "--nonsense"), "nonsense"),
    ],
)
def test_errors_end_with_status_2_and_one_message(run, arguments, words):
    code, out, err = run(*arguments)
    assert code == 2
    assert out == ""
    assert err.startswith("firecrest: ")
    assert words.lower() in err.lower()


def test_schema_is_printed(run):
    code, out, _ = run("schema")
    assert code == 0
    assert json.loads(out)["title"] == "Firecrest project"
