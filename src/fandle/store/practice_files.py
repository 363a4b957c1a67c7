"""A player's results: taken in, and told part by part, whatever their length."""

from collections import deque
from contextlib import closing
from dataclasses import dataclass
from typing import IO, BinaryIO, cast

from fandle.core.words.names import clean_name
from fandle.formats.practice import OwnDrillFile
from fandle.formats.results import read_results
from fandle.store.database import Database
from fandle.store.practice import Try, keep_titles, keep_tries
from fandle.store.staged import Staged
from fandle.store.standing import guest


@dataclass(frozen=True)
class Taken:
    """Whose results were taken in, as they are called here; how many tries were new."""

    player: str
    new: int


def take_in(database: Database, file: IO[bytes], called: str = "") -> Taken:
    """Keep a player's results, all of them or none; what is kept already stays as it is.

    called: what the player is to be called here, where their name is mine. Raises BadInputError, code "whose", where
    that has to be asked for.
    """
    called = clean_name(called, "player") if called else ""
    found = read_results(cast(BinaryIO, file))
    with closing(Staged()) as staged:
        for each in found.tries():
            staged.add(each.model_dump(mode="json"))
        deque(found.answers(), maxlen=0)  # looked at only: answers count for whoever gave them
        with database.write() as session:
            who = guest(session, found.player, "", called)
            keep_titles(session, {k: OwnDrillFile.of(drill).model_dump(mode="json") for k, drill in found.own.items()})
            rows = (Try(r["uid"], r["made_at"], r["drill"], r["table"], r["made"], who) for r in staged)
            return Taken(who, keep_tries(session, rows))
