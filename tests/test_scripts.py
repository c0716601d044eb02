"""The scripts say what they do, and leave nothing behind."""

import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
SCRIPTS = sorted(p.name for p in (ROOT / "script").iterdir() if p.is_file() and p.name[0] != "_")


def test_there_are_the_scripts_the_readme_promises():
    assert {"demo", "test", "lint", "screenshots", "bench", "attack"} <= set(SCRIPTS)
    run = (ROOT / ".ci/run").read_text()
    assert "script/lint" in run
    assert "script/test" in run


@pytest.mark.parametrize("name", SCRIPTS)
def test_help_is_one_usage_line_and_does_nothing(name):
    answer = subprocess.run([ROOT / "script" / name, "--help"], capture_output=True, text=True)
    assert answer.returncode == 0
    assert answer.stdout.startswith(f"usage: script/{name}")
    assert answer.stderr == ""


def test_requirements_are_pinned_and_name_no_host():
    for name in ("requirements.txt", "requirements-dev.txt", "requirements-attack.txt"):
        for line in (ROOT / name).read_text().splitlines():
            if line and not line.startswith(("#", "-r")):
                assert "==" in line
            assert "://" not in line
