"""Answers: the JSON of simulate, aim and count, as the contract fixes it."""

import math
from collections.abc import Sequence
from typing import Any, Literal

from fandle.core.lines.held import Instead
from fandle.core.lines.marks import Marks, degrees
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.shot.path import Event
from fandle.core.shot.play import Shot
from fandle.core.shot.stroke import Stroke
from fandle.core.systems.base import Count, NoCount
from fandle.formats.base import Number, Strict


class MarksAnswer(Strict):
    """An aim in three frames, diamonds along the first rail."""

    nose: Number
    sight: Number | None
    centre: Number


class LinkAnswer(Strict):
    """One link of the chain: diamonds at the first rail's nose."""

    link: str
    shift: Number


class WindowAnswer(Strict):
    """How far the mark at the nose may be wrong either way and still hit, mm."""

    less: Number
    more: Number


class CushionAnswer(Strict):
    """A contact with a rail, centre frame; angles from the rail, 90 = straight in."""

    rail: str
    at: Number
    in_deg: Number
    out_deg: Number


class PlaceAnswer(Strict):
    """A ball's centre, diamonds."""

    x: Number
    y: Number


class ObjectContactAnswer(Strict):
    """How a banked ball is met: the cut, and the cue ball's centre then."""

    cut_deg: Number
    ghost: PlaceAnswer


class SolutionAnswer(Strict):
    """One verified aim. Of a bank all but `direction` is the object ball's, and two parts are added."""

    mirror: MarksAnswer
    natural: MarksAnswer
    corrected: MarksAnswer
    direction: Number
    miss_mm: Number
    fullness: Number
    window_mm: WindowAnswer
    cushions: list[CushionAnswer]
    push: bool
    pocket: str | None = None
    object_contact: ObjectContactAnswer | None = None


class AimAnswer(SolutionAnswer):
    """The widest aim, its chain, and the others."""

    solved: Literal[True]
    target: str
    rails: list[str]
    chain: list[LinkAnswer]
    others: list[SolutionAnswer]


class StrokeAnswer(Strict):
    """A stroke: m/s, fractions of the radius, degrees, and the cue by name."""

    speed: Number
    side: Number
    up: Number
    elevation: Number
    cue: str


class InsteadAnswer(Strict):
    """The mark held, the stroke changed: `value` of what was changed, and further values that do."""

    solved: Literal[True]
    target: str
    rails: list[str]
    change: Literal["side", "up", "speed"]
    value: Number
    stroke: StrokeAnswer
    direction: Number
    miss_mm: Number
    others: list[Number]


class RefusedAnswer(Strict):
    """No aim, and why."""

    solved: Literal[False]
    target: str
    rails: list[str]
    reason_code: Literal["jaw", "blocked", "short_of_speed", "too_much_side", "no_such_line", "double_kiss"]
    reason: str


class NumberAnswer(Strict):
    """A number written at a rail."""

    rail: str
    at: Number
    label: str
    role: str


class LandsAnswer(Strict):
    """Where a count's own aim lands."""

    off_diamonds: Number
    off_balls: Number
    side: Literal["short", "long", "on"]
    met: Literal["left", "right", "full"]


class CountAnswer(Strict):
    """A count that applies."""

    method: str
    title: str
    applies: Literal[True]
    rails: list[str]
    numbers: list[NumberAnswer]
    steps: list[str]
    say: str
    adjust: str
    frame: str
    aim: MarksAnswer
    direction: Number
    stroke: StrokeAnswer
    lands: LandsAnswer
    in_the_way: str
    others: list["CountAnswer"] | None = None
    pocket: str | None = None
    object_contact: ObjectContactAnswer | None = None


class NoCountAnswer(Strict):
    """A count that does not apply, and why."""

    method: str
    title: str
    applies: Literal[False]
    rails: list[str]
    reason: str


class EventAnswer(Strict):
    """One contact, or the end of the shot."""

    t: Number
    kind: Literal["rail", "ball", "jaw", "pocket", "stop"]
    ball: str
    rail: str | None = None
    other: str | None = None
    pocket: str | None = None
    x: Number
    y: Number
    speed: Number
    speed_after: Number | None


class ShotAnswer(Strict):
    """A shot as played."""

    events: list[EventAnswer]
    rest: dict[str, PlaceAnswer | None]


def marks_json(marks: Marks) -> dict[str, Any]:
    """An aim in three frames; a line parallel to the rail has no mark (null)."""
    return {
        name: value if value is not None and math.isfinite(value) else None
        for name, value in (("nose", marks.nose), ("sight", marks.sight), ("centre", marks.centre))
    }


def stroke_json(stroke: Stroke) -> dict[str, Any]:
    """A stroke."""
    return {
        "speed": stroke.speed,
        "side": stroke.side,
        "up": stroke.up,
        "elevation": stroke.elevation,
        "cue": stroke.cue.name,
    }


def instead_json(answer: Instead | Refusal) -> dict[str, Any]:
    """The answer of `aim --hold`."""
    if isinstance(answer, Refusal):
        return aim_json(answer)
    return {
        "solved": True,
        "target": answer.target,
        "rails": [r.value for r in answer.rails],
        "change": answer.change,
        "value": answer.value,
        "stroke": stroke_json(answer.stroke),
        "direction": degrees(answer.direction),
        "miss_mm": answer.miss_mm,
        "others": list(answer.others),
    }


def _contact_json(s: Solution | Count) -> dict[str, Any]:
    if s.contact is None:
        return {}
    x, y = s.contact.ghost
    return {"pocket": s.pocket, "object_contact": {"cut_deg": s.contact.cut_deg, "ghost": {"x": x, "y": y}}}


def _solution_json(s: Solution) -> dict[str, Any]:
    return {
        **_contact_json(s),
        "mirror": marks_json(s.mirror),
        "natural": marks_json(s.natural),
        "corrected": marks_json(s.corrected),
        "direction": degrees(s.direction),
        "miss_mm": s.miss_mm,
        "fullness": s.fullness,
        "push": s.push,
        "window_mm": {"less": s.window_less_mm, "more": s.window_more_mm},
        "cushions": [{"rail": c.rail.value, "at": c.at, "in_deg": c.in_deg, "out_deg": c.out_deg} for c in s.cushions],
    }


def aim_json(answer: Aim | Refusal) -> dict[str, Any]:
    """The answer of `aim`."""
    if isinstance(answer, Refusal):
        return {
            "solved": False,
            "target": answer.target,
            "rails": [r.value for r in answer.rails],
            "reason_code": answer.reason_code,
            "reason": answer.reason,
        }
    best = answer.best
    return {
        "solved": True,
        "target": best.target,
        "rails": [r.value for r in best.rails],
        **_solution_json(best),
        "chain": [{"link": link.link, "shift": link.shift} for link in answer.chain],
        "others": [_solution_json(s) for s in answer.solutions[1:]],
    }


def count_json(count: Count | NoCount, others: Sequence[Count] | None = None) -> dict[str, Any]:
    """The answer of `count`. others: the same school over its other rails, where no rails were asked for."""
    head = {"method": count.method, "title": count.title, "rails": [r.value for r in count.rails]}
    if isinstance(count, NoCount):
        return {**head, "applies": False, "reason": count.reason}
    return {
        **head,
        "applies": True,
        "numbers": [{"rail": n.rail.value, "at": n.at, "label": n.label, "role": n.role} for n in count.numbers],
        "steps": list(count.steps),
        "say": count.say,
        "adjust": count.adjust,
        "frame": count.frame,
        "aim": marks_json(count.aim),
        "direction": degrees(count.direction),
        "stroke": stroke_json(count.stroke),
        "lands": {
            "off_diamonds": count.lands.off_diamonds,
            "off_balls": count.lands.off_balls,
            "side": count.lands.side,
            "met": count.lands.met,
        },
        "in_the_way": count.blocked,
        **_contact_json(count),
        **({} if others is None else {"others": [count_json(other) for other in others]}),
    }


def _event_json(event: Event) -> dict[str, Any]:
    named = {"rail": event.rail, "other": event.other, "pocket": event.pocket}
    return {
        "t": event.t,
        "kind": event.kind,
        "ball": event.ball,
        **{name: str(value) for name, value in named.items() if value is not None},
        "x": event.x,
        "y": event.y,
        "speed": event.speed,
        "speed_after": event.speed_after,
    }


def shot_json(shot: Shot) -> dict[str, Any]:
    """The answer of `simulate`."""
    return {
        "events": [_event_json(event) for event in shot.events],
        "rest": {name: None if place is None else {"x": place[0], "y": place[1]} for name, place in shot.rest.items()},
    }
