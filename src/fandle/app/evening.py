"""What should I work on tonight? The log by kinds of line, and the plan made of it for one table."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from fandle.app.practise import drills
from fandle.app.situation import Situation
from fandle.core.lines.marks import direction_to
from fandle.core.practice.drill import Drill
from fandle.core.practice.kinds import drills_for, kind_of
from fandle.core.practice.progress import Made, average
from fandle.core.practice.record import Result, Tried
from fandle.core.practice.tonight import Kind, Tonight
from fandle.core.practice.tonight import tonight as plan_of
from fandle.core.systems.catalogue import TITLES
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of, speed_word

By = Literal["kind", "speed", "table", "system"]


@dataclass(frozen=True)
class Shot:
    """An attempt of the log: what was shot (nose: its mark there), what came of it, how many days ago; what its table
    is called, and the system on screen, "" for none."""

    asked: Situation
    nose: float
    tried: Tried
    days: float
    table: str = ""
    system: str = ""


def kinds(shots: Iterable[Shot]) -> list[Kind]:
    """The log's attempts by kind of line."""
    return [
        Kind(
            name, Made(len(some), sum(s.tried.result == Result.HIT for s in some)),
            average([s.tried.off for s in some if s.tried.off is not None]), min(s.days for s in some),
            drills_for(name),
        )
        for name, some in grouped(shots).items()
    ]  # fmt: skip


def _kind(shot: Shot) -> str:
    asked, layout = shot.asked, shot.asked.layout
    rails = asked.rails or ()
    direction = 0.0
    if rails and asked.kind == "kick":
        direction = direction_to(layout.table, rails[0], layout.metres(layout.cue), shot.nose, "nose")
    return kind_of(asked.kind, rails, asked.stroke.side, direction, lengths_of(layout.table, asked.stroke.speed))


def _speed(shot: Shot) -> str:
    return speed_word(lengths_of(shot.asked.table, shot.asked.stroke.speed))


_BY: dict[By, Callable[[Shot], str]] = {
    "kind": _kind, "speed": _speed, "table": lambda shot: shot.table or shot.asked.table.name,
    "system": lambda shot: TITLES.get(shot.system, "no system"),
}  # fmt: skip


def grouped(shots: Iterable[Shot], by: By = "kind") -> dict[str, list[Shot]]:
    """The log's attempts by kind of line, speed, table or system, in their order."""
    groups: dict[str, list[Shot]] = defaultdict(list)
    for shot in shots:
        groups[_BY[by](shot)].append(shot)
    return groups


def tonight(
    shots: Iterable[Shot], played: Mapping[str, float], minutes: int, table: Table, own: Iterable[Drill] = ()
) -> Tonight:
    """The plan of an evening on a table. played: days since each drill was last tried; own: the player's own drills."""
    usable = [found.drill for found in drills(table, own) if not found.why_not]
    return plan_of(kinds(shots), played, minutes, usable)
