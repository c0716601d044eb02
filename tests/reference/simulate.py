"""Boxes in the time domain: Runge-Kutta on the whole network, ports by the square law, parts bent.

Run by hand (``python -m tests.reference.simulate``); it writes data/signals/*.json, which
``test_signals.py`` holds the program against. Nothing of the program is used here: equations of
motion of cones and port air, mass balance of chambers, all in SI.
"""

import json
from pathlib import Path

import numpy as np

HERE = Path(__file__).parent / "data" / "signals"
RHO, STIFFNESS = 1.204, 1.204 * 343.2**2
STEPS = 700
"""A cycle."""
CYCLES, MEASURED = 60, 4
"""Played, and at their end measured."""


def simulate(box, frequency, volts):
    """Fundamental peaks with ``volts`` rms (cases,) at ``frequency`` (cases,), and the level.

    States: cone x, v and current i, pressure of each chamber, flow of each port, travel and
    velocity of each kind of radiator. With an ``xmax`` in it, a driver or radiator is bent.
    """
    d, ports, radiators = box["driver"], box["ports"], box.get("radiators", [])
    force = bent(d, lambda u: 1 / (1 + (1 / 0.82 - 1) * u**2))
    stiff = bent(d, lambda u: 1 + u**2 / 3)
    stiffer = [bent(r, lambda u: 1 + u**2 / 3) for r in radiators]
    chambers = [c["volume"] / STIFFNESS for c in box["chambers"]]
    leaks = [c["leak"] for c in box["chambers"]]
    w = 2 * np.pi * frequency
    rear, front = d["rear"], d["front"]

    def rates(t, s):
        x, v, i = s[:3]
        p, rest = s[3 : 3 + len(chambers)], s[3 + len(chambers) :]
        q, moving = rest[: len(ports)], rest[len(ports) :]
        e = np.sqrt(2) * volts * np.cos(w * t)
        push = p[rear] - (p[front] if front >= 0 else 0.0)
        bl, k = d["bl"] * force(x), stiff(x) / d["cms"]
        out = [v, (bl * i - k * x - d["rms"] * v + d["sd"] * push) / d["mms"]]
        out.append((e - d["re"] * i - bl * v) / d["le"])
        flows = [-leak * pressure for leak, pressure in zip(leaks, p, strict=True)]
        flows[rear] = flows[rear] - d["sd"] * v
        if front >= 0:
            flows[front] = flows[front] + d["sd"] * v
        for port, flow in zip(ports, q, strict=True):
            flows[port["chamber"]] = flows[port["chamber"]] - port["count"] * flow
            if port["opens_to"] >= 0:
                flows[port["opens_to"]] = flows[port["opens_to"]] + port["count"] * flow
        for r, speed in zip(radiators, moving[1::2], strict=True):
            flows[r["chamber"]] = flows[r["chamber"]] - r["count"] * r["sd"] * speed
        out += [flow / c for flow, c in zip(flows, chambers, strict=True)]
        for port, flow in zip(ports, q, strict=True):
            far = p[port["opens_to"]] if port["opens_to"] >= 0 else 0.0
            lost = 0.5 * port["lost"] * RHO * flow * np.abs(flow) / port["area"] ** 2
            drop = p[port["chamber"]] - far - port["resistance"] * flow - lost
            out.append(drop / port["mass"])
        for n, r in enumerate(radiators):
            away, speed = moving[2 * n], moving[2 * n + 1]
            pull = stiffer[n](away) * away / r["cmp"] + r["rmp"] * speed
            out += [speed, (r["sd"] * p[r["chamber"]] - pull) / r["mmp"]]
        return np.stack(out)

    state = np.zeros((3 + len(chambers) + len(ports) + 2 * len(radiators), len(frequency)))
    step = 1 / frequency / STEPS
    kept = []
    for n in range(CYCLES * STEPS):
        t = n * step
        if n >= (CYCLES - MEASURED) * STEPS:
            kept.append(state)
        a = rates(t, state)
        b = rates(t + step / 2, state + a * step / 2)
        c = rates(t + step / 2, state + b * step / 2)
        e = rates(t + step, state + c * step)
        state = state + (a + 2 * b + 2 * c + e) * step / 6
    turns = np.exp(-2j * np.pi * np.arange(MEASURED * STEPS) / STEPS)
    found = 2 / len(turns) * np.einsum("n,nsc->sc", turns, np.array(kept))
    return told(box, frequency, found)


def bent(part, curve):
    """A curve over the travel of a part; 1 where it has no limit of it."""
    if "xmax" not in part:
        return lambda x: 1.0
    return lambda x: curve(x / part["xmax"])


def told(box, frequency, found):
    """Peak travel, peak air speed of each port, peak travel of each radiator, level in dB at 1 m on
    the ground.
    """
    d, ports, radiators = box["driver"], box["ports"], box.get("radiators", [])
    first = 3 + len(box["chambers"])
    away = found[first + len(ports) :: 2]
    outside = d["sd"] * found[1] * (d["front"] < 0)
    for port, flow in zip(ports, found[first : first + len(ports)], strict=True):
        outside = outside + port["count"] * flow * (port["opens_to"] < 0)
    for n, r in enumerate(radiators):
        outside = outside + r["count"] * r["sd"] * found[first + len(ports) + 2 * n + 1]
    if d["front"] < 0:
        for c, p in zip(box["chambers"], found[3:first], strict=True):
            outside = outside + c["leak"] * p
    pressure = np.abs(2 * np.pi * frequency * RHO / (2 * np.pi) * outside) / np.sqrt(2)
    return {
        "travel": np.abs(found[0]).tolist(),
        "speed": [
            (np.abs(q) / port["area"]).tolist()
            for port, q in zip(ports, found[first : first + len(ports)], strict=True)
        ],
        "radiators": [np.abs(x).tolist() for x in away],
        "level": (20 * np.log10(pressure / 20e-6)).tolist(),
    }


if __name__ == "__main__":
    for file in sorted(HERE.glob("*.json")):
        case = json.loads(file.read_text())
        frequency, volts = (np.array(case[key]) for key in ("frequency", "volts"))
        case["found"] = simulate(case["box"], frequency, volts)
        file.write_text(json.dumps(case, indent=1) + "\n")
        print(file.name)
