"""The chain of corrections as a waterfall, and what the rubber's give does, in words."""

from fandle.app.situation import Situation
from fandle.core.lines.solution import Aim, Solution
from fandle.core.shot.side import running
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of
from fandle.core.tablecheck.response import depth
from fandle.core.words.spoken import plural_lengths, side_name, tips_word
from fandle.web.table.models import ChainRow
from fandle.web.table.stroke_models import StrokeModel

TERMS = {
    "ball size": "ball size",
    "cushion": "cushion",
    "side": "side",
    "follow": "height",
    "squirt and swerve": "squirt",
    "compression": "compression",
}  # links to glossary words
SHOWN_LINK = 0.005  # diamonds: a link smaller than this is not written


def chain(asked: Situation, aim: Aim, words: StrokeModel) -> list[ChainRow]:
    """Rows of the waterfall; shifts are differences of rounded partial sums, so they add up."""
    labels = _labels(asked, aim.best, words)
    total = aim.best.mirror.nose
    shown = round(total, 2)
    rows: list[ChainRow] = [
        {"label": "mirror point", "term": "mirror", "from": None, "to": shown, "text": f"{shown:.2f}"}
    ]
    for link in aim.chain:
        total += link.shift
        new = round(total, 2)
        if abs(link.shift) >= SHOWN_LINK or new != shown:
            text = f"{round(new - shown, 2):+.2f}".replace("-", "−")
            rows.append(
                {"label": labels[link.link], "term": TERMS.get(link.link), "from": shown, "to": new, "text": text}
            )
        shown = new
    return rows


def _labels(asked: Situation, best: Solution, words: StrokeModel) -> dict[str, str]:
    """What each link is called for this stroke on this table."""
    stroke, sunk = asked.stroke, _depth(asked.table, best)
    kicked = best.rails and best.contact is None
    spin = running(stroke.side, best.mark_rail, best.direction) if kicked else side_name(stroke.side)
    return {
        "ball size": "ball size",
        "cushion": "rebound at this speed",
        "compression": f"the rubber gives {1000 * sunk:.0f} mm" if sunk else "the rubber gives",
        "side": f"{tips_word(words['tips'])} {spin}",
        "follow": f"{tips_word(words['height'])} {'follow' if stroke.up > 0 else 'draw'}",
        "table": "this table, not the standard one",
        "squirt and swerve": "squirt and swerve",
        "thickness": "as full as it goes",
    }


def give(asked: Situation, aim: Aim) -> str:
    """What the rubber's give does to this aim, in a sentence."""
    shift = next((link.shift for link in aim.chain if link.link == "compression"), 0.0)
    sunk = _depth(asked.table, aim.best)
    if sunk == 0.0 or abs(shift) < SHOWN_LINK:
        return ""
    lengths = plural_lengths(lengths_of(asked.table, asked.stroke.speed))
    along = aim.best.mirror.nose - aim.best.mark_rail.along(asked.layout.cue.x, asked.layout.cue.y)
    told = (
        "shorter, so the mark lies that much further along"
        if shift * along > 0
        else "longer, so the mark lies that much nearer"
    )
    return f"At {lengths} the rubber gives {1000 * sunk:.0f} mm: {abs(shift):.2f} {told}."


def _depth(table: Table, best: Solution) -> float:
    """How far the kicked ball sinks into its first rail, m; nought for a bank, whose ball is not on this path."""
    first = next((ev for ev in best.shot.events if ev.kind == "rail"), None)
    return 0.0 if first is None else depth(table, first)
