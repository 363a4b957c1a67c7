"""The games, and which balls each is played with."""

from fandle.core.words.balls import CUE

POOL_ORDER = tuple(str(n) for n in range(1, 16))
CAROM_ORDER = ("red", "white")
CAROM_GAMES = ("three-cushion", "one-cushion", "straight-rail")
GAMES = ("eight-ball", "nine-ball", "ten-ball", "straight", "snooker", *CAROM_GAMES)
_POOL = {CUE, *POOL_ORDER}
SNOOKER_COLOURS = ("yellow", "green", "brown", "blue", "pink", "black")
_SNOOKER = {CUE, *(f"red{n}" for n in range(1, 16)), *SNOOKER_COLOURS}
_CAROM = {CUE, *CAROM_ORDER}
_IDS = {"snooker": _SNOOKER, **dict.fromkeys(CAROM_GAMES, _CAROM)}  # any other game: pool's


def ids_of(game: str) -> set[str]:
    """The ids of a game's balls."""
    return _IDS.get(game, _POOL)


def id_hint(game: str) -> str:
    """The same in words."""
    if game == "snooker":
        return "cue, red1 to red15, or a colour"
    return "cue, white, red" if game in CAROM_GAMES else "cue or 1 to 15"


def id_order(game: str) -> list[str]:
    """The object balls of a game, in the order in which they are added."""
    if game == "snooker":
        return [*(f"red{n}" for n in range(1, 16)), *SNOOKER_COLOURS]
    return list(CAROM_ORDER if game in CAROM_GAMES else POOL_ORDER)
