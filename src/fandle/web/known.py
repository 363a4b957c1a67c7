"""Who asks: the club's library, and what the player said of themselves."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any, NamedTuple

from fastapi import Request

from fandle.app.club import Club
from fandle.app.library import Library
from fandle.app.situation import FAVOURITE
from fandle.core.constants import TIP_DIAMETER_M
from fandle.core.errors import BadInputError
from fandle.core.player.body import ANYBODY, Body, body_of
from fandle.core.player.scatter import CLUB, Player
from fandle.core.shot.cue import CUE_LIMITS, CUES, HOUSE, Cue
from fandle.core.systems.catalogue import TITLES
from fandle.core.table.model import Table
from fandle.core.table.standards import DEFAULT
from fandle.core.tablecheck.test_shot import MOST
from fandle.formats.base import validated
from fandle.formats.player import PlayerFile
from fandle.store.preferences import MY_CUE, PREFERRED, preferences


def library_of(request: Request) -> Library:
    """The club's tables and cues."""
    library: Library = request.app.state.library
    return library


def club_of(request: Request) -> Club:
    """The club that is served."""
    return library_of(request).club


def linked_table(request: Request) -> tuple[Table, str, str]:
    """(the table a room's link names, its name, "" or why that could not be opened: then the default one)."""
    library, name = library_of(request), request.query_params.get("table", DEFAULT)
    try:
        return library.table(name), name, ""
    except BadInputError as error:
        return library.table(DEFAULT), DEFAULT, f"This link cannot be opened: {error}."


class Mine(NamedTuple):
    """What the player plays with by habit: the favourite system, and the cue."""

    system: str = FAVOURITE
    cue: Cue = HOUSE


NEWCOMER = Mine()
SCATTER, TIP = "scatter", "tip_mm"  # the player's scatter, and the diameter of their tip
HABITS = ("reach", "hand", "plain")  # how the player stands and strokes, among the settings
TEST_SHOTS = "test_shots"  # what a test shot found of each table: diamonds longer at the mark, by its name


def settings_of(request: Request) -> Mapping[str, Any]:
    """What an answer needs of the player's settings, all read at once, as it was when this request first asked."""
    if not hasattr(request.state, "habits"):
        request.state.habits = preferences(
            request.app.state.database, (MY_CUE, PREFERRED, SCATTER, TIP, TEST_SHOTS, *HABITS)
        )
    said: Mapping[str, Any] = request.state.habits
    return said


def mine_of(request: Request) -> Mine:
    """The player's favourite system and cue; the house cue where none was chosen, or the chosen one is gone."""
    said = settings_of(request)
    try:
        cue = library_of(request).cue(str(said.get(MY_CUE, HOUSE.name)))
    except BadInputError:
        cue = HOUSE
    system = said.get(PREFERRED)
    return Mine(system if isinstance(system, str) and system in TITLES else FAVOURITE, cue)


def player_of(request: Request) -> Player:
    """The player's scatter as it was said, and their reach; a club player's where nothing was, or it cannot be read."""
    kept = settings_of(request).get(SCATTER)
    try:
        player = CLUB if kept is None else validated(PlayerFile, kept).player()
    except BadInputError:
        player = CLUB
    return replace(player, body=habits_of(request).body)


def carried_of(request: Request, table: Table) -> float:
    """What the test shot noted last found of a table, diamonds longer; 0 where none was, or it cannot be read."""
    kept = settings_of(request).get(TEST_SHOTS)
    shift = kept.get(table.name) if isinstance(kept, dict) else None
    return float(shift) if isinstance(shift, int | float) and abs(shift) <= MOST else 0.0


class Habits(NamedTuple):
    """How the player stands, and whether they play without side."""

    body: Body = ANYBODY
    plain: bool = False


def habits_of(request: Request) -> Habits:
    """The player's habits as they were said; anybody's where nothing was, or it cannot be read."""
    said = settings_of(request)
    try:
        body = body_of(str(said.get("reach", ANYBODY.build)), str(said.get("hand", ANYBODY.hand)))
    except BadInputError:
        body = ANYBODY
    return Habits(body, said.get("plain") is True)


def tip_of(request: Request, cue: Cue | None = None) -> float:
    """Diameter of the tip in metres: a club cue's own, else the player's setting."""
    if cue is not None and cue.name not in CUES:
        return cue.tip
    kept, (low, high) = settings_of(request).get(TIP), CUE_LIMITS["tip"]
    if isinstance(kept, float | int) and low <= kept / 1000 <= high:
        return kept / 1000
    return TIP_DIAMETER_M
