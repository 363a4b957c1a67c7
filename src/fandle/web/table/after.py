"""After the hit: what one change does to the line, and the best lines of hit, pot and safe side by side."""

import math
from dataclasses import replace

from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse

from fandle.app.choose import all_processors
from fandle.app.position import vary
from fandle.app.situation import Situation
from fandle.app.strategy import Strategy, strategy
from fandle.core.choice.advice import NAMES, points_away, risk_of
from fandle.core.choice.after import left, next_said
from fandle.core.choice.rules import cost_of_foul
from fandle.core.choice.told import Line
from fandle.core.choice.variations import Variation
from fandle.core.choice.wish import GOALS, Goal
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.figures import mark
from fandle.web.speech import said, screen_of
from fandle.web.table.after_models import GoalModel, RiskRow, StrategyModel, VariationModel
from fandle.web.table.api import Question, situation
from fandle.web.table.rows import end_models, row_of
from fandle.web.tasks import solve, streamed, works_of

router = APIRouter()
SAME_PLACE_M = 0.05  # a cue ball that stops no further off stops in the same place


@router.post(address.POSITION, responses=FAULTS)
async def post_position(question: Question, request: Request) -> list[VariationModel]:
    """What a little more of one thing would do to the line asked for, the line as it is first."""
    asked = address.rounded(await works_of(request).read(situation, question, request))
    found = await solve(request, vary(asked), quick=False)
    return said([_variation(asked, one) for one in found], screen_of(request, asked.table))


def _variation(asked: Situation, one: Variation) -> VariationModel:
    s = one.stroke
    return {
        "name": one.name,
        "stroke_name": one.called,
        "mark": mark(one.best.corrected, asked.frame) if one.best.rails else "",
        "percent": f"{one.share.p:.0%}",
        "moved": moved_words(one.moved),
        "says": next_said(one.after) if asked.goal == "pot" else left(one.after),
        "stroke": {"speed": s.speed, "side": s.side, "up": s.up, "elevation": s.elevation},
        "hit": 0.0 if one.best.contact is not None or one.best.pot is not None else one.best.hit,
        "ends": end_models(asked.table, one.best.target, one.after),
    }


def moved_words(moved: tuple[float, float]) -> str:
    """How far from where it stops as it is: "45 cm towards the foot rail"."""
    x, y = moved
    if math.isnan(x):
        return "goes in"
    away = math.hypot(x, y)
    if away < SAME_PLACE_M:
        return "the same place"
    rail = ("foot" if x > 0 else "head") if abs(x) >= abs(y) else ("far" if y > 0 else "near")
    return f"{100 * away:.0f} cm to the {rail} rail"


@router.post(address.STRATEGY, responses=FAULTS, response_class=StreamingResponse)
async def post_strategy(question: Question, request: Request) -> StreamingResponse:
    """The best lines of the three goals side by side, as they become known: lines of JSON; the last has the advice."""
    asked = address.rounded(await works_of(request).read(situation, question, request))
    screen = screen_of(request, asked.table)
    planning = strategy(asked, max(1, all_processors() - 1))
    return streamed(request, planning, lambda found: said(_strategy(asked, found), screen), len(GOALS))


def _strategy(asked: Situation, found: Strategy) -> StrategyModel:
    goals: list[GoalModel] = [
        {"goal": goal, "name": NAMES[goal], "rows": [_risk_row(asked, goal, line) for line in lines]}
        for goal, lines in found.goals.items()
    ]
    return {"progress": found.progress, "goals": goals, "say": found.say}


def _risk_row(asked: Situation, goal: Goal, line: Line) -> RiskRow:
    risk = risk_of(line)
    leave = line.after.leave
    parts = [f"in-off {risk.in_off:.0%}"] if risk.in_off >= 0.01 else []
    parts.append(f"foul {risk.foul:.0%}")
    if asked.layout.game == "snooker" and 0.0 < risk.foul < 1.0:
        parts[-1] += f", {points_away(risk.foul, cost_of_foul(asked.layout)):.1f} points if replayed"
    if leave is not None and leave.target is not None:
        parts.append(f"left open {risk.left_open:.0%}")
    return {"row": row_of(replace(asked, goal=goal), goal, line), "well": risk.well, "risk": ", ".join(parts)}
