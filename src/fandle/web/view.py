"""From an answer to what a page says: words, rounded figures, drawing data. No rules of the trade."""

import math
from typing import Any

from fandle.core.constants import MISCUE_LIMIT, TIP_DIAMETER_M
from fandle.core.lines.bank import add_bank_chain
from fandle.core.lines.candidates import FULL, Line, bank, best_among, in_the_way, kick
from fandle.core.lines.chain import add_chain
from fandle.core.lines.marks import Marks, from_pocket, inches, over
from fandle.core.lines.refusal import guarded
from fandle.core.lines.solution import Aim, Solution
from fandle.core.practice.record import RAIL_RESULTS, STRAIGHT_RESULTS, Result, kind_of
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import clock_of, tips_of
from fandle.core.steps import Steps
from fandle.core.table.model import Table
from fandle.core.table.rails import Rail
from fandle.core.table.speeds import lengths_of, speed_word
from fandle.core.tablecheck.response import depth
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import plural_lengths, side_name, tips_word
from fandle.formats.answers import aim_json, stroke_json
from fandle.formats.files import layout_json
from fandle.web import address
from fandle.web.address import State
from fandle.web.count_view import counted
from fandle.web.figures import FRAME_WORDS, mark
from fandle.web.picture import from_the_other_end, picture
from fandle.web.ways import found_lines, line_words
from fandle.web.whole import capital

OTHER_WORDS = {
    "nose": "or {} at the nose",
    "sight": "or sight through {} on the rail",
    "centre": "or {} where the centre turns",
}
TERMS = {
    "ball size": "ball size",
    "cushion": "cushion",
    "side": "side",
    "follow": "height",
    "squirt and swerve": "squirt",
    "compression": "compression",
}  # links to glossary words
SHOWN_LINK = 0.005  # diamonds: a link smaller than this is not written


def answer(state: State, tip: float = TIP_DIAMETER_M) -> Steps[dict[str, Any]]:
    """Everything the Table room shows for a state, in steps. tip: diameter of the player's tip, m."""
    state = address.rounded(state)
    layout, stroke, table = state.layout, state.stroke, state.layout.table
    base: dict[str, Any] = {
        "address": address.write(state),
        "layout": layout_json(layout, by_name=True),
        "stroke": {**stroke_json(stroke), **stroke_words(table, stroke, tip)},
        "hit": state.hit,
        "hit_text": hit_words(state.hit),
        "frame": state.frame,
        "method": state.method,
        "kind": state.kind,
        "count_of_rails": state.count,
        "pocket": state.pocket,
    }
    if layout.target is None:
        return {**base, "headline": headline(state), "lines": [], "chosen": None}
    found = yield from _found(state)
    chosen = next((line for line in found or [] if line.rails == state.rails), None) or _one(state, found)
    yield
    if chosen is None and found is None:  # none of the few is open any more
        found = yield from found_lines(state)
        chosen = _one(state, found)
    shown = None if chosen is None else _shown(state, chosen, tip)
    yield
    return {
        **base,
        "headline": headline(state),
        "lines": None if found is None else [line_words(line, state.frame) for line in found],
        "chosen": shown,
        "count": None if chosen is None else counted(state, chosen.rails, _pocket(state, chosen)),
    }


def _found(state: State) -> Steps[list[Line] | None]:
    """The list of lines where it is quick, or where it is needed to know which is best; else None.

    The page then asks for it by itself, so that a drag does not wait for it.
    """
    quick = state.kind == "kick" and state.count == "1"
    if quick or (state.rails is None and not state.among):
        found = yield from found_lines(state)
        return found
    return None


def _one(state: State, found: list[Line] | None) -> Line | None:
    """The chosen line itself, or the best of the list."""
    if found and state.rails is None:
        return found[0]
    layout, stroke = state.layout, state.stroke
    if state.rails is None:
        return best_among(layout, stroke, state.among, state.hit)
    if state.kind == "bank":
        return Line(state.rails, bank(layout, state.rails, stroke, pocket=state.pocket), "")
    return Line(state.rails, kick(layout, state.rails, stroke, hit=state.hit), "")


def headline(state: State) -> dict[str, str]:
    """What is to be done, and what stands in its way."""
    layout = state.layout
    if layout.target is None:
        return {"ball": "", "way": "Choose the ball to be hit."}
    blocker = in_the_way(layout)
    way = "nothing is in the way" if blocker is None else f"{spoken(blocker.id)} is in the way"
    return {"ball": spoken(layout.target), "way": way}


def hit_words(hit: float) -> str:
    """The thickness asked for: "full", "75 % full, to its right"."""
    if abs(hit) < 0.005:
        return "full"
    return f"{1 - abs(hit):.0%} full, to its {side_name(hit)}"


def stroke_words(table: Table, stroke: Stroke, tip: float) -> dict[str, Any]:
    """A stroke in lengths and tips, as figures for the controls and as words."""
    lengths = lengths_of(table, stroke.speed)
    side, up = tips_of(stroke.side, table, tip), tips_of(stroke.up, table, tip)
    return {
        "lengths": lengths,
        "tips": side,
        "height": up,
        "speed_text": plural_lengths(lengths),
        "speed_more": f"{speed_word(lengths)}, {stroke.speed:.1f} m/s",
        "side_text": "centre" if abs(side) < 0.02 else f"{tips_word(side)} {side_name(side)}",
        "height_text": "centre" if abs(up) < 0.02 else f"{tips_word(up)} {'above' if up > 0 else 'below'}",
        "clock": clock_of(stroke.side, stroke.up),
        "percent": round(100 * math.hypot(stroke.side, stroke.up) / MISCUE_LIMIT),
        "limit": tips_of(MISCUE_LIMIT, table, tip),
    }


def _pocket(state: State, line: Line) -> str | None:
    return line.answer.best.pocket if isinstance(line.answer, Aim) else state.pocket


def _shown(state: State, line: Line, tip: float) -> dict[str, Any]:
    """The chosen line as it is shown; one whose picture fails is told like one that cannot be solved."""
    shown: dict[str, Any] = {}
    answer = line.answer
    if isinstance(answer, Aim):
        found = answer

        def draw() -> Aim:
            shown.update(_chosen(state, line, found, tip))
            return found

        answer = guarded(state.layout, line.rails, found.best.target, draw)
    if isinstance(answer, Aim):
        return shown
    head = {"rails": line.name, "way": over(line.rails)}
    return {**head, "answer": aim_json(answer), "solved": False, "reason": answer.reason}


def _chosen(state: State, line: Line, found: Aim, tip: float) -> dict[str, Any]:
    head = {"rails": line.name, "way": over(line.rails)}
    best = found.best
    banked = best.contact is not None
    if banked:
        aim = add_bank_chain(state.layout, state.stroke, found)
    else:
        aim = add_chain(state.layout, state.stroke, found, state.hit)
    rail = best.mark_rail
    return {
        **head,
        "solved": True,
        "rail": rail.value,
        "lead": _lead(best, state.layout.table),
        "contact": _contact(best),
        "seen": from_the_other_end(state, best),
        "cushions": [f"{c.rail}: in {c.in_deg:.0f}°, out {c.out_deg:.0f}°" for c in best.cushions[: len(best.rails)]],
        "answer": aim_json(aim),
        "big": mark(best.corrected, state.frame),
        "big_words": FRAME_WORDS[state.frame],
        "other": _other_frame(best.corrected, state.frame),
        "measured": _measured(state.layout.table, best),
        "give": _give(state, aim),
        "running": _running(state.stroke, best),
        "window": _window(best),
        "thickness": "" if banked else _thickness(best, state.hit),
        "chain": _chain(state, aim, tip),
        "results": _results(best),
        "drawing": picture(state, best),
    }


def _results(best: Solution) -> list[tuple[str, str]]:
    """What can be noted of this shot: (result, its word on the key)."""
    kind = kind_of(best.rails, best.pocket)
    words = {Result.HIT: "Potted" if kind == "bank" else "Hit"}
    return [(r.value, words.get(r, r.capitalize())) for r in (STRAIGHT_RESULTS if kind == "straight" else RAIL_RESULTS)]


def _lead(best: Solution, table: Table) -> str:
    rail = "head (baulk)" if best.mark_rail is Rail.HEAD and table.d_radius is not None else best.mark_rail.value
    if best.contact is not None:
        return f"Bank {spoken(best.target)} at the {rail} rail"
    return f"Aim at the {rail} rail" if best.rails else f"Straight: the {rail} rail behind it"


def _contact(best: Solution) -> str:
    """How a banked ball is met, and where it goes."""
    if best.contact is None:
        return ""
    return f"into {best.pocket}, cut {best.contact.cut_deg:.0f}°, {best.fullness:.0%} full"


def _other_frame(marks: Marks, frame: str) -> dict[str, str] | None:
    other = "nose" if frame == "sight" else "sight"
    if getattr(marks, other) is None:
        return None
    before, _, after = OTHER_WORDS[other].partition("{}")
    return {"frame": other, "before": before, "mark": mark(marks, other), "after": after}


def _measured(table: Table, best: Solution) -> str:
    """Where the mark at the nose is by tape, on a table without diamonds to count."""
    if table.has_diamonds:
        return ""
    away, pocket = from_pocket(table, best.mark_rail, best.corrected.nose)
    return f"{away * 1000:.0f} mm ({inches(away)}) from the {pocket}"


def _give(state: State, aim: Aim) -> str:
    """What the rubber's give does to this aim, in a sentence."""
    shift = next((link.shift for link in aim.chain if link.link == "compression"), 0.0)
    sunk = _depth(state.layout.table, aim.best)
    if sunk == 0.0 or abs(shift) < SHOWN_LINK:
        return ""
    lengths = plural_lengths(lengths_of(state.layout.table, state.stroke.speed))
    along = aim.best.mirror.nose - aim.best.mark_rail.along(state.layout.cue.x, state.layout.cue.y)
    shorter = shift * along > 0
    told = (
        "shorter, so the mark lies that much further along" if shorter else "longer, so the mark lies that much nearer"
    )
    return f"At {lengths} the rubber gives {1000 * sunk:.0f} mm: {abs(shift):.2f} {told}."


def _depth(table: Table, best: Solution) -> float:
    """How far the kicked ball sinks into its first rail, m; nought for a bank, whose ball is not on this path."""
    first = next((ev for ev in best.shot.events if ev.kind == "rail"), None)
    return 0.0 if first is None else depth(table, first)


def _running(stroke: Stroke, best: Solution) -> str:
    if abs(stroke.side) < 0.005 or not best.rails or best.contact is not None:
        return ""
    return running(stroke.side, best.mark_rail, best.direction)


def _thickness(best: Solution, hit: float) -> str:
    if best.push:
        return f"{capital(spoken(best.target))} is frozen to the cue ball: this is a push, both go on together."
    if best.fullness >= FULL - abs(hit):
        return ""
    asked = "Full" if abs(hit) < 0.005 else f"{1 - abs(hit):.0%} full"
    return f"{asked} cannot be reached: this is {best.fullness:.0%} full."


def _window(best: Solution) -> str:
    less, more = round(best.window_less_mm), round(best.window_more_mm)
    still = "hits" if best.pocket is None else "drops"
    if not best.rails:
        return f"{best.window_deg:.1f}° of cue, both ways together"
    if abs(less - more) <= 1:
        return f"{min(less, more)} mm either way still {still}"
    towards = ("head", "foot") if best.rails[0].is_long else ("near rail", "far rail")
    return f"{less} mm to the {towards[0]}, {more} mm to the {towards[1]} still {still}"


def _chain(state: State, aim: Aim, tip: float) -> list[dict[str, Any]]:
    """Rows of the waterfall; shifts are differences of rounded partial sums, so they add up."""
    best, table = aim.best, state.layout.table
    lengths = plural_lengths(lengths_of(table, state.stroke.speed))
    words = stroke_words(table, state.stroke, tip)
    kicked = best.rails and best.contact is None
    spin = running(state.stroke.side, best.mark_rail, best.direction) if kicked else side_name(state.stroke.side)
    sunk = _depth(table, best)
    labels = {
        "ball size": "ball size",
        "cushion": f"this cushion at {lengths}",
        "compression": f"the rubber gives {1000 * sunk:.0f} mm" if sunk else "the rubber gives",
        "side": f"{tips_word(words['tips'])} {spin}",
        "follow": f"{tips_word(words['height'])} {'follow' if state.stroke.up > 0 else 'draw'}",
        "table": "this table, not the standard one",
        "squirt and swerve": "squirt and swerve",
        "thickness": "as full as it goes",
    }
    total = best.mirror.nose
    shown = round(total, 2)
    rows = [{"label": "mirror in the noses", "term": "mirror", "from": None, "to": shown, "text": f"{shown:.2f}"}]
    for link in aim.chain:
        total += link.shift
        new = round(total, 2)
        if abs(link.shift) >= SHOWN_LINK or new != shown:
            shift = round(new - shown, 2)
            text = f"{shift:+.2f}".replace("-", "−")
            rows.append(
                {"label": labels[link.link], "term": TERMS.get(link.link), "from": shown, "to": new, "text": text}
            )
        shown = new
    return rows
