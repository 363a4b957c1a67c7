"""All techniques by their M-number."""

import logging
from types import ModuleType

from fandle.core.errors import BadInputError, EngineError
from fandle.core.layout.model import Layout
from fandle.core.shot.cue import IDEAL, Cue
from fandle.core.table.rails import Rail
from fandle.core.techniques import (
    back_cut,
    cushion_ball_cushion,
    half_ball,
    inside_position,
    punch_bank,
    rail_first,
    thin_through,
)
from fandle.core.techniques.base import NoTechnique, Technique

LOG = logging.getLogger(__name__)
_IN_ORDER = (rail_first, back_cut, thin_through, half_ball, cushion_ball_cushion, punch_bank, inside_position)
TECHNIQUES: dict[str, ModuleType] = {module.METHOD: module for module in _IN_ORDER}
TECHNIQUE_TITLES: dict[str, str] = {name: module.TITLE for name, module in TECHNIQUES.items()}
TECHNIQUE_PAGES: dict[str, str] = {name: module.__name__.rpartition(".")[2] for name, module in TECHNIQUES.items()}


def solved(
    method: str, layout: Layout, rails: tuple[Rail, ...] = (), pocket: str | None = None, cue: Cue = IDEAL
) -> Technique | NoTechnique:
    """A technique on a layout. rails: over which the cue ball goes first (M25: the ball), () for the nearest.

    pocket: None for the one that suits it. Raises BadInputError for a method nobody knows, or without a target.
    """
    if method not in TECHNIQUES:
        raise BadInputError(f"unknown technique {method!r}: use {', '.join(TECHNIQUES)}", "method", code="unknown")
    module, settled = TECHNIQUES[method], layout.settled()
    settled.require_target()
    try:
        found: Technique | NoTechnique = module.solve(settled, rails, pocket, cue)
    except EngineError as fault:
        LOG.exception("%s fails on %r", method, layout)
        return NoTechnique(method, module.TITLE, str(fault))
    return found
