"""The proofs at length: what is told, held against the second simulator.

    python -m tests.reference [--seed 1] [--scale 1.0]

At scale 1 it takes a quarter of an hour on two cores. Exit 1 where anything failed.
"""

import argparse
import math
import statistics

from tests.reference import held

SHOTS, LAYOUTS, LINES = 200, 24, 300
SAME, FIRST_MM, THIRD_MM = 0.98, 0.1, 1.5  # of the shots; at most; in the median
INSIDE, BIAS, SHARE_SD, HALF_OFF = 0.92, 0.004, 0.02, 0.03  # of chances; of a half
Row = tuple[bool, str]


def events(seed: int, scale: float) -> Row:
    """Random shots to the first ball."""
    met = held.events(seed, round(SHOTS * scale))
    third, worst = statistics.median(met.third_mm), max(met.first_mm)
    told = f"{met.n} shots: {met.same / met.n:.1%} alike to the first ball, first rail within {worst:.4f} mm, third "
    return met.same >= SAME * met.n and worst < FIRST_MM and third < THIRD_MM, f"{told}{third:.1f} mm in the median"


def orders(seed: int, scale: float) -> Row:
    """Every way of 0.4° and more is told."""
    seen, faults = held.orders(seed, max(round(LAYOUTS * scale), 1))
    return not faults, "\n  ".join([f"{seen} orders of 0.4° and more: {len(faults)} not told", *faults])


def chances(seed: int, scale: float) -> list[Row]:
    """Shares of lines, and their half ellipses."""
    told, halves = held.chances(seed, max(round(LINES * scale), 10))
    rows = []
    for verdict in ("hit", "legal", "pot"):
        some = [each for each in told if each.verdict == verdict]
        inside = sum(each.inside for each in some) / len(some)
        mean = statistics.fmean(each.p - each.came for each in some)
        good = inside >= INSIDE and abs(mean) <= BIAS + 2 * SHARE_SD / math.sqrt(len(some))
        rows.append((good, f"{len(some)} chances, {verdict}: {inside:.0%} in their range, {mean:+.4f} in the mean"))
    half = statistics.fmean(halves)
    return [*rows, (abs(half - 0.5) <= HALF_OFF, f"{len(halves)} half ellipses hold {half:.1%}")]


def main() -> int:
    """Print the table."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--scale", type=float, default=1.0)
    asked = parser.parse_args()
    rows = [events(asked.seed, asked.scale), orders(asked.seed, asked.scale), *chances(asked.seed, asked.scale)]
    for good, told in rows:
        print(f"{'held  ' if good else 'FAILED'}  {told}")
    return 0 if all(good for good, _ in rows) else 1


if __name__ == "__main__":
    raise SystemExit(main())
