"""Attempts between what the app knows and what is kept: written down, and read again as they were asked."""

import math
from collections.abc import Iterable
from typing import Any

from fandle.app.demo import Practised
from fandle.app.library import STANDARD, Known
from fandle.app.log import Attempt
from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.practice.record import Result, Tried
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.catalogue import systems_over
from fandle.core.table.rails import parse_rails, rails_name
from fandle.formats.answers import StrokeAnswer
from fandle.formats.files import layout_json, layout_of
from fandle.formats.parts import MarksAnswer
from fandle.store.log import Noted


def noted_situation(row: Noted, known: Known = STANDARD) -> Situation:
    """The Table room as it stood when an attempt was made, on the table as it was then.

    Raises BadInputError where the record is not what this version writes.
    """
    s = row.stroke
    try:
        stroke = Stroke(s["speed"], s["side"], s["up"], cue=_cue(s["cue"], known))
        hit = s.get("hit", 0.0)
    except (TypeError, KeyError, AttributeError):
        raise BadInputError(f"the record of attempt {row.uid} cannot be read", "stroke") from None
    return Situation(
        layout_of(row.layout), stroke, parse_rails(row.rails), "bank" if row.kind == "bank" else "kick", row.pocket, hit
    )


def tried_of(row: Noted) -> Tried:
    """What came of an attempt. Raises ValueError where the record says no such thing."""
    off = row.off if isinstance(row.off, float) and math.isfinite(row.off) else None
    return Tried(Result(row.result), off)


def _cue(name: str, known: Known) -> Cue:
    """The cue it was played with; the ideal one where that has been let go of."""
    try:
        return known.cue(name)
    except BadInputError:
        return IDEAL


def noted_attempt(made: Attempt, uid: str, made_at: str, table_label: str, **more: Any) -> Noted:
    """An attempt as it is kept; more: what is said of it besides."""
    asked, best = made.situation, made.best
    hit = {"hit": asked.hit} if asked.hit else {}
    return Noted(
        uid=uid, made_at=made_at, set_up=made.set_up, title=made.title, table_label=table_label,
        layout=layout_json(asked.layout), kind=made.shot.kind, rails=rails_name(best.rails), pocket=made.shot.pocket,
        stroke={**StrokeAnswer.of(asked.stroke).json_data(), **hit}, aim=MarksAnswer.of(best.corrected).json_data(),
        result=made.result.value,
        potted=made.potted, system=system_shown(asked, made.shot.kind), **more,
    )  # fmt: skip


def system_shown(asked: Situation, kind: str) -> str:
    """The player's system where it counts this line, else ""."""
    rails = asked.rails or ()
    return asked.system if rails and asked.system in systems_over(rails, kind) else ""


def practised_rows(made: Iterable[Practised], table_label: str) -> list[Noted]:
    """The attempts of an invented practice as they are kept."""
    return [
        noted_attempt(row.attempt, row.uid, row.made_at, table_label, off=row.off, comment=row.comment) for row in made
    ]
