"""Techniques: the methods that are technique more than sums, on a situation."""

from fandle.app.situation import Situation
from fandle.core.steps import Steps
from fandle.core.techniques.base import NoTechnique, Technique
from fandle.core.techniques.registry import TECHNIQUES, solved


def is_technique(method: str) -> bool:
    """Is this the number of a technique, M20 to M26?"""
    return method.upper() in TECHNIQUES


def technique(asked: Situation, method: str) -> Technique | NoTechnique:
    """One technique on a situation's balls, with its cue; over its rails and into its pocket where they are given."""
    return solved(method.upper(), asked.layout, asked.rails or (), asked.pocket, asked.stroke.cue)


def techniques(asked: Situation) -> Steps[list[Technique | NoTechnique]]:
    """All of them, those that work here first, in steps."""
    found = []
    for method in TECHNIQUES:
        found.append(technique(asked, method))
        yield
    return sorted(found, key=lambda each: isinstance(each, NoTechnique))
