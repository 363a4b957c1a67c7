"""Compile, or load from the cache, every kernel a question needs."""

from fandle.core.aim import solve_kick
from fandle.core.approach import approach
from fandle.core.bank import solve_bank
from fandle.core.counts.every import all_counts
from fandle.core.layout import Ball, Layout
from fandle.core.lines import kick_lines
from fandle.core.rails import Rail
from fandle.core.standards import standard_table
from fandle.core.stroke import Stroke, find_cue
from fandle.core.units import default_speed


def warm() -> None:
    """Ask one question of each kind, so that nobody waits for the compiler."""
    table = standard_table("pool-9ft")
    layout = Layout(table, "nine-ball", (Ball("cue", 1.0, 1.0), Ball("1", 5.0, 1.2), Ball("2", 3.0, 2.0)), "1")
    stroke = Stroke(default_speed(table), 0.2, 0.1, 1.0, find_cue("house"))
    approach(layout, stroke, 0.5)
    for rail in Rail:
        solve_kick(layout, (rail,), stroke)
    solve_bank(layout, (Rail.FOOT,), stroke, with_chain=False)
    kick_lines(layout, stroke, (1, 2))
    all_counts(layout)


if __name__ == "__main__":
    warm()
