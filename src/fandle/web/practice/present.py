"""Drills, plans, questions and progress as the practice room shows them."""

from collections.abc import Sequence

from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import crossing, over
from fandle.core.lines.remembered import remember
from fandle.core.player.share import wilson
from fandle.core.practice.cards import TOPICS
from fandle.core.practice.choices import Choice
from fandle.core.practice.drill import POTS, Drill
from fandle.core.practice.drilled import Drilled
from fandle.core.practice.progress import reached, rounds, streaks
from fandle.core.practice.quiz import Question
from fandle.core.practice.tonight import Tonight
from fandle.core.shot.approach import approach
from fandle.core.shot.moment import moment_of
from fandle.core.shot.play import play
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import figure
from fandle.core.systems.hands import HandStep
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of
from fandle.core.words.balls import CUE, spoken
from fandle.core.words.spoken import plural_lengths, side_name
from fandle.web.drawing import diamonds_mm, path
from fandle.web.hand_view import hands
from fandle.web.practice.models import (
    AskedModel,
    BallModel,
    DrillModel,
    DrillShotModel,
    RecordModel,
    RoundModel,
    TonightModel,
)
from fandle.web.table.stroke_words import stroke_words

LAST = 10
LEVELS = ((0.25, "whole and half marks"), (0.5, "quarters"), (0.75, "between the marks"), (1.01, "as fine as it gets"))
PERIOD_DAYS = 14
WHOLE_WAY = ("point", "pot", "pot-return", "pattern", "route")  # drills of what the cue ball does after the hit


def record(drill: Drill, made: list[bool]) -> RecordModel:
    """What was made of a drill so far: whether each try counted, in order of time."""
    streak, best = streaks(made)
    hits, done = sum(made), reached(made, drill)
    if not made:
        say = f"not played yet; the goal: {drill.goal}"
    else:
        low, high = wilson(hits, len(made))
        say = f"you: {hits} of {len(made)} here, in the long run likely {low:.0%} to {high:.0%}"
        say += f"; {drill.goal}: reached" if done else f"; the goal: {drill.goal}"
    return {
        "attempts": len(made), "hits": hits, "streak": streak, "best": best, "last": made[-LAST:], "reached": done,
        "round": _round(made, drill.out_of) if drill.play == "round" else None, "say": say,
    }  # fmt: skip


def _round(made: list[bool], size: int) -> RoundModel:
    played = len(made) % size
    return {
        "of": size, "played": played, "made": sum(made[len(made) - played :]),
        "best": max(rounds(made, size), default=0),
    }  # fmt: skip


def balls_of(layout: Layout) -> list[BallModel]:
    """The balls of a layout with their tape measures."""
    return [_ball(layout.table, ball) for ball in layout.balls]


def _ball(table: Table, ball: Ball) -> BallModel:
    x, y = diamonds_mm(table, (ball.x, ball.y))
    along, across = ball.x * table.diamond_x * 1000, ball.y * table.diamond_y * 1000
    where = f"{spoken(ball.id)}: {along:.0f} mm from the head rail, {across:.0f} mm from the near rail"
    return {"id": ball.id, "x": x, "y": y, "where": where}


def drill_model(found: Drilled, made: list[bool], steps: Sequence[HandStep] = ()) -> DrillModel:
    """A drill with its line as it is played, and its record; steps: with hands and cue."""
    drill, layout = found.drill, found.layout
    return {
        **_shot_model(found), "key": drill.name, "title": drill.title, "family": drill.family, "say": drill.say,
        "wanted": drill.wanted, "goal": drill.goal, "why_not": found.why_not,
        "then": [_shot_model(each) for each in found.then],
        "hands": [] if layout is None else hands(layout.table, steps), "remember": _mark_words(found),
        "record": record(drill, made),
    }  # fmt: skip


def _shot_model(found: Drilled) -> DrillShotModel:
    """One shot: how the balls lie, its path and its stroke where it can be played."""
    layout, stroke, ends = found.layout, found.stroke, found.ends
    shown: DrillShotModel = {
        "balls": [] if layout is None else balls_of(layout), "aim": "" if layout is None else layout.target or "",
        "path": "", "runs": "", "marks": [
            {"rail": str(c.rail), "at": round(c.at, 2), "where": f"{c.rail} rail {figure(c.at)}"} for c in found.route
        ], "circle": None, "stroke": "",
    }  # fmt: skip
    if layout is None or stroke is None:
        return shown
    thick, shown["path"], shown["runs"] = _way_of(found, layout, stroke)
    shown["stroke"] = f"{_stroke_words(found, layout, stroke)}{thick}"
    if ends is not None:
        x, y = diamonds_mm(layout.table, (ends.x, ends.y))
        shown["circle"] = {"x": x, "y": y, "r": ends.radius_mm}
    return shown


def _stroke_words(found: Drilled, layout: Layout, stroke: Stroke) -> str:
    """How it is struck; of a pot the pocket, too."""
    table, words = layout.table, stroke_words(layout.table, stroke, TIP_DIAMETER_M)
    more = [words["side_text"] if stroke.side else "", words["height_text"] if stroke.up else ""]
    said = ", ".join([plural_lengths(round(4 * lengths_of(table, stroke.speed)) / 4), *filter(None, more)])
    if found.drill.play in POTS and found.into is not None:
        said = f"{spoken(layout.target or '')} into {found.into}: {said}"
    if found.own_number is not None:
        said += f"; this table's own number: {figure(found.own_number, 1)}"
    return said


def _way_of(found: Drilled, layout: Layout, stroke: Stroke) -> tuple[str, str, str]:
    """(of a point how thick the first ball is hit, in words; the cue ball's path: to the ball, or, where what it does
    then is drilled, the whole; the target's path, of a pot)."""
    play_ = found.drill.play
    shot = play(layout, stroke, found.direction)
    met = moment_of(layout, shot) if play_ == "point" else None
    thick = "" if met is None else f"; {met.fullness:.0%} of {spoken(met.ball_id)}, on its {side_name(met.hit)}"
    whole = play_ in WHOLE_WAY
    way = shot.paths.get(CUE, ()) if whole else approach(layout, stroke, found.direction).pieces
    runs = shot.paths.get(layout.target or "", ()) if play_ in POTS else ()
    return thick, path(layout.table, way), path(layout.table, runs)


def _mark_words(found: Drilled) -> str:
    """The mark at the cushion edge as one remembers it: "near the third diamond from the head rail"."""
    drill, layout = found.drill, found.layout
    if layout is None or found.stroke is None or not found.route or drill.play in POTS:
        return ""
    rail = found.route[0].rail
    at = crossing(layout.table, rail, layout.metres(layout.cue), found.direction, 0.0)
    return f"{rail} rail, {remember(layout.table, rail, at).say}"


def tonight_model(plan: Tonight) -> TonightModel:
    """Tonight's plan."""
    return {
        "minutes": plan.minutes,
        "parts": [
            {
                "key": part.drill.name, "title": part.drill.title, "minutes": part.minutes, "why": part.why,
                "say": part.say, "pause": k + 1 in plan.breaks,
                "swaps": [(each.name, each.title) for each in part.swaps],
            }
            for k, part in enumerate(plan.parts)
        ],
    }  # fmt: skip


def level_of(difficulty: float) -> str:
    """How hard the quiz is, in words."""
    return next(word for top, word in LEVELS if difficulty < top)


def asked_model(topic: str, seed: int, difficulty: float, asked: Question | Choice) -> AskedModel:
    """A question as it is shown: nothing in it tells the answer."""
    base = asked.base if isinstance(asked, Choice) else asked
    layout = base.layout
    target = spoken(layout.target or "")
    text = f"Hit {target} {over(base.rails)}, plain, medium: where do you aim?"
    rail, options = str(base.rails[0]), list[str]()
    if isinstance(asked, Choice):
        text, options = asked.text, list(asked.options)
        rail = "" if asked.rail is None else str(asked.rail)
    return {
        "topic": topic, "what": TOPICS[topic], "seed": seed, "difficulty": difficulty, "text": text,
        "balls": balls_of(layout), "rail": rail, "options": options,
        "says": [f"the {each} rail" if topic == "rail" else each for each in options], "seconds": base.seconds,
        "level": level_of(difficulty),
    }  # fmt: skip
