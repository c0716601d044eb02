"""What Power tells, as plain data with stable keys, for ``firecrest assess --json``."""

from typing import Any

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.charging import charging
from firecrest.assessment.power.dangers import dangers
from firecrest.assessment.power.flows import spent
from firecrest.assessment.power.standing import standing_states
from firecrest.assessment.power.truth import TruthRow, truth_table
from firecrest.assessment.power.uses import PROMISE, levels_of, uses
from firecrest.assessment.power.wiring import wiring
from firecrest.present.report import clean
from firecrest.present.text.notes import said


def power_report(assessment: Assessment) -> dict[str, Any]:
    """Dangers, the truth about every board, four uses, flow, standing, charging and wiring; SI."""
    boards = assessment.design.power.amplifiers
    body: dict[str, Any] = {
        "dangers": [said(found) for found in dangers(assessment.design)],
        "boards": [
            {"name": b.part.name, "truth": [_row(r) for r in truth_table(assessment, k)]}
            for k, (_, b) in enumerate(boards)
        ],
        "uses": [
            {
                "key": use.key,
                "level": use.level,
                "playable": use.playable,
                "runs": {wear: vars(run) for wear, run in use.runs.items()},
            }
            for use in uses(assessment)
        ],
        "standing": [vars(found) for found in standing_states(assessment)],
    }
    level = levels_of(assessment).get(PROMISE)
    flow = None if level is None else spent(assessment, level)
    body["flow"] = None if flow is None else dict(flow.watts)
    charge = charging(assessment)
    body["charging"] = None if charge is None else [
        {"from": start, "seconds": run.seconds, "ended_by": run.ended_by}
        for start, run in charge.runs
    ]  # fmt: skip
    body["wiring"] = _wiring(assessment)
    plain: dict[str, Any] = clean(body)
    return plain


def _row(row: TruthRow) -> dict[str, Any]:
    return {
        "load": row.load,
        "supply": row.supply,
        "channels": row.channels,
        "clean": row.found.watts,
        "limit": row.found.limit,
        "code": row.found.code,
        "as_printed": row.as_printed,
        "bus": row.rail,
        "heat": row.heat,
        "for_long": row.lasting.watts,
        "case": row.lasting.case,
    }


def _wiring(assessment: Assessment) -> dict[str, Any] | None:
    found = wiring(assessment)
    if found is None:
        return None
    fuse = found.fuse
    return {
        **vars(found.currents),
        "short_circuit": found.short_circuit,
        "fuse": None if fuse is None else {"kind": fuse.kind.name, "rating": fuse.rating},
        "wire": None if found.lead is None else found.lead.area,
    }
