"""The quiz and the progress over HTTP: a question that is due, what an answer comes to, what changed."""

import time
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Query, Request

from fandle.app.drill_list import titles
from fandle.app.evening import By
from fandle.core.errors import BadInputError
from fandle.core.lines.marks import direction_to
from fandle.core.practice.cards import Deck
from fandle.core.practice.choices import Choice, choice
from fandle.core.practice.quiz import Feedback, Question, grade, judge, next_difficulty, question
from fandle.core.shot.approach import approach
from fandle.core.steps import at_once
from fandle.core.systems import halving
from fandle.core.systems.base import figure
from fandle.core.table.model import Table
from fandle.core.words.spoken import landing_word
from fandle.store import log, practice
from fandle.store.practice import Answered
from fandle.store.preferences import preference, set_preference
from fandle.web import address
from fandle.web.drawing import path
from fandle.web.faults import FAULTS, KEPT
from fandle.web.known import club_of, library_of, mine_of
from fandle.web.practice.changes import GOAL, PERIOD_DAYS, progress_model
from fandle.web.practice.models import AskedModel, AskQuestion, ProgressModel, RepliedModel, Reply
from fandle.web.practice.page import NEWEST, shots_of
from fandle.web.practice.present import asked_model, level_of
from fandle.web.speech import said, screen_of
from fandle.web.tasks import solve

router = APIRouter(responses=FAULTS)
QUIZ = "quiz"  # among the settings: how hard it is, and the cards
BEGIN = 0.15  # difficulty of the first question
HAIR = 0.02  # diamonds
FALLBACK = halving.METHOD
RAILS = {"one rail": 1, "two rails": 2, "three rails": 3}


def _state(request: Request) -> tuple[float, Deck]:
    """How hard the quiz is, and the cards; what cannot be read of them begins anew."""
    kept = preference(request.app.state.database, QUIZ, {})
    kept = kept if isinstance(kept, dict) else {}
    hard, cards = kept.get("difficulty"), kept.get("cards")
    difficulty = float(hard) if isinstance(hard, float | int) and 0.0 <= hard <= 1.0 else BEGIN
    return difficulty, Deck.read(cards if isinstance(cards, dict) else {})


def _made(table: Table, topic: str, seed: int, difficulty: float, system: str) -> Question | Choice:
    """A question; where the favourite system has no numbers of its own, its sum is asked of the halving count."""
    if topic in RAILS:
        return question(table, seed, difficulty, RAILS[topic])
    try:
        return choice(table, topic, seed, difficulty, system)
    except BadInputError:
        if topic != "sum" or system == FALLBACK:
            raise
        return choice(table, topic, seed, difficulty, FALLBACK)


@router.post(address.ASK, responses=FAULTS)
async def post_ask(asked: AskQuestion, request: Request) -> AskedModel:
    """The next question: of the topic asked for, else of the one that is due."""

    def made() -> AskedModel:
        table, system = library_of(request).table(asked.table), mine_of(request).system
        difficulty, deck = _state(request)
        topic = asked.topic or deck.due(datetime.now(UTC), sums=asked.sums)
        seed = time.time_ns() % 2**31
        found = asked_model(topic, seed, difficulty, _made(table, topic, seed, difficulty, system))
        return said(found, screen_of(request, table, turns=False))

    return await solve(request, at_once(made), quick=False)


@router.post(address.REPLY, responses=KEPT)
async def post_reply(reply: Reply, request: Request) -> RepliedModel:
    """What an answer comes to; the next question is a little harder, or a good deal easier."""

    def judged() -> RepliedModel:
        table, system = library_of(request).table(reply.table), mine_of(request).system
        asked = _made(table, reply.topic, reply.seed, reply.difficulty, system)
        found, off = _judged(asked, reply.given)
        allowed = (asked.base if isinstance(asked, Choice) else asked).seconds
        _keep(request, reply, found, off, allowed)
        return said(found, screen_of(request, table, turns=False))

    return await solve(request, at_once(judged), quick=False)


def _keep(request: Request, reply: Reply, found: RepliedModel, off: float | None, allowed: float) -> None:
    """Note an answer, and how hard the next question is."""
    database, now = request.app.state.database, datetime.now(UTC)
    difficulty, deck = _state(request)
    deck = deck.answered(reply.topic, grade(right=found["right"], seconds=reply.seconds, allowed=allowed), now)
    difficulty = next_difficulty(difficulty, right=found["right"]) if reply.topic in RAILS else difficulty
    set_preference(database, QUIZ, {"difficulty": difficulty, "cards": dict(deck.cards)})
    practice.note_answer(database, Answered(reply.uid, log.now(), reply.topic, found["right"], off, reply.seconds))
    found["level"] = level_of(difficulty)


def _judged(asked: Question | Choice, given: float | str) -> tuple[RepliedModel, float | None]:
    base = asked.base if isinstance(asked, Choice) else asked
    layout = base.layout
    direction = direction_to(layout.table, base.rails[0], layout.metres(layout.cue), base.at, "nose")
    way = path(layout.table, approach(layout, base.stroke, direction).pieces)
    if isinstance(asked, Choice):
        right = asked.right(given)
        reply: RepliedModel = {
            "right": right,
            "say": f"{'Right' if right else 'No'}. {asked.why}",
            "path": way,
            "level": "",
        }
        if isinstance(asked.answer, float) and asked.rail is not None:
            reply["at"] = asked.answer
        return reply, None
    if isinstance(given, str):
        raise BadInputError(f"{given!r} is no mark: give diamonds along the rail", "given")
    told = judge(asked, given)
    return {"right": told.right, "say": _say(asked, told), "at": asked.at, "path": way, "level": ""}, told.off


def _say(asked: Question, told: Feedback) -> str:
    """In diamonds, and in whether it would have hit, how thick."""
    by = f"{figure(abs(told.off))} {'further along' if told.off > 0 else 'nearer'}"
    mark = f"The mark is {figure(asked.at)}: yours is {by if abs(told.off) >= HAIR else 'right to a hair'}."
    if told.right:
        return f"{mark} It would have hit, {told.fullness:.0%} full."
    where = "" if told.lands is None else f", {landing_word(told.lands)}"
    return f"{mark} It would have missed{where}."


@router.get(address.PROGRESS, responses=FAULTS)
async def get_progress(
    request: Request, days: Annotated[int, Query(ge=1, le=365)] = PERIOD_DAYS, by: By = "kind",
    goal: Annotated[float, Query(ge=0.05, le=2.0)] = GOAL,
) -> ProgressModel:  # fmt: skip
    """What changed in the last so many days against all before, and what did not. goal: a typical miss, diamonds."""
    database, known, now = request.app.state.database, library_of(request).known, datetime.now(UTC)

    def made() -> ProgressModel:
        rows = [row for _, row in log.page(database, log.EVERYTHING, NEWEST)]
        shots = list(shots_of(rows, known, now))
        tries, answers = practice.tries(database), practice.answers(database)
        return progress_model(
            tries, answers, shots, now, days, by, goal, titles(club_of(request), {each.drill for each in tries})
        )

    return await solve(request, at_once(made), quick=False)
