"""What changed and what did not: the log by groups, drill by drill, topic by topic of the quiz."""

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from datetime import UTC, datetime, timedelta

from fandle.app.evening import By, Shot, grouped
from fandle.core.player.share import wilson
from fandle.core.practice.cards import TOPICS
from fandle.core.practice.drills import BY_NAME
from fandle.core.practice.progress import Average, Made, average, bias_change, change_of, within
from fandle.core.practice.record import Result
from fandle.core.systems.base import figure
from fandle.core.words.spoken import landing_word
from fandle.formats.base import EARLIEST, LATEST
from fandle.store.practice import Answered, Try
from fandle.web.practice.models import ProgressModel, ProgressRow

PERIOD_DAYS = 14
SHIPPED = {name: drill.title for name, drill in BY_NAME.items()}
LONG_AGO = datetime(EARLIEST, 1, 1, tzinfo=UTC)
GOAL = 0.2  # diamonds: a typical miss that one works towards


def progress_model(
    tries: Sequence[Try], answers: Sequence[Answered], shots: Sequence[Shot], now: datetime, days: int = PERIOD_DAYS,
    by: By = "kind", goal: float = GOAL, titles: Mapping[str, str] | None = None,
) -> ProgressModel:  # fmt: skip
    """What changed in the last so many days: the log by groups, drill by drill, topic by topic.

    goal: the typical miss worked towards, diamonds; titles: what drills are called, by name; those that
    ship where nothing is said.
    """
    titles = SHIPPED if titles is None else titles
    since, groups = now - timedelta(days=days), defaultdict[tuple[str, str], list[tuple[datetime, bool]]](list)
    for each in tries:
        if each.drill in titles:
            groups[(each.drill, titles[each.drill])].append((_when(each.made_at), each.made))
    for answer in answers:
        groups[(answer.topic, f"Quiz: {TOPICS.get(answer.topic, answer.topic)}")].append(
            (_when(answer.made_at), answer.correct)
        )
    named = average([a.off for a in answers if isinstance(a.off, float) and math.isfinite(a.off)])
    bias = "" if named.count < 2 else f"{_named_words(named)} {within(named, goal)}."
    log_rows = [_log_row(name, some, now, since, goal) for name, some in sorted(grouped(shots, by).items())]
    drilled = [_progress_row(name, title, made, since) for (name, title), made in sorted(groups.items())]
    return {"days": days, "by": by, "goal": goal, "rows": log_rows + drilled, "bias": bias}


def _log_row(name: str, shots: Sequence[Shot], now: datetime, since: datetime, goal: float) -> ProgressRow:
    """A group of the log: hits by week, and the average miss apart from the scatter."""
    dated = [(now - timedelta(days=shot.days), shot.tried) for shot in shots]
    made = sorted((when, tried.result == Result.HIT) for when, tried in dated)
    row = _progress_row(name, f"Log: {name}", made, since)
    before, after = (
        average([tried.off for when, tried in dated if (when >= since) is late and tried.off is not None])
        for late in (False, True)
    )
    whole = average([tried.off for _, tried in dated if tried.off is not None])
    if whole.count > 1:
        low, high = whole.sd_range
        row["say"] += f". On average {landing_word(whole.mean)}, scattered ± {figure(whole.sd)} ({figure(low)} to "
        row["say"] += f"{figure(high)}); the average: {bias_change(before, after)}. "
        row["say"] += within(whole, goal)
    return row


def _named_words(named: Average) -> str:
    where = f"on average {landing_word(named.mean)}" if named.clearly_off else "on average right"
    return f"Marks you named: {where}, scattered ± {figure(named.sd)} diamond ({named.count} of them)."


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
    """A time of a record; one that is none counts as long ago, and so does one at the ends of time."""
    try:
        when = datetime.fromisoformat(text)
        return when.astimezone(UTC) if when.tzinfo is not None and EARLIEST <= when.year <= LATEST else LONG_AGO
    except (ValueError, TypeError, OverflowError):
        return LONG_AGO
