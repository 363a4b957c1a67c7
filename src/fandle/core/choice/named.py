"""Strokes that have a name of their own: the punched and the rolled bank, inside and outside side."""

from fandle.core.choice.carom import SAYS as WAY_SAYS
from fandle.core.choice.stretch import Key
from fandle.core.shot.play import Shot
from fandle.core.shot.stroke import Stroke

SIDE = 0.02  # of the radius: less is no side
CUT = 0.08  # ball diameters off full: a fuller hit has no inside


def stroke_name(key: Key, stroke: Stroke, hit: float, shot: Shot) -> str:
    """What players call the stroke of a line; "" where it has no name.

    A bank is punched where the ball still slides into its first rail, and rolled where it rolls there. hit: ball
    diameters right of full; the ball then goes to the left, and left is the inside of the cut.
    """
    if key.kind == "bank":
        slides = slides_into_rail(shot, key.target)
        return "" if slides is None else "punch" if slides else "rolled"
    if key.kind != "straight" or abs(stroke.side) < SIDE or abs(hit) < CUT:
        return ""
    return "inside side" if stroke.side * hit < 0.0 else "outside side"


def slides_into_rail(shot: Shot, ball: str) -> bool | None:
    """Does a ball still slide when it comes to its first rail? None where it comes to none."""
    rail = next((event for event in shot.events if event.kind == "rail" and event.ball == ball), None)
    if rail is None:
        return None
    before = [piece for piece in shot.paths[ball] if piece.t + piece.lasts <= rail.t + 1e-9]
    return bool(before) and before[-1].sliding


SAYS = {
    "punch": "Punched: the ball still slides into the rail and comes off shorter than rolled: send it further on.",
    "rolled": "Rolled: the ball rolls into the rail and comes off longer than punched: send it less far.",
    "inside side": "Inside side: reverse at the first cushion, so the cue ball comes off it steeper.",
    "outside side": "Outside side: running at the first cushion, so the cue ball comes off it flatter.",
}


def stroke_says(name: str) -> str:
    """What a stroke that has a name does; "" of one that has none."""
    return SAYS.get(name, "") or WAY_SAYS.get(name, "")
