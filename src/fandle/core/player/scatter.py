"""A player's scatter: how far direction, speed, tip and mark are off, shot by shot."""

import math
from dataclasses import dataclass
from statistics import NormalDist
from typing import Literal, NamedTuple

from fandle.core import constants as k
from fandle.core.errors import BadInputError
from fandle.core.player.body import ANYBODY, Body

Origin = Literal["default", "typed", "log"]
STRAIGHT_IN_DEG = 0.097  # what a straight-in forgives either way, a metre to the ball and a metre to the pocket
LEAST, MOST = 0.001, 10.0  # times a club player's scatter that are believed


class MarkScatter(NamedTuple):
    """Of a mark at the nose, diamonds, by how easily it is seen (`Remembered.grade`)."""

    diamond: float
    half: float
    quarter: float
    between: float


@dataclass(frozen=True)
class Player:
    """Standard deviations of independent normal errors.

    direction_deg: of the cue's line; speed_part: of the speed, relative; tip_mm: of the tip, across and up alike;
    mark: of the mark at the nose where one is aimed at. origin: where the figures come from; body: how they reach.
    """

    direction_deg: float
    speed_part: float
    tip_mm: float
    mark: MarkScatter
    origin: Origin = "default"
    body: Body = ANYBODY

    def __post_init__(self) -> None:
        for name, value, club in _named(self):
            if not (math.isfinite(value) and LEAST * club <= value <= MOST * club):
                raise BadInputError(
                    f"a scatter of {value:g} is not believed: give {LEAST * club:g} to {MOST * club:g}",
                    f"player.{name}",
                    code="out_of_range",
                )

    def times(self, factor: float, origin: Origin | None = None) -> "Player":
        """The same player with all scatter that many times as wide."""
        return Player(
            self.direction_deg * factor,
            self.speed_part * factor,
            self.tip_mm * factor,
            MarkScatter(*(factor * each for each in self.mark)),
            origin or self.origin,
            self.body,
        )


def _named(player: Player) -> list[tuple[str, float, float]]:
    """(name, value, a club player's value) of every figure."""
    marks = zip(MarkScatter._fields, player.mark, k.CLUB_MARK_DIAMONDS, strict=True)
    return [
        ("direction_deg", player.direction_deg, k.CLUB_DIRECTION_DEG),
        ("speed_part", player.speed_part, k.CLUB_SPEED_PART),
        ("tip_mm", player.tip_mm, 1000 * k.CLUB_TIP_M),
        *((f"mark_diamonds.{name}", value, club) for name, value, club in marks),
    ]


CLUB = Player(k.CLUB_DIRECTION_DEG, k.CLUB_SPEED_PART, 1000 * k.CLUB_TIP_M, MarkScatter(*k.CLUB_MARK_DIAMONDS))
NEW = CLUB.times(k.NEW_PLAYER)
STRONG = CLUB.times(k.STRONG_PLAYER)
PLAYERS = {"new": NEW, "club": CLUB, "strong": STRONG}


def player_named(name: str) -> Player:
    """new, club or strong."""
    if name not in PLAYERS:
        raise BadInputError(
            f"unknown player {name!r}: use {', '.join(PLAYERS)}, or a player's file", "player", code="unknown"
        )
    return PLAYERS[name]


def player_asked(straight_ins: float, lag_off: float, mark_off: float) -> Player:
    """A player's scatter from three plain questions.

    straight_ins: of ten straight-ins, a metre to the ball and a metre to the pocket, how many drop: a line whose error
    is normal stays within ±0.097° that often. lag_off: how far a lag of two lengths usually stops from where it was
    meant to, table lengths: the run goes about with the square of the speed, so half of that share is the speed's.
    mark_off: how far off a mark between two diamonds the ball usually meets the rail, diamonds. "Usually" is taken as
    half the time (the middle of |error|, 0.674 standard deviations).
    """
    for name, value in (("straight_ins", straight_ins), ("lag_off", lag_off), ("mark_off", mark_off)):
        if not math.isfinite(value) or value < 0.0:
            raise BadInputError(f"{name} {value:g}: give a number from 0 on", f"player.{name}", code="out_of_range")
    share = min(max(straight_ins / 10, 0.02), 0.98)
    direction = STRAIGHT_IN_DEG / NormalDist().inv_cdf(0.5 + share / 2)
    usual = NormalDist().inv_cdf(0.75)
    speed = lag_off / usual / 2 / 2
    between = mark_off / usual
    return Player(
        _believed(direction, k.CLUB_DIRECTION_DEG),
        _believed(speed, k.CLUB_SPEED_PART),
        1000 * k.CLUB_TIP_M * _believed(direction, k.CLUB_DIRECTION_DEG) / k.CLUB_DIRECTION_DEG,
        MarkScatter(*(club * _believed(between, CLUB.mark.between) / CLUB.mark.between for club in CLUB.mark)),
        "typed",
    )


def _believed(value: float, club: float) -> float:
    """A figure from an answer, no less than a tenth and no more than five times a club player's."""
    return min(max(value, 0.1 * club), 5.0 * club)
