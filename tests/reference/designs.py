"""Reference cases and systems as ordinary designs."""

import json
from pathlib import Path

from firecrest.design.amplifiers import Amplifier, Claim, DspBoard, Efficiency
from firecrest.design.blocks import HighPass, LowPass, LowShelf, Parametric
from firecrest.design.box import Box, Case, Chamber, DriverGroup, Port, RadiatorSet
from firecrest.design.brief import (
    LINEAR,
    BassPromise,
    Brief,
    Conditions,
    Listening,
    LoudnessPromise,
    RuntimePromise,
)
from firecrest.design.design import Design
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.power import FittedAmplifier, FittedDsp, Lead, OtherLoad, Power
from firecrest.design.sources import Cell, CellPoint, Mains, Pack, ProtectionBoard, WallSupply
from firecrest.design.voice import Channel, Voice

DATA = Path(__file__).parent / "data"
CASES = {c["id"]: c for c in json.loads((DATA / "cases.json").read_text())["cases"]}
SYSTEMS = {s["id"]: s for s in json.loads((DATA / "systems/systems.json").read_text())["systems"]}
WALL = 0.012


def expected(name: str) -> dict:
    return json.loads((DATA / "expected" / f"{name}.json").read_text())


def expected_system(name: str) -> dict:
    return json.loads((DATA / "systems" / f"{name}.json").read_text())


def driver_part(d: dict) -> DriverPart:
    return DriverPart(
        name=d.get("label", "Alder"),
        re=d["Re"],
        le=d["Le"],
        l2=d["L2"],
        r2=d["R2"],
        fs=float(d["Fs"]),
        qes=d["Qes"],
        qms=d["Qms"],
        vas=d["Vas"],
        sd=d["Sd"],
        xmax=d["Xmax"],
        pe=float(d["Pe"]),
    )


def case_of(longest_inner: float) -> Case:
    return Case(length=longest_inner + 2 * WALL, height=0.25, depth=0.25, wall=WALL)


def filters(rows: list[dict]) -> tuple:
    made = []
    for row in rows:
        kind, f = row["type"], float(row["f"])
        if kind == "highpass_butterworth":
            made.append(HighPass(kind="high_pass", frequency=f, order=row["order"]))
        elif kind in ("lowpass_linkwitz_riley", "lr4_lowpass"):
            made.append(LowPass(kind="low_pass", frequency=f, family="linkwitz_riley", order=4))
        elif kind == "low_shelf":
            made.append(
                LowShelf(kind="low_shelf", frequency=f, gain=float(row["gain_db"]), q=row["Q"])
            )
        elif kind in ("parametric", "peq"):
            made.append(
                Parametric(kind="parametric", frequency=f, gain=float(row["gain_db"]), q=row["Q"])
            )
    return tuple(made)


def any_power(channels: int = 1) -> Power:
    """A mains amplifier that is of no interest to the case."""
    board = Amplifier(
        name="Sedge", claims=(Claim(power=100.0, load=4.0),), channels=channels, own_mains=True
    )
    boards = (FittedAmplifier(part=board), FittedDsp(part=DspBoard(name="Teal")))
    return Power(boards=boards, source=Mains(kind="mains"), lead=Lead(contacts=0.0))


def case_design(name: str) -> Design:
    """A case of cases.json: leaks as measured resistances, effective port length as stated."""
    case = CASES[name]
    rear, front = case["enclosure"]["rear"], case["enclosure"]["front"]
    count, wiring = case["array"]["count"], case["array"]["wiring"]
    chambers = [_chamber("rear", rear)] + ([_chamber("front", front)] if front else [])
    ports = [p for n, b in (("rear", rear), ("front", front)) if b for p in _port(n, b, case)]
    radiators = [_radiators(rear["prs"])] if rear["prs"] else []
    pair = case["array"]["mounting"] == "isobaric_rigid"
    count = count // 2 if pair else count
    group = DriverGroup(
        driver=driver_part(case["driver"]),
        chamber="rear",
        front="front" if front else "outside",
        pair="clamshell" if pair else "alone",
        in_series=count if wiring == "series" else 1,
        in_parallel=count if wiring == "parallel" else 1,
    )
    return Design(
        name=name,
        brief=Brief(
            listening=Listening(distance=1.0),
            conditions=Conditions(temperature=273.15 + case["air"]["T_C"]),
            edges=LINEAR,
        ),
        box=Box(
            case=case_of(0.5),
            chambers=tuple(chambers),
            groups=(group,),
            openings=(*radiators, *ports),
        ),
        power=any_power(),
        voice=Voice(channels=(Channel(),)),
    )


def _chamber(name: str, box: dict) -> Chamber:
    return Chamber(
        id=name,
        share=0.5,
        stated_volume=box["V"],
        leak_q=None,
        leak_resistance=box["R_leak"],
        absorption_q=float(box["Qa"]) if box["Qa"] else None,
    )


def _port(name: str, box: dict, case: dict) -> list[Port]:
    port = box["ports"]
    if not port:
        return []
    return [
        Port(
            id=f"port-{name}",
            diameter=port["diameter"],
            length=port["L_phys"],
            count=port["count"],
            end_correction=port["end_correction_total"],
            chamber=name,
            speed_limit=case["port_velocity_limit_peak"],
            loss_q=float(port["Qp"]) if port["Qp"] else None,
        )
    ]


def _radiators(p: dict, count: int | None = None) -> RadiatorSet:
    part = RadiatorPart(
        name=p.get("label", "Rowan"),
        sd=p["Sd"],
        mmp=p["Mmp_bare"],
        cmp=p["Cmp"],
        rmp=p["Rmp"],
        xmax=p["Xmax"],
    )
    return RadiatorSet(
        radiator=part,
        count=count or p["count"],
        added_mass=p["M_added"],
        horizontal=p.get("horizontal", False),
        chamber="rear",
    )


def system_design(name: str) -> Design:
    """A whole system of systems.json."""
    s = SYSTEMS[name]
    box, array, brief = s["box"], s["array"], s["brief"]
    ports = ()
    if box["ports"]:
        p = box["ports"]
        ports = (
            Port(
                diameter=p["diameter"],
                length=p["L"],
                count=p["count"],
                chamber="rear",
                mounting="one_flanged",
                speed_limit=p["v_limit"],
                loss_q=float(p["QP"]) if p["QP"] else None,
            ),
        )
    outputs = array["count"] // array["per_channel"]
    voice = filters(s["voice"])
    return Design(
        name=name,
        brief=Brief(
            loudness=LoudnessPromise(level=float(brief["L_target"])),
            bass=BassPromise(frequency=float(brief["f_target"]), drop=brief["X"]),
            runtime=RuntimePromise(
                duration=3600.0 * (brief["hours"] or 1),
                importance="must" if brief["hours"] else "open",
            ),
            listening=Listening(distance=float(brief["distance"]), material=brief["programme"]),
            conditions=Conditions(charge=brief["charge"]),
            edges=LINEAR,
        ),
        box=Box(
            case=case_of(box["longest_inner"]),
            chambers=(
                Chamber(
                    id="rear",
                    stated_volume=box["V_eff"],
                    leak_q=float(box["QL"]),
                    absorption_q=float(box["QA"]) if box["QA"] else None,
                ),
            ),
            groups=(
                DriverGroup(
                    driver=driver_part(s["driver"]),
                    chamber="rear",
                    in_parallel=array["per_channel"],
                ),
            ),
            openings=(_radiators(box["radiators"]),) if box["radiators"] else ports,
        ),
        power=_power(s),
        voice=Voice(channels=(Channel(outputs=outputs, blocks=voice),)),
    )


def _power(s: dict) -> Power:
    a = s["amplifier"]
    amplifier = Amplifier(
        name="Sedge",
        claims=tuple(
            Claim(
                power=float(c["P"]),
                load=float(c["R"]),
                supply=float(c["supply"]) if c["supply"] else None,
                thd=c["thd"],
            )
            for c in a["claims"]
        ),
        channels=a["channels"],
        bridged=a["bridge"],
        own_mains=s["supply"]["kind"] == "mains",
        gain=s["dsp"]["amp_gain_db"],
        current_limit=a["I_limit"],
        idle_current=a["I_idle"],
        efficiency=Efficiency(value=a["efficiency"]["eta"], claim=a["efficiency"]["claim"])
        if a["efficiency"]
        else None,
        cut_off=a["V_cutoff"],
    )
    loads = tuple(
        OtherLoad(name="lamp", power=x["W"], efficiency=x["efficiency"]) for x in s["other_loads"]
    )
    dsp = DspBoard(name="Teal", full_scale=s["dsp"]["full_scale_out_Vrms"])
    boards = (FittedAmplifier(part=amplifier), FittedDsp(part=dsp))
    lead = Lead(contacts=s["supply"].get("R_leads", 0.0))
    return Power(boards=boards, source=_source(s["supply"]), other_loads=loads, lead=lead)


def _source(supply: dict) -> Pack | WallSupply | Mains:
    if supply["kind"] == "mains":
        return Mains(kind="mains")
    if supply["kind"] == "wall":
        return WallSupply(
            kind="wall",
            voltage=supply["V"],
            resistance=supply["R"],
            continuous_current=supply["I_cont"],
            burst_current=supply["I_burst"],
        )
    cell, board = supply["cell"], supply["board"]
    table = tuple(
        CellPoint(charge=q, rest_voltage=v, resistance=r)
        for q, v, r in zip(cell["q"], cell["ocv"], cell["R"], strict=True)
    )
    return Pack(
        kind="pack",
        cell=Cell(
            name="Flint 21",
            capacity=3600 * cell["capacity_Ah"],
            max_current=cell["I_max"],
            cut_off=cell["V_min"],
            table=table,
        ),
        series=supply["S"],
        parallel=supply["P"],
        board=ProtectionBoard(
            max_current=float(board["I_max"]), cut_off=board["V_min"], resistance=board["R"]
        ),
    )
