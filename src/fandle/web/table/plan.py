"""Which line? The rows of the list, and the route that streams them while they are worked out."""

import json
from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response, StreamingResponse

from fandle.app.choose import all_processors, plan, wish_of
from fandle.app.situation import Situation
from fandle.core.choice.report import Plan, SoFar
from fandle.core.choice.wish import Wish
from fandle.core.player.scatter import Player, player_named
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import offset_of
from fandle.core.table.speeds import default_speed, speed_of
from fandle.core.words.screen import Screen
from fandle.formats.plan import PlanAnswer, SoFarAnswer
from fandle.formats.player import PlayerFile
from fandle.web import address
from fandle.web.faults import FAULTS
from fandle.web.known import habits_of, library_of, player_of, tip_of
from fandle.web.speech import said, screen_of
from fandle.web.table.api import scene_layout
from fandle.web.table.plan_models import PlanQuestion
from fandle.web.table.rows import rows_of, shut_rows
from fandle.web.tasks import NDJSON, streamed, works_of
from fandle.work.latest import Latest

router = APIRouter()
MOST_PLANS = 24  # kept at once; with ten balls one is 70 kB of text


@router.post(address.PLAN, responses=FAULTS, response_class=StreamingResponse)
async def post_plan(question: PlanQuestion, request: Request) -> Response:
    """Every line with its chance and its reasons, best first: lines of JSON, the last one the whole plan.

    Those before it are `{"progress": 0…1, "lines": […]}`. Closing the connection stops the work. Whoever comes back to
    a question (Back, undo, a reload) gets its plan at once.
    """
    works = works_of(request)
    works.room_for_long()  # nothing is read for whoever is sent away
    asked, wish = await works.read(_wished, question, request, quick=False)
    screen = screen_of(request, asked.table)
    plans: Latest[dict[str, Any]] = request.app.state.plans
    whole = plans.get((asked, wish, screen))
    if whole is not None:
        return Response(json.dumps(whole, allow_nan=False) + "\n", media_type=NDJSON)
    told = Teller(asked, question.goal, screen)

    def line_of(found: Plan | SoFar) -> dict[str, Any]:
        line = told.of(found)
        return plans.put((asked, wish, screen), line) if isinstance(found, Plan) else line

    return streamed(request, plan(asked, wish, max(1, all_processors() - 1)), line_of)


def _wished(question: PlanQuestion, request: Request) -> tuple[Situation, Wish]:
    asked = _situation(question, request)
    wish = wish_of(
        question.goal, _player(question.player, request), question.strokes, question.pocket, question.draws,
        question.seed, asked.layout,
    )  # fmt: skip
    plain = habits_of(request).plain if question.plain is None else question.plain
    return asked, replace(wish, then=asked.then, plain=plain, every=question.all)


def _situation(question: PlanQuestion, request: Request) -> Situation:
    layout = scene_layout(question.layout, request, ease=question.ease)
    table = layout.table
    cue = library_of(request).cue(question.cue)
    tip = tip_of(request, cue)
    speed = default_speed(table) if question.speed is None else question.speed
    if question.lengths is not None:
        speed = speed_of(table, round(question.lengths, 3))
    side = question.side if question.tips is None else offset_of(question.tips, table, tip)
    up = question.up if question.height is None else offset_of(question.height, table, tip)
    stroke = Stroke(speed, side, up, question.elevation, cue)
    frame, then = address.check_frame(question.frame), question.then(layout)
    return address.rounded(Situation(layout, stroke, frame=frame, then=then))


def _player(given: str | PlayerFile | None, request: Request) -> Player:
    if given is None:
        return player_of(request)
    player = given.player() if isinstance(given, PlayerFile) else player_named(given)
    return replace(player, body=habits_of(request).body)


class Teller:
    """A plan's lines as JSON, each with the row that the page lists, said as its screen says it."""

    def __init__(self, asked: Situation, goal: str, screen: Screen) -> None:
        self.asked, self.goal, self.screen = asked, goal, screen

    def of(self, found: Plan | SoFar) -> dict[str, Any]:
        """A plan, or what is known of it."""
        if isinstance(found, SoFar):
            data = SoFarAnswer.of(found).json_data()
        else:
            data = PlanAnswer.of(found).json_data()
            data["shut"] = said(shut_rows(found.refused), self.screen)
            data["advice"] = self.screen.say(found.say)
        rows = said(rows_of(self.asked, self.goal, found.lines), self.screen)
        data["rows"] = rows
        return data
