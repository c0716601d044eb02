"""``script/attack``: runs attacks and prints a table; exit status 1 when anything failed."""

import argparse
import sys

from tests.attacks import (
    cabinets,
    columns,
    designs,
    environments,
    fuzz,
    kills,
    mutations,
    proposing,
    usage,
)

ATTACKS = {
    "kills": (kills.attack, 500, 3000),
    "mutations": (mutations.attack, 100_000, 3600),
    "designs": (designs.attack, 5000, 1200),
    "proposals": (proposing.attack, 500, 1800),
    "columns": (columns.attack, 1000, 1200),
    "cabinets": (cabinets.attack, 500, 1200),
    "environments": (environments.attack, 1000, 900),
    "cycles": (usage.cycles, 500, 1800),
    "driver": (usage.driver, 20, 900),
    "soak": (usage.soak, 10**9, 1800),
    "fuzz": (fuzz.attack, 10**9, 2400),
}
"""Name: the attack, its usual count and its time bound in s."""


def main():
    """Run what is asked for, everything but the fuzzer when nothing is."""
    parser = argparse.ArgumentParser(
        prog="script/attack",
        description="Attack the program; a table of tried and failed, exit status 1 on a failure.",
    )
    parser.add_argument("names", nargs="*", metavar="NAME", help=" ".join(ATTACKS))
    parser.add_argument("--seed", type=int, default=1, help="another seed, other attacks")
    parser.add_argument("--count", type=int, help="how many tries at most")
    parser.add_argument("--seconds", type=float, help="how long at most, each attack")
    asked = parser.parse_args()
    unknown = [name for name in asked.names if name not in ATTACKS]
    if unknown:
        parser.error(f"there is no attack called {unknown[0]}; there are: {', '.join(ATTACKS)}")
    failed = 0
    print(f"{'attack':<13} {'tried':>7} {'failed':>7} {'took':>10}  seed {asked.seed}")
    for name in asked.names or [name for name in ATTACKS if name != "fuzz"]:
        attack, count, seconds = ATTACKS[name]
        result = attack(asked.seed, asked.count or count, asked.seconds or seconds)
        print("\n".join(result.lines()), flush=True)
        failed += len(result.failed) + (result.tried == 0)
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
