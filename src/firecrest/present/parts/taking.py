"""What taking a file of parts would do, in words, row by row."""

from firecrest.shelf.exchange import Taking
from firecrest.shelf.table import Problem, Table

LINES = 400


def report(name: str, table: Table, taking: Taking) -> str:
    """A summary, an empty line, and one line for everything that was not understood."""
    said = [
        f"{name}: {len(taking.new)} new parts, {len(taking.changed)} changed, "
        f"{len(taking.same)} as they are."
    ]
    if table.problems:
        said[0] += f" {len(table.problems)} cells or rows were not understood."
    if table.ignored:
        said[0] += f" Columns left out: {', '.join(table.ignored)}."
    lines = [_line(p) for p in table.problems[:LINES]]
    if len(table.problems) > LINES:
        lines.append(f"and {len(table.problems) - LINES} more")
    return "\n\n".join([said[0], "\n".join(lines)]) if lines else said[0]


def _line(problem: Problem) -> str:
    place = f"Row {problem.row}"
    if problem.column:
        place += f", {problem.column}"
    text = f" “{problem.text[:40]}”" if problem.text else ""
    return f"{place}:{text} {problem.reason}"
