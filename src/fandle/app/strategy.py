"""Hit, pot or safe? The best lines of the three goals side by side, with what each risks, and a sentence of advice."""

from collections.abc import Generator
from dataclasses import dataclass, replace

from fandle.app.choose import plan, wish_for
from fandle.app.situation import Situation
from fandle.core.choice.advice import advice
from fandle.core.choice.report import Plan, SoFar
from fandle.core.choice.told import Line
from fandle.core.choice.wish import DRAWS, GOALS, Goal

BEST = 5  # lines of each goal


@dataclass(frozen=True)
class Strategy:
    """How far the work is, 0 to 1; of each goal its best lines, as far as they are known; the advice, "" until then."""

    progress: float
    goals: dict[Goal, tuple[Line, ...]]
    say: str = ""


def strategy(asked: Situation, threads: int = 1) -> Generator[Strategy | None, None, Strategy]:
    """The three plans one after the other, in steps. On a table without pockets there is one."""
    wanted = GOALS if asked.table.pockets is not None else GOALS[:1]
    known: dict[Goal, tuple[Line, ...]] = {}
    for number, goal in enumerate(wanted):
        mine = replace(asked, goal=goal, called=asked.called if goal == "pot" else None, pocket=None)
        planning = plan(mine, wish_for(mine, "usual", DRAWS, 0), threads)
        found: Plan | None = None
        while found is None:
            try:
                partial = next(planning)
            except StopIteration as done:
                found = done.value
                break
            yield None if not isinstance(partial, SoFar) else _so_far(known, goal, partial, number, len(wanted))
        known = {**known, goal: found.lines[:BEST]}
        yield Strategy((number + 1) / len(wanted), known)
    best = {goal: lines[0] for goal, lines in known.items() if lines}
    return Strategy(1.0, known, advice(best))


def _so_far(known: dict[Goal, tuple[Line, ...]], goal: Goal, partial: SoFar, number: int, count: int) -> Strategy:
    return Strategy((number + partial.progress) / count, {**known, goal: partial.lines[:BEST]})
