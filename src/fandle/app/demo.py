"""Some months of an invented player's practice, solved and scattered: what the demo club's log is made of."""

import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from fandle.app.lines import aim
from fandle.app.log import Attempt, attempt
from fandle.app.situation import Situation
from fandle.core.layout.model import Layout
from fandle.core.lines.solution import Aim, Solution
from fandle.core.practice.record import Result
from fandle.core.shot.cue import HOUSE
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed

# place among the demo club's layouts, rail, and how the player does on it:
# bias and scatter in diamonds at the start, attempts
PRACTICE = ((0, Rail.FAR, -0.16, 0.34, 46), (1, Rail.FAR, 0.10, 0.24, 34), (2, Rail.FOOT, 0.02, 0.20, 18))
FIRST_DAY = datetime(2026, 8, 24, 19, 0, tzinfo=UTC)
DAYS = 86
RAIL_MISSED = 0.04  # share of attempts
LEARNED = 0.45  # part of bias and scatter gone at the end
COMMENTS = ("lifted my head", "too much side", "felt right", "cloth slow tonight", "new chalk", "rushed it")


@dataclass(frozen=True)
class Practised:
    """One attempt with when it was made, how far off it was (diamonds, None where not marked) and what was said."""

    uid: str
    made_at: str
    attempt: Attempt
    off: float | None
    comment: str


# drill, evenings ago it was first and last played, tries an evening, share made at the start and at the end
DRILLED = (
    ("natural-3", 80, 3, 6, 0.4, 0.8), ("natural-4", 78, 5, 5, 0.35, 0.5), ("kick-running", 60, 4, 6, 0.3, 0.35),
    ("return-2", 70, 24, 8, 0.2, 0.4), ("corner-25", 50, 6, 4, 0.1, 0.3), ("bank-side", 66, 19, 5, 0.3, 0.35),
)  # fmt: skip
EVERY_DAYS = 7


@dataclass(frozen=True)
class Drilled:
    """One try at a drill, as the demo club's player made it."""

    uid: str
    made_at: str
    drill: str
    made: bool


def drilled(now: datetime) -> list[Drilled]:
    """Some months of drills up to a few days before now, the same every time, in order of time."""
    rng, rows = random.Random(1), []
    for drill, first, last, tries, low, high in DRILLED:
        for ago in range(first, last - 1, -EVERY_DAYS):
            share = low + (high - low) * (first - ago) / max(first - last, 1)
            for k in range(tries):
                when = now - timedelta(days=ago, minutes=90 - 2 * k)
                rows.append(
                    Drilled(f"demo-{drill}-{ago}-{k}", when.isoformat(timespec="seconds"), drill, rng.random() < share)
                )
    return sorted(rows, key=lambda row: row.made_at)


def practice(layouts: Sequence[Layout]) -> list[Practised]:
    """Practice on three of the demo club's layouts, the same every time, in order of time."""
    rng = random.Random(9)
    rows: list[Practised] = []
    for place, rail, bias, scatter, attempts in PRACTICE:
        rows += _evenings(rng, place, layouts[place], rail, bias, scatter, attempts)
    return sorted(rows, key=lambda row: row.made_at)


def _evenings(
    rng: random.Random, place: int, layout: Layout, rail: Rail, bias: float, scatter: float, attempts: int
) -> Iterator[Practised]:
    asked = Situation(layout, Stroke(round(default_speed(layout.table), 4), cue=HOUSE), (rail,))
    answer = aim(asked)
    if not isinstance(answer, Aim):
        return
    for n in range(attempts):
        share = n / attempts
        left = 1.0 - LEARNED * share
        off = rng.gauss(bias * left, scatter * left)
        when = FIRST_DAY + timedelta(days=DAYS * share + place * 0.4, minutes=rng.randrange(90))
        result = _result(off, answer.best, rng)
        yield Practised(
            uid=f"demo-{place}-{n:03d}-{rng.getrandbits(32):08x}",
            made_at=when.isoformat(timespec="seconds"),
            attempt=attempt(asked, answer.best, result),
            off=None if result is Result.RAIL or rng.random() < 0.25 else round(off, 2),
            comment=rng.choice(COMMENTS) if rng.random() < 0.1 else "",
        )


def _result(off: float, best: Solution, rng: random.Random) -> Result:
    """A landing this far off is a hit while the ball's edge still meets the target's."""
    if rng.random() < RAIL_MISSED:
        return Result.RAIL
    reach = 0.18 / max(abs(best.cushions[-1].out_deg) / 90, 0.3)
    if abs(off) < reach:
        return Result.HIT
    return Result.LONG if off > 0 else Result.SHORT
