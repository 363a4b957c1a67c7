"""From an answer to what the Table room says: words, rounded figures, drawing data. No rules of the trade."""

from dataclasses import replace
from typing import cast

from fandle.app.answer import Answer, Played
from fandle.app.answer import answer as answer_to
from fandle.app.situation import Situation
from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.layout.ball import Ball
from fandle.core.layout.edit import absent
from fandle.core.lines.candidates import FULL, Line
from fandle.core.lines.marks import Marks, from_pocket, inches, over
from fandle.core.lines.refusal import guarded
from fandle.core.lines.solution import Aim, Refusal, Solution
from fandle.core.practice.record import RAIL_RESULTS, STRAIGHT_RESULTS, Result, meant_by
from fandle.core.shot.moment import moment_of
from fandle.core.shot.side import running
from fandle.core.shot.stroke import Stroke
from fandle.core.steps import Steps
from fandle.core.table.model import Table
from fandle.core.table.pocket import mouths
from fandle.core.table.rails import Rail
from fandle.core.words.balls import spoken
from fandle.core.words.spoken import side_name
from fandle.formats.answers import aim_answer
from fandle.formats.files import layout_json
from fandle.web import address
from fandle.web.counting import counted
from fandle.web.figures import FRAME_WORDS, mark
from fandle.web.moment import MomentModel, moment_model
from fandle.web.table.afterwards import zone_data
from fandle.web.table.chain import chain, give
from fandle.web.table.games import game_with
from fandle.web.table.helps import helps, own_number
from fandle.web.table.lists import room_for_error, short_mm
from fandle.web.table.models import AnswerModel, ChosenModel, Headline, OtherFrame, ResultKey, SceneModel
from fandle.web.table.picture import picture
from fandle.web.table.reading import counted_from, frame_of, lead, reading_of, remembered
from fandle.web.table.rows import rows_of, shut_rows
from fandle.web.table.stroke_words import stroke_words
from fandle.web.table.whole import capital

OTHER_WORDS = {
    "nose": "{} at the cushion edge",
    "sight": "{} on the diamonds",
    "centre": "{} where the ball turns",
}


def answer(asked: Situation, tip: float = TIP_DIAMETER_M) -> Steps[AnswerModel]:
    """Everything the Table room shows for a situation, in steps. tip: diameter of the player's tip, m."""
    asked = address.rounded(asked)
    found = yield from answer_to(asked)
    given = asked
    if found.plan is not None:  # the best line was asked for: its ball, stroke and way are the situation's now
        asked = found.asked
        given = replace(given, layout=asked.layout, hit=asked.hit)
    base = _base(asked, given, found, tip)
    if asked.layout.target is None:
        return base
    shown = None if found.chosen is None else _shown(asked, found.chosen, found, tip)
    yield
    if isinstance(found.played, Played) and found.played.best.pot is not None:  # the thickness is the pot's own
        hit = found.played.best.hit
        base = {**base, "hit": hit, "hit_text": hit_words(hit)}
    return {**base, "chosen": shown, "count": None if found.chosen is None else counted(asked, found)}


def _base(asked: Situation, given: Situation, found: Answer, tip: float) -> AnswerModel:
    """What is told whether a line is chosen or not."""
    layout = asked.layout
    return {
        "address": address.write(given),
        "layout": cast(SceneModel, layout_json(layout, by_name=True)),
        "stroke": stroke_words(asked.table, asked.stroke, tip),
        "hit": asked.hit,
        "hit_text": hit_words(asked.hit),
        "frame": asked.frame,
        "method": asked.system,
        "kind": asked.kind,
        "goal": asked.goal,
        "called": asked.called,
        "zones": [zone_data(zone) for zone in asked.then.zones],
        "away": [zone_data(zone) for zone in asked.then.away],
        "next": None if asked.then.next is None else asked.then.next.text,
        "pocket": asked.pocket,
        "pockets": [{"id": mouth.name, "name": mouth.name} for mouth in mouths(asked.table)],
        "tray": absent(layout),
        "axes": [{"id": "x", "name": "from the head end"}, {"id": "y", "name": "from the near end"}],
        "target_on": layout.target in found.on,
        "on_in": game_with(layout),
        "headline": headline(layout.target, found.in_the_way, found.on),
        "lines": None if found.plan is None else rows_of(asked, asked.goal, found.plan.lines),
        "shut": None if found.plan is None else shut_rows(found.plan.refused),
        "advice": "" if found.plan is None else found.plan.say,
        "chosen": None,
    }


def headline(target: str | None, blocker: Ball | None, on: tuple[str, ...]) -> Headline:
    """What is to be done, and what stands in its way."""
    if target is None:
        return {"ball": "", "way": "Choose the ball to be hit."}
    if on and target not in on:
        return {"ball": spoken(target), "way": f"it is not on: {' or '.join(spoken(name) for name in on[:3])} is"}
    way = "nothing is in the way" if blocker is None else f"{spoken(blocker.id)} is in the way"
    return {"ball": spoken(target), "way": way}


def hit_words(hit: float) -> str:
    """The thickness asked for: "full", "75 % full, to its right"."""
    if abs(hit) < 0.005:
        return "full"
    return f"{1 - abs(hit):.0%} full, to its {side_name(hit)}"


def _shown(asked: Situation, line: Line, found: Answer, tip: float) -> ChosenModel:
    """The chosen line as it is shown; one whose picture fails is told like one that cannot be solved."""
    shown: list[ChosenModel] = []
    told = found.played
    if isinstance(told, Played):
        played = told

        def draw() -> Aim:
            shown.append({**_chosen(asked, line, played, tip), "own": own_number(asked, played.best, found)})
            return played.aim

        drawn = guarded(asked.layout, line.rails, played.best.target, draw)
        told = drawn if isinstance(drawn, Refusal) else told
    if isinstance(told, Refusal):
        said = aim_answer(told).json_data()
        return {"rails": line.name, "way": over(line.rails), "answer": said, "solved": False, "reason": told.reason}
    return shown[0]


def _chosen(asked: Situation, line: Line, played: Played, tip: float) -> ChosenModel:
    best = played.best
    seen, at = played.backwards, reading_of(best, asked)
    frame = None if at.aim is None else frame_of(at.aim, asked)
    return {
        "rails": line.name,
        "way": over(line.rails),
        "solved": True,
        "rail": at.rail.value,
        "lead": lead(best, at),
        "counted_from": counted_from(best, at),
        "remembered": remembered(at, asked),
        "helps": helps(asked, played),
        "beside": _beside(best, asked),
        "contact": _contact(best),
        "seen": "" if seen is None else f"{seen[0]} rail {seen[1]:.2f}, seen from {best.pocket or spoken(best.target)}",
        "cushions": [f"{c.rail}: in {c.in_deg:.0f}°, out {c.out_deg:.0f}°" for c in best.cushions[: len(best.rails)]],
        "answer": aim_answer(played.aim).json_data(),
        "big": "–" if at.aim is None or frame is None else mark(at.aim, frame),
        "big_words": "" if frame is None else FRAME_WORDS[frame],
        "other": None if at.aim is None or frame is None else _other_frame(at.aim, frame),
        "measured": _measured(asked.table, best),
        "give": give(asked, played.aim),
        "running": _running(asked.stroke, best),
        "window": _window(best),
        "room": room_for_error(best),
        "thickness": "" if best.contact is not None else _thickness(best, asked.hit),
        "chain": chain(asked, played.aim, stroke_words(asked.table, asked.stroke, tip)),
        "results": _results(best),
        "drawing": picture(asked, played),
        "moment": _moment(asked, played),
    }


def _moment(asked: Situation, played: Played) -> MomentModel | None:
    found = moment_of(asked.layout, played.shot)
    return None if found is None else moment_model(asked.table, found, asked.stroke)


def _results(best: Solution) -> list[ResultKey]:
    """What can be noted of this shot."""
    shot = meant_by(best)
    words = {Result.HIT: "Potted" if shot.kind == "bank" else "Hit"}
    known = STRAIGHT_RESULTS if shot.kind == "straight" else RAIL_RESULTS
    keys: list[ResultKey] = [{"id": r.value, "label": words.get(r, r.capitalize()), "potted": None} for r in known]
    if best.pot is None:
        return keys
    potted: ResultKey = {"id": Result.HIT.value, "label": "Potted", "potted": True}
    for key in keys:
        key["potted"] = False
    return [potted, *keys]


def _beside(best: Solution, asked: Situation) -> str:
    """The same mark counted from the ball to be hit, where both are on one rail."""
    value = getattr(best.corrected, asked.frame)
    if best.contact is not None or len(best.rails) != 1 or value is None:
        return ""
    ball = asked.layout.ball(best.target)
    away = value - best.mark_rail.along(ball.x, ball.y)
    return f"{abs(away):.2f} from {spoken(best.target)}"


def _contact(best: Solution) -> str:
    """How a ball that is to be potted is met, and where it goes."""
    if best.pot is not None:
        return f"{best.fullness:.0%} full{best.pot.by(best.target)}"
    if best.contact is None:
        return ""
    return f"into {best.pocket}, cut {best.contact.cut_deg:.0f}°, {best.fullness:.0%} full"


def _other_frame(marks: Marks, frame: str) -> OtherFrame | None:
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


def _running(stroke: Stroke, best: Solution) -> str:
    if abs(stroke.side) < 0.005 or not best.rails or best.contact is not None:
        return ""
    return running(stroke.side, best.mark_rail, best.direction)


def _thickness(best: Solution, hit: float) -> str:
    if best.push:
        return f"{capital(spoken(best.target))} is frozen to the cue ball: this is a push, both go on together."
    if best.pot is not None:
        return "The cue ball goes down as well, however it is hit." if best.pot.in_off else ""
    if best.fullness >= FULL - abs(hit):
        return ""
    asked = "Full" if abs(hit) < 0.005 else f"{1 - abs(hit):.0%} full"
    return f"{asked} cannot be reached: this is {best.fullness:.0%} full."


def _window(best: Solution) -> str:
    """How far the mark may be wrong, in words; of a pot for both, of a ball that hangs, what it is met off."""
    if best.pot is not None:
        pot = best.pot
        if not best.rails:
            return f"room for error: {pot.window_deg:.2f}° of cue to pot it, {best.window_deg:.1f}° to hit it"
        return (
            f"room for error: {short_mm(pot.less_mm + pot.more_mm)} in all to pot it, {best.window_mm:.0f} mm to hit it"
        )
    if len(best.parts) > 1:
        widths: dict[str, float] = {}
        for part in best.parts:
            widths[part.off] = widths.get(part.off, 0.0) + part.mm
        widest = sorted((off for off, mm in widths.items() if mm >= 0.5), key=lambda off: -widths[off])
        names = {rail.value: f"{rail} rail" for rail in Rail}
        told = [f"{widths[off]:.0f} {names.get(off, off)}" for off in widest]
        return f"room for error, mm: {', '.join(told)}"
    less, more = round(best.window_less_mm), round(best.window_more_mm)
    if not best.rails:
        return f"room for error: {best.window_deg:.1f}° of cue in all"
    if abs(less - more) <= 1:
        return f"room for error: ±{min(less, more)} mm"
    towards = ("head", "foot") if best.rails[0].is_long else ("near", "far")
    return f"room for error: {less} mm to the {towards[0]}, {more} mm to the {towards[1]}"
