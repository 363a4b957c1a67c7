"""M16, reference lines and the half-way line: three known lines from the corner, shifted by half.

From the head-near corner with high running side over far, foot and near: the lines end (a) at the last
diamond of far before the head-far corner, (b) in that corner, (c) half a diamond down the head rail. Which
marks do it is a property of the table, so they are found on it, not assumed. Off a reference line, shoot at
the mark half-way between the line's own and where its parallel through the cue ball would point. Between the
ends the marks are interpolated, and a whole diamond is shot where its own line ends near enough. Common practice, no
published source.
"""

from dataclasses import replace
from functools import lru_cache

from fandle.core.errors import BadInputError
from fandle.core.layout.ball import Ball
from fandle.core.layout.model import Layout
from fandle.core.lines.marks import direction_to
from fandle.core.shot.approach import approach
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.travel import crosses
from fandle.core.systems.base import ON_RAIL, Count, Draft, RailNumber, View, figure
from fandle.core.table.condition import OWN, conditioned
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.standards import usual_game
from fandle.core.words.balls import spoken

METHOD = "M16"
TITLE = "Reference lines"
ORDERS = ((Rail.FAR, Rail.FOOT, Rail.NEAR),)
SPEED, RUNNING, FOLLOW = 4.0, 0.40, 0.20
OUT = 0.08  # share of the way to the mark at which the reference ball lies, out of the corner's mouth
LOW, HIGH, STEPS = 2.8, 6.6, 40  # marks looked at
CLOTHS_TOLD = (("this table", OWN), ("new cloth", "new"), ("damp cloth", "damp"))
TWENTIETHS = 20  # marks are told to a twentieth of a diamond
NEAR_ENOUGH = 0.3  # diamonds from the target within which a whole diamond's own line may end
FURTHEST = 2.0  # diamonds from the corner: beyond, the lines are no guide


def _end(table: Table, cue: Cue, mark: float, rail: Rail, across: float) -> float | None:
    """Where the line of a mark comes back, diamonds along `rail`; None if it goes over other rails."""
    back = (table.sight_setback or 0.0) / table.diamond_y
    place = mark * OUT, (4.0 + back) * OUT
    try:
        layout = Layout(table, usual_game(table), (Ball("cue", *place),))
    except BadInputError:  # a large ball on a small bed has no room so near to the corner
        return None
    direction = direction_to(table, Rail.FAR, layout.metres(layout.cue), mark, "sight" if back else "nose")
    shot = approach(layout, Stroke(SPEED, RUNNING, FOLLOW, cue=cue), direction, most_rails=4)
    if shot.rails[:3] != ORDERS[0]:
        return None
    met = crosses(shot, rail, 3, across)
    return None if met is None else met[0]


@lru_cache(maxsize=64)
def reference_marks(table: Table, cue: Cue = IDEAL) -> tuple[float, float, float] | None:
    """The marks of the three lines on this table with this cue, sighted; None where no lines come back like that."""
    bare = replace(table, pockets=None)  # the ends are places on rails, pocket or not
    found = []
    for rail, across, wanted in ((Rail.FAR, 4.0, 1.0), (Rail.FAR, 4.0, 0.0), (Rail.HEAD, 0.0, 3.5)):
        mark = None
        before: tuple[float, float] | None = None
        for k in range(STEPS + 1):
            at = LOW + (HIGH - LOW) * k / STEPS
            end = _end(bare, cue, at, rail, across)
            now = None if end is None else (at, end - wanted)
            if before is not None and now is not None and before[1] * now[1] <= 0.0:
                a, b = before, now
                for _ in range(40):
                    mid = 0.5 * (a[0] + b[0])
                    value = _end(bare, cue, mid, rail, across)
                    if value is None:
                        break
                    if (value - wanted) * a[1] > 0.0:
                        a = mid, value - wanted
                    else:
                        b = mid, value - wanted
                mark = 0.5 * (a[0] + b[0])
                break
            before = now
        if mark is None:
            return None
        found.append(mark)
    return found[0], found[1], found[2]


def line_to(table: Table, cue: Cue, end: float) -> tuple[float, float] | None:
    """(the line that is shot, the one found between the three) to an end in diamonds from the corner, + along far.

    A whole diamond is shot where its own line, played with this cue, ends near enough. None where there are no lines.
    """
    marks = reference_marks(table, cue)
    if marks is None:
        return None
    first, middle, last = marks
    found = middle + (first - middle) * end if end >= 0.0 else middle + (last - middle) * -end / 0.5
    whole = float(round(found))
    there = _whole_end(table, cue, whole)
    return (whole if there is not None and abs(there - end) <= NEAR_ENOUGH else found), found


@lru_cache(maxsize=64)
def _whole_end(table: Table, cue: Cue, mark: float) -> float | None:
    """Where the line to a mark ends, diamonds from the corner, + along far, − along head."""
    bare = replace(table, pockets=None)
    along, down = _end(bare, cue, mark, Rail.FAR, 4.0), _end(bare, cue, mark, Rail.HEAD, 0.0)
    if along is None or along >= 0.0 or down is None:
        return along
    return down - 4.0


def count(view: View) -> Draft | str:
    """The reference mark for the target, moved half-way for the cue ball."""
    cue, target, table, ball = view.cue, view.target, view.layout.table, spoken(view.target.id)
    corner = f"{view.name(Rail.HEAD)}-{view.name(Rail.FAR)}"
    if view.off(target, Rail.FAR) <= ON_RAIL and target.x <= FURTHEST:
        end = target.x - view.ball_across(Rail.HEAD)
    elif view.off(target, Rail.HEAD) <= ON_RAIL and 4.0 - target.y <= FURTHEST / 2:
        end = target.y + view.ball_across(Rail.FAR) - 4.0
    else:
        return f"{ball} must lie on a rail near the {corner} corner, where the lines end"
    marks, lines = reference_marks(table, view.stick), line_to(table, view.stick, end)
    if marks is None or lines is None:
        return "on this table no such lines come back to that corner"
    line, exact = lines
    back = view.sight[1]
    shift = cue.x - cue.y * line / (4.0 + back)
    at, smooth = line + shift / 2, exact + (cue.x - cue.y * exact / (4.0 + back)) / 2
    numbers = tuple(
        RailNumber(Rail.FAR, mark, name) for mark, name in zip(marks, "abc", strict=True) if abs(mark - at) > 0.2
    )
    numbers += (RailNumber(Rail.FAR, at, figure(view.shown(Rail.FAR, at)), "aim"),)

    def mark_of(value: float) -> str:
        return figure(view.shown(Rail.FAR, value))

    nearby = "" if line == exact else f", so the next whole diamond, {mark_of(line)}"
    steps = (
        f"this table's lines: {', '.join(mark_of(mark) for mark in marks)}; for {ball} {mark_of(exact)}{nearby}",
        f"parallel through the cue ball {mark_of(line + shift)}, half-way = {mark_of(at)}",
    )
    say = (
        f"From the {view.name(Rail.HEAD)}-{view.name(Rail.NEAR)} corner the line to {mark_of(line)} on the "
        f"{view.name(Rail.FAR)} rail ends at {ball}. Lay the cue along it, move it parallel to the "
        "cue ball, and shoot at the mark half-way between the two."
    )
    adjust = "Shoot the first line once on a strange table and carry its error into the others."
    frame = "sight" if table.has_diamonds else "nose"
    return Draft(at, frame, Stroke(SPEED, RUNNING, FOLLOW), numbers, steps, say, adjust, exact=smooth)


def on_this_table(layout: Layout, found: Count, target: Ball) -> str:
    """What to adjust, with the marks of the three lines by cloth: they are a property of the table."""
    told = []
    for name, cloth in CLOTHS_TOLD:
        marks = reference_marks(conditioned(layout.table, cloth, OWN), found.stroke.cue)
        if marks is not None:
            told.append(f"{name} {', '.join(figure(round(TWENTIETHS * mark) / TWENTIETHS) for mark in marks)}")
    return f"{found.adjust} Marks of the three lines, from the end you shoot from: {'; '.join(told)}."
