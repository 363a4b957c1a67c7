"""Compile, or load from the cache, every kernel a question needs."""

from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.bank import solve_bank
from fandle.core.lines.candidates import kick_lines
from fandle.core.lines.kick import solve_kick
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import find_cue
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.registry import all_counts
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.core.table.standards import standard_table


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
