"""Attack: many designs at once give what each of them gives alone, whatever is varied."""

import random
import warnings

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.vary import vary
from firecrest.core.errors import FirecrestError
from firecrest.design.edits.paths import replace_at, stands, value_at
from firecrest.design.fields import field_facts
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.text.notes import said
from firecrest.shelf.stock import shipped_entries
from tests.assessment.test_vary import SHARES
from tests.attacks.proposing import changed
from tests.attacks.random_designs import random_design
from tests.attacks.results import Result

ROWS, PATHS = 6, 5


def attack(seed, count, seconds):
    """Some figures of random designs, varied by a tenth."""
    result = Result("columns", count, seconds)
    bases = [read_demo(name) for name in demo_names()]
    entries, compared = shipped_entries(), 0
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        for number in result.rounds():
            hand = random.Random(f"columns {seed} {number}")
            design = hand.choice(bases) if number % 3 else random_design(hand, bases)
            for _ in range(hand.randint(0, 4) if number % 3 else 0):
                design = changed(hand, design, entries, [])
            columns = columns_of(hand, design)
            rows = list(designs_of(design, columns))
            compared += len(rows)
            what = trouble(design, columns, rows)
            if what:
                names = ", ".join(".".join(map(str, path[1:])) for path in columns)
                result.fail(f"design {seed} {number} ({names}): {what}")
    result.facts["designs compared"] = compared
    return result


def columns_of(hand, design):
    """Random columns of some figures that are varied by a tenth in maps and doubt, in range."""
    columns = {}
    there = [path for path in SHARES if stands(design, path) and value_at(design, path)]
    for path in hand.sample(there, min(PATHS, len(there))):
        facts = field_facts(type(value_at(design, path[:-1])), path[-1])
        shares = np.array([hand.uniform(0.9, 1.1) for _ in range(ROWS)])
        columns[path] = np.clip(value_at(design, path) * shares, facts.low, facts.high)
    return columns


def designs_of(design, columns):
    """(row, design) of the rows that are designs by themselves."""
    for row in range(ROWS):
        made = design
        try:
            for path, values in columns.items():
                made = replace_at(made, path, float(values[row]))
        except FirecrestError:
            continue
        yield row, made


def trouble(design, columns, rows):
    """What differs, in words; nothing where nothing does."""
    try:
        found = vary(design, columns)
        for row, alone in rows:
            for many, one in zip(found.promises(row), assess(alone).promises, strict=True):
                if (many.state, said(many.reason)) != (one.state, said(one.reason)):
                    alone_is, is_here = ((p.state, said(p.reason)) for p in (one, many))
                    return f"{one.key} is {alone_is} alone, {is_here} among others"
                for a, b in ((many.predicted, one.predicted), (many.margin, one.margin)):
                    if (a is None) != (b is None) or (
                        a is not None and a != pytest.approx(b, rel=1e-7, abs=1e-7, nan_ok=True)
                    ):
                        return f"{one.key} is {b} alone, {a} among others"
    except FirecrestError as error:
        return f"refused: {error!s:.80}"
    except Exception as error:
        return f"{type(error).__name__} {error!s:.80}"
    return ""
