"""The rows of the list of lines: in words and figures, with what the page asks for when one is chosen."""

import math
from collections.abc import Iterable

from fandle.app.answer import chosen_of
from fandle.app.carom import product_said
from fandle.app.situation import Situation
from fandle.core.choice.after import After, left, next_said, stops
from fandle.core.choice.carom import kiss_said, when_said
from fandle.core.choice.named import stroke_says
from fandle.core.choice.opponent import Leave
from fandle.core.choice.reasons import tenths
from fandle.core.choice.refused import Refused
from fandle.core.choice.rests import Rest
from fandle.core.choice.told import Line
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import over
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import tips_of
from fandle.core.table.model import Table
from fandle.core.table.pocket import POCKET_NAMES
from fandle.core.table.rails import rails_name
from fandle.core.table.speeds import lengths_of, speed_word
from fandle.core.techniques.registry import TECHNIQUE_TITLES
from fandle.core.words.balls import CUE, spoken
from fandle.core.words.spoken import side_name, tips_word
from fandle.web.drawing import mm, path, polyline
from fandle.web.figures import mark
from fandle.web.table.row_models import EndModel, RowModel, ShutModel

LIKELY = 0.6  # a line as likely as that is listed with what speaks for it
MOSTLY = 0.8  # of the draws: a ball that goes down more often is not drawn where it stops
SAME = 1e-3  # of a speed, of a radius: strokes no further apart are one


def rows_of(asked: Situation, goal: str, lines: Iterable[Line]) -> list[RowModel]:
    """The lines in words, in their order."""
    return [row_of(asked, goal, line) for line in lines]


def _lane(line: Line) -> tuple[str, ...]:
    """What tells two points over the same rails apart, and close work from a line over the same."""
    if line.technique:
        return (line.technique,)
    return () if line.point is None else (f"{math.degrees(line.direction):.1f}",)


def row_of(asked: Situation, goal: str, line: Line) -> RowModel:
    """One line in words."""
    share = line.wanted
    low, high = share.range
    s = line.stroke
    own = _alike(s, asked.stroke)
    chosen = chosen_of(asked, line)
    return {
        "key": "|".join((line.kind, line.target, rails_name(line.rails), line.pocket or "", *_lane(line))),
        "target": chosen.layout.target or "",
        "kind": chosen.kind,
        "rails": rails_name(chosen.rails or ()),
        "pocket": chosen.pocket,
        "hit": chosen.hit,
        "stroke": {"speed": s.speed, "side": s.side, "up": s.up, "elevation": s.elevation},
        "own": own,
        "name": _name(asked, line),
        "why": _why(asked, goal, line, own=own),
        "mark": _mark(asked, line),
        "share": share.p,
        "low": low,
        "high": high,
        "percent": f"{share.p:.0%}",
        "here": None if line.here is None else f"{line.here.p:.0%}",
        "gain": None if line.gain is None else line.gain.say,
        "path": path(asked.table, line.run.pieces),
        "ends": end_models(asked.table, line.target, line.after),
        "after": _after(goal, line, asked.layout),
        "ahead": "" if line.after.ahead is None else polyline(asked.table, list(line.after.ahead.line)),
    }  # fmt: skip


def _mark(asked: Situation, line: Line) -> str:
    """The mark in the frame that is printed, or at the cushion edge where the sights end; "" of a straight shot.

    Read at another rail than the line's first that is named; aimed at a thing the mark's words say at what.
    """
    if not line.rails or line.aim is None:
        return ""
    frame = asked.frame if getattr(line.aim, asked.frame) is not None else "nose"
    return mark(line.aim, frame)


def _after(goal: str, line: Line, layout: Layout) -> list[str]:
    """What comes after the hit, in sentences: of a pot what follows first, then what a miss leaves."""
    after, theirs = line.after, left(line.after)
    if goal == "pot":
        said = [next_said(after), f"Missed: {theirs[0].lower()}{theirs[1:]}" if theirs else "", stops(after)]
    else:
        said = [theirs, stops(after), next_said(after)]
    return [text for text in (*_point_says(layout, line), *said, stroke_says(line.called)) if text]


def _point_says(layout: Layout, line: Line) -> list[str]:
    """Of a carom point: the product's number where it has one, a kiss that is near, who is where when."""
    if line.point is None:
        return []
    return [product_said(layout, line.point, line.rails), kiss_said(line.point.kiss), when_said(line.point)]


def end_models(table: Table, target: str, after: After) -> list[EndModel]:
    """Where every ball that moves stops."""
    rests = [(CUE, after.rest), (target, after.target_rest), *after.others.items()]
    return [end for ball, rest in rests if (end := _end(table, ball, rest)) is not None]


def _end(table: Table, ball: str, rest: Rest) -> EndModel | None:
    """A ball's ellipse; None where it mostly is gone."""
    if rest.gone > MOSTLY:
        return None
    turn = math.radians(rest.turn_deg)
    x, y = rest.x * table.diamond_x, rest.y * table.diamond_y
    tip = x + rest.a / 1000 * math.cos(turn), y + rest.a / 1000 * math.sin(turn)
    return {"id": ball, "at": mm(table, x, y), "tip": mm(table, *tip), "b": rest.b}


def _alike(one: Stroke, other: Stroke) -> bool:
    pairs = ((one.speed, other.speed), (one.side, other.side), (one.up, other.up), (one.elevation, other.elevation))
    return all(abs(a - b) <= SAME * max(1.0, abs(a)) for a, b in pairs)


def _name(asked: Situation, line: Line) -> str:
    """The rails as a player says them, with the ball where it is not the one chosen."""
    if line.point is not None:
        return f"{line.called.capitalize()}: {spoken(line.target)}"
    names = ", ".join(line.rails).capitalize()
    way = f"{names} rail" if len(line.rails) == 1 else names
    if line.kind == "bank":
        way = f"Bank {over(line.rails)}"
    elif not line.rails:
        way = {"push": "Push", "curve": "Curve", "combination": "Combination"}.get(line.kind, "Straight")
    elif line.kind == "rail-first":
        way = f"{names} rail first"
    if line.technique:
        way = TECHNIQUE_TITLES[line.technique]
    other = line.target != asked.layout.target
    return f"{way}: {spoken(line.target)}" if other or line.kind == "combination" else way


def _why(asked: Situation, goal: str, line: Line, *, own: bool) -> str:
    """Where the mark is, if not on the line's own rail, where a pot goes, the stroke where it is another than the one
    given, and one reason."""
    parts = _elsewhere(line)
    parts += [] if line.pocket is None else [f"into {line.pocket}"]
    parts += [] if line.point is None else [over(line.rails)]
    if goal == "safe" and line.after.leave is not None:
        parts.append(_left(line.after.leave))
    if asked.then.next is not None and line.after.ahead is not None:
        parts.append(f"then {spoken(line.after.ahead.ball)}, {tenths(line.after.ahead.p)}")
    parts += [] if own else [_stroke(asked, line)]
    cons = [reason for reason in line.cons if own or reason.code != "side"]
    likely = line.chance.share("legal").p >= LIKELY
    reasons = [*line.pros, *cons] if likely else [*cons, *line.pros]
    parts += [reasons[0].say] if reasons else ["clear"] if not parts else []
    return " · ".join(parts)


def _elsewhere(line: Line) -> list[str]:
    """What a line over rails is aimed at where that is no mark on the first of them."""
    first = line.rails[0] if line.kind == "bank" else next(iter(line.run.rails), None)
    if not line.rails or first is None or (line.aim is not None and line.mark_rail == first):
        return []
    return [f"aim at {line.mark.say}" if line.aim is None else f"the mark is on the {line.mark_rail} rail"]


def _left(leave: Leave) -> str:
    """What the opponent gets, in a few words."""
    if leave.target is None:
        return "leaves no straight pot"
    return f"leaves {spoken(leave.target)}, {tenths(leave.p)}, {POCKET_NAMES[leave.pocket]}"


def _stroke(asked: Situation, line: Line) -> str:
    """A stroke in a few words: "firm, ½ tip running"."""
    table, s = asked.table, line.stroke
    words = [line.called] if line.called and line.point is None else []
    if abs(s.speed - asked.stroke.speed) > SAME:
        words.append(speed_word(lengths_of(table, s.speed)))
    tips, height = (tips_of(offset, table, s.cue.tip) for offset in (s.side, s.up))
    if abs(tips) >= 0.02:
        bare = not line.run.rails or line.kind == "bank"
        which = side_name(tips) if bare else running(s.side, line.run.rails[0], line.direction)
        words.append(f"{tips_word(tips)} {which}")
    if abs(height) >= 0.02:
        words.append("high" if height > 0 else "low")
    if s.elevation > 0.0:
        words.append("cue raised")
    return ", ".join(words) or "plain"


def shut_rows(refused: Iterable[Refused]) -> list[ShutModel]:
    """What is no line, in words."""
    rows: list[ShutModel] = []
    for no in refused:
        rails = rails_name(no.rails)
        way = over(no.rails).removeprefix("over the ").capitalize()
        way = {"jump": "Jump", "straight": "Straight"}.get(no.kind, way)
        key = "|".join((no.kind, no.target, rails))
        rows.append({"key": key, "rails": rails, "target": no.target, "name": way, "why": no.reason})
    return rows
