"""Two thousand questions of the quiz: has each one answer, does that hit, how long does it take; where it settles.

Run `python bench/quiz.py` (some minutes).
"""

import random
import statistics
import time

from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim
from fandle.core.practice.quiz import judge, next_difficulty, question
from fandle.core.table.standards import STANDARDS

QUESTIONS, PLAYED = 2000, 400
SCATTERS = (0.04, 0.06, 0.08, 0.1, 0.12, 0.15)  # diamonds


def main() -> None:
    """Both tables."""
    rng, faults, took = random.Random(1), 0, []
    for seed in range(QUESTIONS):
        table = STANDARDS[rng.choice(list(STANDARDS))]
        start = time.perf_counter()
        asked = question(table, seed, rng.random())
        took.append(time.perf_counter() - start)
        answer = solve_kick(asked.layout, asked.rails, asked.stroke, with_chain=False)
        alone = isinstance(answer, Aim) and len(answer.solutions) == 1
        faults += not (alone and judge(asked, asked.at).right)
    each, longest = 1000 * statistics.median(took), max(took)
    print(f"{QUESTIONS} questions, {faults} faults; {each:.0f} ms each, at most {longest:.2f} s")
    for scatter in SCATTERS:
        difficulty, right = 0.3, []
        for seed in range(PLAYED):
            asked = question(STANDARDS["pool-9ft"], seed, difficulty)
            named = min(max(asked.at + rng.gauss(0.0, scatter), 0.0), asked.rails[0].diamonds)
            right.append(judge(asked, named).right)
            difficulty = next_difficulty(difficulty, right=right[-1])
        share = statistics.fmean(right[PLAYED // 5 :])
        print(f"scatter {scatter:.2f}: right {share:.0%}, difficulty at the end {difficulty:.2f}")


if __name__ == "__main__":
    main()
