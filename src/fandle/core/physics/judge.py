"""Judging one direction of the cue, kick or bank, the way the search asks for it.

`measure` plays it with nothing in the way and gives a signed offset that is continuous in the
direction, so it can be bracketed. `outcome` plays it for real.
"""

from fandle.core.physics.bank import bank_offset, bank_outcome
from fandle.core.physics.jit import kernel
from fandle.core.physics.kick import kick_offset, kick_outcome
from fandle.core.physics.outcomes import Outcome
from fandle.core.physics.scene import KICK, Scene


@kernel
def measure(theta: float, scene: Scene) -> float:
    """Offset (m) of the target, or of the pocket's middle, from the line of travel; NaN off the order of rails."""
    if scene.pocket == KICK:
        return kick_offset(theta, scene)
    n = scene.crowd.shape[0]  # its first two rows are free between two plays
    return bank_offset(theta, scene, scene.crowd[n - 2, :7], scene.crowd[n - 1, :7])


@kernel
def outcome(theta: float, spare: int, scene: Scene) -> Outcome:
    """What really happens.

    spare: further rails that a kicked ball may meet after those asked for (1 to see a BACKSTOP).
    """
    if scene.pocket == KICK:
        return kick_outcome(theta, spare, scene)
    return bank_outcome(theta, scene)
