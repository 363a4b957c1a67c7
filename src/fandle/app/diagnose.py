"""What was the miss, and what to aim at next?"""

from fandle.core.player.scatter import Player
from fandle.core.tablecheck.miss import Miss
from fandle.core.tablecheck.next_aim import Advice, advise


def diagnose(miss: Miss, player: Player) -> Advice:
    """The causes weighed, and the next aims, the first one recommended. Raises BadInputError."""
    return advise(miss, player)
