"""The stroke as the Table room's controls are told it."""

from typing_extensions import TypedDict


class CurveModel(TypedDict):
    """How a raised cue bends the ball: in words; softer and harder: the same at the ends of the speed; mind: what can
    hurt."""

    text: str
    softer: str
    harder: str
    mind: str


class StrokeModel(TypedDict):
    """A stroke in SI, for the controls (lengths, tips), and in words. limit: tips to the miscue."""

    speed: float
    side: float
    up: float
    elevation: float
    cue: str
    lengths: float
    tips: float
    height: float
    speed_text: str
    speed_more: str
    side_text: str
    height_text: str
    clock: str
    percent: int
    limit: float
    curve: CurveModel | None
