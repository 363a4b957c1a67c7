"""A stroke in lengths and tips, as figures for the controls and as words."""

import math

from fandle.core.constants import MISCUE_LIMIT
from fandle.core.handbook.essays import caution
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.swerve import Swerve, paced, swerve
from fandle.core.shot.tips import clock_of, tips_of
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of, speed_word
from fandle.core.words.spoken import mixed, side_name, tips_word
from fandle.formats.answers import StrokeAnswer
from fandle.web.table.stroke_models import CurveModel, StrokeModel

POWER_LENGTHS = 5.0
STEEP_DEG = 12.0  # from there on it is a stroke that rooms forbid


def stroke_words(table: Table, stroke: Stroke, tip: float) -> StrokeModel:
    """A stroke in lengths and tips, as figures for the controls and as words."""
    lengths = lengths_of(table, stroke.speed)
    side, up = tips_of(stroke.side, table, tip), tips_of(stroke.up, table, tip)
    said = StrokeAnswer.of(stroke)
    return {
        "speed": said.speed,
        "side": said.side,
        "up": said.up,
        "elevation": said.elevation,
        "cue": said.cue,
        "lengths": lengths,
        "tips": side,
        "height": up,
        "speed_text": f"{speed_word(lengths)}, {mixed(lengths)}",
        "speed_more": f"{mixed(lengths)} table lengths, {stroke.speed:.1f} m/s",
        "side_text": "none" if abs(side) < 0.02 else f"{tips_word(side)} {side_name(side)}",
        "height_text": _height_words(stroke, up),
        "clock": clock_of(stroke.side, stroke.up),
        "percent": round(100 * math.hypot(stroke.side, stroke.up) / MISCUE_LIMIT),
        "limit": tips_of(MISCUE_LIMIT, table, tip),
        "curve": _curve(table, stroke) if stroke.elevation else _power(lengths),
    }


def _curve(table: Table, stroke: Stroke) -> CurveModel:
    """What a raised cue does, and what softer and harder do to it."""
    softer, harder = paced(table, stroke)
    mind = caution("masse") if stroke.elevation >= STEEP_DEG else ""
    return {
        "text": _bend(swerve(table, stroke)), "softer": "" if softer is None else f"softer: {_bend(softer)}",
        "harder": "harder: it would leap" if harder is None else f"harder: {_bend(harder)}", "mind": mind,
    }  # fmt: skip


def _power(lengths: float) -> CurveModel | None:
    """What a power stroke may do, told where its speed is chosen."""
    return {"text": "", "softer": "", "harder": "", "mind": caution("power")} if lengths >= POWER_LENGTHS else None


def _bend(found: Swerve) -> str:
    aside = 1000 * found.aside_m
    if abs(aside) < 1.0:
        return "no bend"
    return f"bends {abs(aside):.0f} mm {'left' if aside > 0 else 'right'}, done after {found.along_m:.1f} m"


def _height_words(stroke: Stroke, up: float) -> str:
    """Where the tip is in height, and how far the cue is raised."""
    height = "centre" if abs(up) < 0.02 else f"{tips_word(up)} {'above' if up > 0 else 'below'}"
    return f"{height}, cue raised {stroke.elevation:.0f}°" if stroke.elevation else height
