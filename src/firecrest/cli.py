"""Headless commands: figures without a display, and without loading Qt."""

import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Annotated, Any

import numpy as np
import typer
from typer.exceptions import TyperException

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.doubt.doubt import Unsure, doubt_of, doubts_of, unsure_of
from firecrest.assessment.doubt.judged import with_doubt
from firecrest.core.errors import FirecrestError
from firecrest.design.brief import LINEAR
from firecrest.design.design import Design
from firecrest.design.edits.brief import with_edges
from firecrest.design.project import variant_of
from firecrest.design.text import json_schema
from firecrest.files.container import Document, read_document
from firecrest.files.demos import read_demo_project
from firecrest.present.compare.columns import compared, verdict_of
from firecrest.present.compare.differing import ranked
from firecrest.present.compare.sheet import comparison_report, comparison_rows
from firecrest.present.power.report import power_report
from firecrest.present.promise.table import HEADS, promise_rows
from firecrest.present.report import STANDARD_DRIVE, report
from firecrest.present.spread import HEAD, doubt_report, likely_column
from firecrest.present.text.helping import why_and_what_helps
from firecrest.present.text.unsure import unsure_sentences

ALL_MET, SOME_SHORT, FAILED = 0, 1, 2

cli = typer.Typer(add_completion=False, no_args_is_help=True, rich_markup_mode=None)


@cli.callback()
def _group() -> None:
    """Firecrest: sizes small self-powered loudspeakers against their promises."""


@cli.command("assess")
def assess_command(
    file: Annotated[
        Path | None, typer.Argument(help="A .firecrest file or a bare design.json.")
    ] = None,
    demo: Annotated[str | None, typer.Option(help="Assess a shipped demo instead.")] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Every scalar and curve.")] = False,
    variant: Annotated[
        str | None, typer.Option(help="Letter of the variant; that in force when not given.")
    ] = None,
    linear: Annotated[
        bool, typer.Option("--linear", help="Tell beside it what small signals alone would give.")
    ] = False,
    volts: Annotated[
        float, typer.Option(help="Drive of the raw curves, V rms.", min=1e-6, max=1e4)
    ] = STANDARD_DRIVE,
    start: Annotated[
        float, typer.Option(help="First frequency of the raw curves, Hz.", min=1.0, max=1e5)
    ] = 10.0,
    stop: Annotated[
        float, typer.Option(help="Last frequency of the raw curves, Hz.", min=1.0, max=1e5)
    ] = 1000.0,
    points: Annotated[
        int, typer.Option(help="Points of the raw curves, evenly spaced in ln f.", min=2, max=20000)
    ] = 241,
) -> None:
    """Print the promises of a design. Exit status: 0 all met, 1 some short, 2 error."""
    if stop <= start:
        raise FirecrestError(
            f"--stop must be above --start: {stop:g} Hz is not above {start:g} Hz."
        )
    document = _document(file, demo)
    for note in document.lost:
        print(f"not readable: {note}", file=sys.stderr)
    project = document.project
    design = project.design if variant is None else project.design_of(variant_of(project, variant))
    assessment = assess(design)
    doubt, unsure = _doubt_of(assessment)
    beside = assess(with_edges(design, LINEAR)[1]) if linear else None
    if as_json:
        grid = np.geomspace(start, stop, points)
        told = report(assessment, volts, grid) | {
            "power": power_report(assessment),
            "doubt": doubt_report(doubt, unsure),
        }
        print(_json(told if beside is None else {**told, "linear": report(beside, volts, grid)}))
    else:
        sure = with_doubt(assessment, doubt)
        print(promise_table(sure))
        print("".join(f"\n- {s.plain}" for s in unsure_sentences(sure, unsure)).lstrip("\n"))
        if beside is not None:
            print(f"\nLinear: small signals at 20 °C\n{promise_table(beside)}")
    raise typer.Exit(status(assessment))


@cli.command("compare")
def compare_command(
    file: Annotated[Path | None, typer.Argument(help="A .firecrest file.")] = None,
    demo: Annotated[str | None, typer.Option(help="Compare a shipped demo instead.")] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Figures in SI.")] = False,
) -> None:
    """Print the variants of a project beside each other. Exit status: 0 when one keeps all."""
    project = _document(file, demo).project
    designs: dict[str, Design] = {v.letter: project.design_of(v) for v in project.variants}
    assessed: dict[str, Assessment] = {k: assess(design) for k, design in designs.items()}
    columns = compared(project, assessed, dict(doubts_of(designs)))
    differences = next(ranked(designs, project.in_force))
    if as_json:
        print(_json(comparison_report(columns, differences)))
    else:
        heads = ["", *(c.title for c in columns)]
        print(aligned([heads, *comparison_rows(columns, differences)]))
        print("".join(f"\n{sentence}" for sentence in verdict_of(columns)))
    raise typer.Exit(min(status(a) for a in assessed.values()))


@cli.command("schema")
def schema_command() -> None:
    """Print the JSON Schema of design.json."""
    print(_json(json_schema(), indent=1))


def _json(body: Any, indent: int | None = None) -> str:
    """JSON text that the output can carry: letters it lacks are spelt as numbers."""
    plain = (getattr(sys.stdout, "encoding", None) or "ascii").lower().replace("-", "") != "utf8"
    return json.dumps(body, indent=indent, ensure_ascii=plain)


def _document(file: Path | None, demo: str | None) -> Document:
    """The design that was asked for."""
    if demo is not None:
        return Document(read_demo_project(demo))
    if file is None:
        raise FirecrestError("Name a FILE, or a shipped design with --demo slipway.")
    return read_document(file)


def _doubt_of(assessment: Assessment) -> tuple[Doubt, tuple[Unsure, ...]]:
    """Doubt, and what makes it."""
    doubt = doubt_of(assessment.design)
    return doubt, unsure_of(assessment, doubt)


def promise_table(assessment: Assessment) -> str:
    """The promises as a table, and why."""
    likely = likely_column(assessment)
    heads = (*HEADS, HEAD) if any(likely) else HEADS
    found = zip(promise_rows(assessment), likely, strict=True)
    rows = [heads, *((*row, said)[: len(heads)] for row, said in found)]
    reasons = [f"- {sentence.plain}" for sentence in why_and_what_helps(assessment)]
    return "\n".join([assessment.design.name, "", aligned(rows), "", *reasons])


def aligned(rows: Sequence[Sequence[str]]) -> str:
    """Rows of text as columns."""
    widths = [max(map(len, column)) for column in zip(*rows, strict=True)]
    lines = ("  ".join(map(str.ljust, row, widths)) for row in rows)
    return "\n".join(line.rstrip() for line in lines)


def status(assessment: Assessment) -> int:
    """0 when every promise that must be kept is kept, else 1."""
    musts = [p for p in assessment.promises if p.importance == "must"]
    return ALL_MET if all(p.state in ("met", "close", "none") for p in musts) else SOME_SHORT


def run(arguments: list[str]) -> int:
    """Run a headless command; errors go to standard error as one message."""
    try:
        result = cli(arguments, standalone_mode=False)
    except FirecrestError as error:
        print(f"firecrest: {error}", file=sys.stderr)
        return FAILED
    except TyperException as error:
        told = error.format_message() if hasattr(error, "format_message") else str(error)
        print(f"firecrest: {told}", file=sys.stderr)
        return FAILED
    return int(result or 0)
