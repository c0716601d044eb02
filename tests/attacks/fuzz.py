"""Attack: a coverage-guided fuzzer on the readers of containers, sheets, tables and curves.

Each reader is fuzzed in a process of its own for the time that is given; an error that is not
ours, or that only the guard at the reader's edge caught, is a failure, and so is a second of time.
"""

import os
import re
import subprocess
import sys
import tempfile
from pathlib import Path

from tests.attacks.results import Result

READERS = ("container", "sheet", "parts CSV", "curve")
NEEDS = "pip install -r requirements-attack.txt"


def attack(seed, count, seconds):
    """Fuzz every reader for an equal share of the time, ``count`` tries each at most."""
    result = Result("fuzz", count * len(READERS), seconds)
    runs = 0
    for name in READERS:
        with tempfile.TemporaryDirectory() as folder:
            share = f"{seconds / len(READERS):.0f}"
            done = subprocess.run(
                [sys.executable, "-m", __name__, name, f"-max_total_time={share}",
                 f"-runs={count}", f"-seed={seed}", "-timeout=2", "-rss_limit_mb=1000",
                 "-max_len=20000", f"-artifact_prefix={folder}/", f"{folder}/seeds"],
                capture_output=True, text=True, check=False, env={**os.environ, "SEEDS": folder},
            )  # fmt: skip
            told = done.stderr
            runs += int(
                (re.findall(r"Done (\d+) runs", told) or re.findall(r"#(\d+)", told) or [0])[-1]
            )
            covered = re.findall(r"cov: (\d+)", told)
            result.facts[name] = f"coverage {covered[-1] if covered else 0}"
            if done.returncode:
                kept = [p.read_bytes()[:200] for p in Path(folder).glob("*-*") if p.is_file()]
                lines = told[told.find("=== Uncaught") :].splitlines()[:14]
                result.fail(f"{name}: {' '.join(lines)[:900]} {kept[:1]}")
    result.tried = runs
    return result


def _main():
    try:
        import atheris
    except ImportError:
        sys.exit(f"ModuleNotFoundError: the fuzzer is not installed: {NEEDS}")
    with atheris.instrument_imports(include=["firecrest", "zipfile", "csv"]):
        from firecrest.core.errors import FirecrestError
        from tests.attacks import mutations

    name, arguments = sys.argv[1], sys.argv[2:]
    seeds = Path(os.environ["SEEDS"]) / "seeds"
    seeds.mkdir()
    readers = {n: (data, read) for n, data, read in mutations.readers(Path(tempfile.mkdtemp()))}
    good, read = readers[name]
    (seeds / "good").write_bytes(good)

    def one(data):
        try:
            read(data)
        except FirecrestError as error:
            if error.unforeseen:
                raise error.__cause__ from error

    atheris.Setup([sys.argv[0], *arguments], one)
    atheris.Fuzz()


if __name__ == "__main__":
    _main()
