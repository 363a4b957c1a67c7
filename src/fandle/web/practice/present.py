"""Drills, plans, questions and progress as the practice room shows them."""

from collections import defaultdict
from collections.abc import Sequence
from datetime import datetime, timedelta

from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import over
from fandle.core.player.share import wilson
from fandle.core.practice.cards import TOPICS
from fandle.core.practice.choices import Choice
from fandle.core.practice.drilled import Drilled
from fandle.core.practice.drills import BY_NAME, Drill
from fandle.core.practice.progress import Made, average, bias_change, change_of, reached, streaks
from fandle.core.practice.quiz import Question
from fandle.core.practice.record import Result
from fandle.core.practice.tonight import Tonight
from fandle.core.shot.approach import approach
from fandle.core.systems.base import figure
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import landing_word, plural_lengths
from fandle.service.evening import Shot, by_kind
from fandle.store.practice import Answered, Try
from fandle.web.drawing import diamonds_mm, path
from fandle.web.practice.models import (
    AskedModel,
    BallModel,
    DrillModel,
    ProgressModel,
    ProgressRow,
    RecordModel,
    TonightModel,
)
from fandle.web.table.stroke_words import stroke_words

LAST = 10
LEVELS = ((0.25, "whole and half marks"), (0.5, "quarters"), (0.75, "between the marks"), (1.01, "as fine as it gets"))
PERIOD_DAYS = 14


def record(drill: Drill, tries: Sequence[Try]) -> RecordModel:
    """What was made of a drill so far."""
    made = [each.made for each in tries]
    streak, best = streaks(made)
    hits, done = sum(made), reached(made, drill.wanted_hits, drill.out_of)
    if not made:
        say = f"not played yet; the goal: {drill.goal}"
    else:
        low, high = wilson(hits, len(made))
        say = f"you: {hits} of {len(made)} here, in the long run likely {low:.0%} to {high:.0%}"
        say += f"; {drill.goal}: reached" if done else f"; the goal: {drill.goal}"
    return {
        "attempts": len(made), "hits": hits, "streak": streak, "best": best, "last": made[-LAST:], "reached": done,
        "say": say,
    }  # fmt: skip


def balls_of(layout: Layout) -> list[BallModel]:
    """The balls of a layout with their tape measures."""
    return [_ball(layout.table, ball) for ball in layout.balls]


def _ball(table: Table, ball: Ball) -> BallModel:
    x, y = diamonds_mm(table, (ball.x, ball.y))
    along, across = ball.x * table.diamond_x * 1000, ball.y * table.diamond_y * 1000
    where = f"{spoken(ball.id)}: {along:.0f} mm from the head rail, {across:.0f} mm from the near rail"
    return {"id": ball.id, "x": x, "y": y, "where": where}


def drill_model(found: Drilled, tries: Sequence[Try]) -> DrillModel:
    """A drill with its line as it is played, and its record."""
    drill, layout, stroke = found.drill, found.layout, found.stroke
    shown: DrillModel = {
        "key": drill.name, "title": drill.title, "family": drill.family, "say": drill.say, "wanted": drill.wanted,
        "goal": drill.goal, "why_not": found.why_not, "balls": [] if layout is None else balls_of(layout), "path": "",
        "marks": [
            {"rail": str(c.rail), "at": round(c.at, 2), "where": f"{c.rail} rail {figure(c.at)}"} for c in found.route
        ], "circle": None, "stroke": "",
        "record": record(drill, tries),
    }  # fmt: skip
    if layout is None or stroke is None:
        return shown
    table, words = layout.table, stroke_words(layout.table, stroke, TIP_DIAMETER_M)
    more = [words["side_text"] if stroke.side else "", words["height_text"] if stroke.up else ""]
    shown["stroke"] = ", ".join(
        [plural_lengths(round(4 * lengths_of(table, stroke.speed)) / 4), *(word for word in more if word)]
    )
    if found.own_number is not None:
        shown["stroke"] += f"; this table's own number: {figure(found.own_number, 1)}"
    way = approach(layout, stroke, found.direction, ignore_balls=drill.play == "route")
    shown["path"] = path(table, way.pieces)
    if found.ends is not None:
        x, y = diamonds_mm(table, (found.ends.x, found.ends.y))
        shown["circle"] = {"x": x, "y": y, "r": found.ends.radius_mm}
    return shown


def tonight_model(plan: Tonight) -> TonightModel:
    """Tonight's plan."""
    return {
        "minutes": plan.minutes,
        "parts": [
            {
                "key": part.drill.name, "title": part.drill.title, "minutes": part.minutes, "why": part.why,
                "say": part.say, "pause": k + 1 in plan.breaks,
                "swaps": [(name, BY_NAME[name].title) for name in part.swaps],
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


def progress_model(
    tries: Sequence[Try], answers: Sequence[Answered], shots: Sequence[Shot], now: datetime, days: int = PERIOD_DAYS
) -> ProgressModel:
    """What changed in the last so many days: the log by kind of line, drill by drill, topic by topic."""
    since, groups = now - timedelta(days=days), defaultdict[tuple[str, str], list[tuple[datetime, bool]]](list)
    for each in tries:
        if each.drill in BY_NAME:
            groups[(each.drill, BY_NAME[each.drill].title)].append((_when(each.made_at), each.made))
    for answer in answers:
        groups[(answer.topic, f"Quiz: {TOPICS.get(answer.topic, answer.topic)}")].append(
            (_when(answer.made_at), answer.correct)
        )
    offs = [(_when(a.made_at), a.off) for a in answers if a.off is not None]
    named = average([off for _, off in offs])
    bias = "" if named.count < 2 else _named_words(named.mean, named.sd, named.count)
    log_rows = [_log_row(kind, some, now, since) for kind, some in sorted(by_kind(shots).items())]
    drilled = [_progress_row(name, title, made, since) for (name, title), made in sorted(groups.items())]
    return {"days": days, "rows": log_rows + drilled, "bias": bias}


def _log_row(kind: str, shots: Sequence[Shot], now: datetime, since: datetime) -> ProgressRow:
    """A kind of line in the log: hits by week, and the average miss apart from the scatter."""
    dated = [(now - timedelta(days=shot.days), shot.tried) for shot in shots]
    made = sorted((when, tried.result == Result.HIT) for when, tried in dated)
    row = _progress_row(kind, f"Log: {kind}", made, since)
    before, after = (
        average([tried.off for when, tried in dated if (when >= since) is late and tried.off is not None])
        for late in (False, True)
    )
    whole = average([tried.off for _, tried in dated if tried.off is not None])
    if whole.count > 1:
        low, high = whole.sd_range
        row["say"] += f". On average {landing_word(whole.mean)}, scattered ± {figure(whole.sd)} ({figure(low)} to "
        row["say"] += f"{figure(high)}); the average: {bias_change(before, after)}"
    return row


def _named_words(mean: float, sd: float, count: int) -> str:
    where = "on average right" if abs(mean) < sd / count**0.5 * 2 else f"on average {landing_word(mean)}"
    return f"Marks you named: {where}, scattered ± {figure(sd)} diamond ({count} of them)."


def _progress_row(name: str, title: str, made: list[tuple[datetime, bool]], since: datetime) -> ProgressRow:
    weeks = defaultdict[str, list[bool]](list)
    for when, hit in made:
        monday = when.date() - timedelta(days=when.weekday())
        weeks[monday.isoformat()].append(hit)
    before, after = ([hit for when, hit in made if (when >= since) is late] for late in (False, True))
    change = change_of(Made(len(before), sum(before)), Made(len(after), sum(after)))
    return {
        "key": name, "title": title, "attempts": len(made), "hits": sum(hit for _, hit in made),
        "weeks": [
            (week, len(hits), sum(hits), sum(hits) / len(hits), *wilson(sum(hits), len(hits)))
            for week, hits in sorted(weeks.items())
        ],
        "say": change.say, "verdict": change.verdict,
    }  # fmt: skip


def _when(text: str) -> datetime:
    return datetime.fromisoformat(text)
