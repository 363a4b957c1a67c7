"""Hit, pot or safe? The best lines of the three goals side by side, with what each risks, and a sentence of advice."""

from dataclasses import dataclass, replace
from functools import partial

from fandle.app.choose import plan, wish_for
from fandle.app.situation import Situation
from fandle.core.choice.advice import advice
from fandle.core.choice.report import SoFar
from fandle.core.choice.told import Line
from fandle.core.choice.wish import DRAWS, GOALS, Goal
from fandle.core.steps import Telling, relay

BEST = 5  # lines of each goal


@dataclass(frozen=True)
class Strategy:
    """How far the work is, 0 to 1; of each goal its best lines, as far as they are known; the advice, "" until then."""

    progress: float
    goals: dict[Goal, tuple[Line, ...]]
    say: str = ""


def strategy(asked: Situation, threads: int = 1) -> Telling[Strategy, Strategy]:
    """The three plans one after the other, in steps. On a table without pockets there is one."""
    wanted = GOALS if asked.table.pockets is not None else GOALS[:1]
    known: dict[Goal, tuple[Line, ...]] = {}
    for number, goal in enumerate(wanted):
        mine = replace(asked, goal=goal, called=asked.called if goal == "pot" else None, pocket=None)
        so_far = partial(_so_far, known, goal, number, len(wanted))
        found = yield from relay(plan(mine, wish_for(mine, "usual", DRAWS, 0), threads), so_far)
        known = {**known, goal: found.lines[:BEST]}
        yield Strategy((number + 1) / len(wanted), known)
    best = {goal: lines[0] for goal, lines in known.items() if lines}
    return Strategy(1.0, known, advice(best))


def _so_far(known: dict[Goal, tuple[Line, ...]], goal: Goal, number: int, count: int, found: SoFar) -> Strategy:
    return Strategy((number + found.progress) / count, {**known, goal: found.lines[:BEST]})
