"""Table check and diagnosis on invented tables: what the fit gains, how honest its ranges are, which cause is found.

Sixty tables from the priors, shots made with the scatter named, read to 0.05 diamond; four hundred misses of a known
cause. Run `PYTHONPATH=. python bench/tablecheck.py` (five minutes).
"""

import time

import numpy as np
from campaign.invented import POOL, STEADY, apart, evening, fresh, missed, seen

from fandle.core.player.scatter import CLUB, Player
from fandle.core.tablecheck.diagnose import CAUSES
from fandle.core.tablecheck.fit import NUMBERS, fit, moved
from fandle.core.tablecheck.next_aim import advise
from fandle.core.tablecheck.report import last_landing, plays
from fandle.core.tablecheck.shots import kinds_for, setup

TABLES, MISSES = 60, 80


def tables(player: Player, times: int) -> None:
    """One line of what sixty tables come to."""
    before, after, inside, took, off = [], [], [], [], []
    for seed in range(TABLES):
        rng = np.random.default_rng(1000 + seed)
        hidden = moved(POOL, rng.standard_normal(len(NUMBERS)))
        shots = evening(hidden, player, times, rng)
        start = time.perf_counter()
        found = fit(POOL, shots, player)
        took.append(time.perf_counter() - start)
        off.append([(number.value - getattr(hidden, number.name)) / number.sd for number in found.numbers])
        new = fresh(rng)
        before.append(apart(new, hidden, POOL))
        after.append(apart(new, hidden, found.table))
        for shot, told in zip(kinds_for(POOL), plays(POOL, found), strict=True):
            was, is_ = last_landing(setup(POOL, shot), [POOL, hidden])
            inside.append(abs(told.off - (is_ - was)) <= 1.96 * told.sd)
    a, b = np.array(before), np.array(after)
    print(
        f"{times} x six, speed {player.speed_part:.0%}: median {np.median(a):.3f} -> {np.median(b):.3f} diamond "
        f"(-{1 - np.median(b) / np.median(a):.0%}), worst growth {(b - a).max():+.3f}, "
        f"inside 95 %: {np.mean(inside):.1%}, {np.median(took):.2f} s"
    )
    rms = np.sqrt(np.mean(np.square(off), axis=0))
    print("  rms z:", ", ".join(f"{name} {value:.2f}" for name, value in zip(NUMBERS, rms, strict=True)))


def misses() -> None:
    """Which cause is found, and whether the next mark lands nearer."""
    for contacts in (2, 1):
        rng, right, took = np.random.default_rng(contacts), [], []
        for cause in CAUSES:
            for _ in range(MISSES):
                shot, _, figures = missed(rng, cause)
                told = seen(shot, figures, contacts, rng)
                start = time.perf_counter()
                found = advise(told, CLUB)
                took.append(1000 * (time.perf_counter() - start))
                right.append(found.diagnosis.suspects[0].cause == cause)
        print(f"causes, {contacts} contacts told: {np.mean(right):.1%} right, {np.median(took):.0f} ms")


if __name__ == "__main__":
    tables(STEADY, 2)
    tables(CLUB, 1)
    misses()
