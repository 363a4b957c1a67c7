"""The demo club that ships with the application; everybody in it is made up."""

import json
import random
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from fandle.core.lines.kick import solve_kick
from fandle.core.lines.solution import Aim, Solution
from fandle.core.practice.record import Result, set_up, shot_title
from fandle.core.shot.stroke import Stroke
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import default_speed
from fandle.formats.answers import marks_json, stroke_json
from fandle.formats.files import layout_json, layout_of
from fandle.store.log import Noted

# layout of the demo club, its rail, and how one practising player does on it:
# bias and scatter in diamonds at the start, attempts
PRACTICE = ((0, Rail.FAR, -0.16, 0.34, 46), (1, Rail.FAR, 0.10, 0.24, 34), (2, Rail.FOOT, 0.02, 0.20, 18))
FIRST_DAY = datetime(2026, 8, 24, 19, 0, tzinfo=UTC)
DAYS = 86
RAIL_MISSED = 0.04  # share of attempts
LEARNED = 0.45  # part of bias and scatter gone at the end
COMMENTS = ("lifted my head", "too much side", "felt right", "cloth slow tonight", "new chalk", "rushed it")


def demo_club() -> dict[str, Any]:
    """Club, players, tables and layouts worth solving."""
    data: dict[str, Any] = json.loads((Path(__file__).parent / "demo" / "club.json").read_text("utf-8"))
    return data


def demo_practice() -> list[Noted]:
    """Some months of practice on three of the layouts, the same every time."""
    club, rng = demo_club(), random.Random(9)
    noted: list[Noted] = []
    for place, rail, bias, scatter, attempts in PRACTICE:
        layout = layout_of(club["layouts"][place]["layout"])
        stroke = Stroke(round(default_speed(layout.table), 4))
        answer = solve_kick(layout, (rail,), stroke, with_chain=False)
        if not isinstance(answer, Aim):
            continue
        for n in range(attempts):
            share = n / attempts
            left = 1.0 - LEARNED * share
            off = rng.gauss(bias * left, scatter * left)
            when = FIRST_DAY + timedelta(days=DAYS * share + place * 0.4, minutes=rng.randrange(90))
            result = _result(off, answer.best, rng)
            noted.append(
                Noted(
                    uid=f"demo-{place}-{n:03d}-{rng.getrandbits(32):08x}",
                    made_at=when.isoformat(timespec="seconds"),
                    set_up=set_up(layout, answer.best.rails),
                    title=shot_title(answer.best.target, answer.best.rails),
                    table_label=club["tables"][0]["label"],
                    layout=layout_json(layout),
                    rails=rail.value,
                    stroke=stroke_json(stroke),
                    aim=marks_json(answer.best.corrected),
                    result=result.value,
                    off=None if result is Result.RAIL or rng.random() < 0.25 else round(off, 2),
                    side_hit="",
                    comment=rng.choice(COMMENTS) if rng.random() < 0.1 else "",
                )
            )
    return sorted(noted, key=lambda row: row.made_at)


def _result(off: float, best: Solution, rng: random.Random) -> Result:
    """A landing this far off is a hit while the ball's edge still meets the target's."""
    if rng.random() < RAIL_MISSED:
        return Result.RAIL
    reach = 0.18 / max(abs(best.cushions[-1].out_deg) / 90, 0.3)
    if abs(off) < reach:
        return Result.HIT
    return Result.LONG if off > 0 else Result.SHORT
