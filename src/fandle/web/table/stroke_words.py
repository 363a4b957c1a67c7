"""A stroke in lengths and tips, as figures for the controls and as words."""

import math

from fandle.core.constants import MISCUE_LIMIT
from fandle.core.shot.stroke import Stroke
from fandle.core.shot.tips import clock_of, tips_of
from fandle.core.table.model import Table
from fandle.core.table.speeds import lengths_of, speed_word
from fandle.core.words.spoken import mixed, side_name, tips_word
from fandle.formats.answers import StrokeAnswer
from fandle.web.table.models import StrokeModel


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
    }


def _height_words(stroke: Stroke, up: float) -> str:
    """Where the tip is in height, and how far the cue is raised."""
    height = "centre" if abs(up) < 0.02 else f"{tips_word(up)} {'above' if up > 0 else 'below'}"
    return f"{height}, cue raised {stroke.elevation:.0f}°" if stroke.elevation else height
