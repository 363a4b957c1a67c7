"""The experiment behind docs/decisions/compression.md: what makes a hard shot short when the rubber gives?

A plain ball from (1, 1) aimed at far 3 (nose), read where it comes back to y = 1; diamonds against the
rigid default table, + long. Run: python bench/compression.py
"""

from dataclasses import replace
from typing import Any

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import standard_table

POOL = standard_table("pool-9ft")
SPEEDS = (2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 8.0)
GIVE = {"cushion_compression": 0.003}
VARIANTS = {
    "depth and dwell alone": {**GIVE, "cushion_grip": 0.0},
    "more friction at the nose, 0.30": {"cushion_friction": 0.30},
    "less restitution, 0.80": {"cushion_restitution": 0.80},
    "dent's wall, grip 0.10": {**GIVE, "cushion_grip": 0.10},
    "dent's wall, grip 0.15": {**GIVE, "cushion_grip": 0.15},
    "dent's wall, grip 0.30": {**GIVE, "cushion_grip": 0.30},
    "grip 0.15 and loss 0.2": {**GIVE, "cushion_grip": 0.15, "cushion_loss": 0.2},
}


def landing(table: Table, speed: float) -> float:
    """Where it comes back, diamonds."""
    layout = Layout(table, "nine-ball", (Ball("cue", 1.0, 1.0),))
    direction = direction_to(table, Rail.FAR, layout.metres(layout.cue), 3.0, "nose")
    found = crosses(approach(layout, Stroke(speed), direction, 2), Rail.FAR, 1, 1.0)
    return float("nan") if found is None else found[0]


def main() -> None:
    """Print the table."""
    print(f"{'m/s':<34}" + "".join(f"{v:>7g}" for v in SPEEDS))
    for name, change in VARIANTS.items():
        numbers: dict[str, Any] = {**change}
        table = replace(POOL, **numbers)
        print(f"{name:<34}" + "".join(f"{landing(table, v) - landing(POOL, v):>+7.2f}" for v in SPEEDS))


if __name__ == "__main__":
    main()
