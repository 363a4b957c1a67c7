"""A player's scatter from the attempts in the log."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from fandle.app.lines import shot_line
from fandle.app.situation import Situation
from fandle.core.choice.error import Marked, scattered
from fandle.core.choice.field import Field
from fandle.core.errors import FandleError
from fandle.core.lines.solution import Solution
from fandle.core.player.draws import draws
from fandle.core.player.fit import Fit, Landed, fit
from fandle.core.player.scatter import CLUB
from fandle.core.practice.record import Result
from fandle.core.shot.approach import approach
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.steps import Steps

TRIED = 64  # draws of a shot that its spread is read from
FEWEST = 16  # of them that must land


@dataclass(frozen=True)
class Made:
    """An attempt as the log has it. name: of its set-up; off: diamonds, + long, None if not marked."""

    name: str
    asked: Situation
    result: Result
    off: float | None


@dataclass(frozen=True)
class _Known:
    """What is known of a shot: where a hit lies (diamonds, + long), and the spread a club player has there."""

    low: float
    high: float
    sd: float


def from_log(made: Iterable[Made]) -> Steps[Fit]:
    """The scatter and bias behind the kicks and banks of a log, in steps. Raises BadInputError for too few."""
    known: dict[str, _Known | None] = {}
    tried: list[Landed] = []
    for one in made:
        if one.name not in known:
            known[one.name] = _shot(one.asked)
            yield
        shot = known[one.name]
        landed = None if shot is None else _landed(one, shot)
        if landed is not None:
            tried.append(landed)
    return fit(tried)


def _landed(one: Made, shot: _Known) -> Landed | None:
    if one.off is not None:
        return Landed(one.off, one.off, shot.sd)
    ends = {
        Result.HIT: (shot.low, shot.high), Result.SHORT: (-math.inf, shot.low), Result.LONG: (shot.high, math.inf),
    }  # fmt: skip
    return Landed(*ends[one.result], shot.sd) if one.result in ends else None


def _shot(asked: Situation) -> _Known | None:
    """A shot's spread of landings, by playing a club player's errors; None of a shot that says nothing of the kind."""
    try:
        best = shot_line(asked)
        if not best.rails or best.contact is not None:
            return None
        edges = [_off(asked, best, asked.stroke, edge) for edge in best.edges]
        field = Field.of(asked.layout)
        marked = Marked(best.mark_rail, best.corrected.nose, field.start)
        rows = scattered(field, best.direction, asked.stroke, marked, CLUB, draws(TRIED, 0))
        offs = []
        for direction, stroke in zip(rows.at.tolist(), rows.strokes.tolist(), strict=True):
            made = Stroke(stroke[0], stroke[1], stroke[2], cue=asked.stroke.cue)
            offs.append(_off(asked, best, made, direction))
    except FandleError:
        return None
    lands = [off for off in offs if off is not None]
    if None in edges or len(lands) < FEWEST:
        return None
    low, high = sorted(edge for edge in edges if edge is not None)
    return _Known(low, high, float(np.std(lands)))


def _off(asked: Situation, best: Solution, stroke: Stroke, direction: float) -> float | None:
    """How far long (+) a stroke lands on the line through the target parallel to the last rail, diamonds."""
    last, ball = best.rails[-1], asked.layout.ball(best.target)
    way = approach(asked.layout, stroke, direction, most_rails=len(best.rails) + 1, ignore_balls=True)
    met = crosses(way, last, len(best.rails), last.across(ball.x, ball.y))
    if met is None or way.rails[: len(best.rails)] != best.rails:
        return None
    return (met[0] - last.along(ball.x, ball.y)) * met[1]
