"""Each line once, and how many more there are than are told."""

from collections.abc import Iterator, Sequence

from fandle.core.choice.aiming import Aimed
from fandle.core.choice.carom import point_of
from fandle.core.choice.field import Field
from fandle.core.choice.told import Line, as_meant, kind_of
from fandle.core.shot.approach import approach
from fandle.core.shot.play import play

SAME_PART = 0.25  # ball diameters: points met so near to each other are one line at two strokes


def once_each(lines: Sequence[Line]) -> tuple[Line, ...]:
    """Each line once, the best of those that turned out to be the same.

    A point over the same rails is another line where the first ball is met on another part of it, or at one stroke.
    """
    seen: dict[tuple[object, ...], list[Line]] = {}
    for line in lines:
        same = seen.setdefault(line.identity, [])
        if all(line.point is not None and _apart(line, other) for other in same):
            same.append(line)
    kept = {id(line) for some in seen.values() for line in some}
    return tuple(line for line in lines if id(line) in kept)


def _apart(line: Line, other: Line) -> bool:
    return line.stroke == other.stroke or abs(line.hit - other.hit) > SAME_PART


def how_many_more(field: Field, others: Sequence[Aimed], lines: Sequence[Line]) -> int:
    """How many of the aims that there was no room for would be lines of their own. lines: those that are told."""
    if not others:
        return 0
    told = {line.identity for line in lines}
    return len(set(_identities(field, others)) - told)


def _identities(field: Field, aims: Sequence[Aimed]) -> Iterator[tuple[object, ...]]:
    """What each would be told as (`Line.identity`), without those that would not: as meant, they are something else."""
    for aim, legal in zip(aims, as_meant(field, aims), strict=True):
        key, stroke = aim.stretch.key, aim.stretch.tried.stroke
        way = approach(field.layout, stroke, aim.direction)
        if way.first_ball is None or (key.kind == "point" and not legal):
            continue
        point = point_of(field.layout, play(field.layout, stroke, aim.direction)) if key.kind == "point" else None
        rails = key.rails if key.kind == "bank" else way.rails if point is None else point.rails
        yield kind_of(field, key.kind, way), key.target, rails, key.pocket, (aim.stretch.met,), key.technique
