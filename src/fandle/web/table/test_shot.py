"""A noted miss as a test shot: what it found of the table, carried to the other tracks until it is forgotten."""

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field
from typing_extensions import TypedDict

from fandle.app.situation import Situation
from fandle.core.errors import BadInputError
from fandle.core.systems.base import figure
from fandle.core.systems.catalogue import TITLES
from fandle.core.tablecheck.test_shot import CARRIED, MOST, sets_it, shift_of
from fandle.formats.base import Number
from fandle.store.preferences import preference, set_preference
from fandle.web import address
from fandle.web.faults import KEPT
from fandle.web.known import TEST_SHOTS, library_of

router = APIRouter()
MOST_TABLES = 200  # with a test shot: the newest are kept


class TestShot(BaseModel):
    """What is carried to the other tracks on a table: diamonds longer at the mark, null to forget it."""

    __test__ = False  # no test of pytest's
    model_config = ConfigDict(extra="forbid")

    table: str
    shift: Number | None = Field(ge=-MOST, le=MOST)


class CarryModel(TypedDict):
    """By how many diamonds lines on a table have to be aimed longer at the mark, and the same in words."""

    table: str
    shift: float
    say: str


@router.put(address.TEST_SHOT, responses=KEPT)
def put_test_shot(test: TestShot, request: Request) -> CarryModel:
    """Carry what a noted test shot found to the other tracks on its table; a later one takes its place."""
    database, table = request.app.state.database, library_of(request).table(test.table)
    kept = preference(database, TEST_SHOTS, {})
    shots = {name: shift for name, shift in kept.items() if name != table.name} if isinstance(kept, dict) else {}
    if test.shift is not None:
        shots[table.name] = test.shift
    set_preference(database, TEST_SHOTS, dict(list(shots.items())[-MOST_TABLES:]))
    return carried(table.name, test.shift or 0.0)


def carry_of(asked: Situation, off: float | None, slope: float) -> CarryModel | None:
    """What a miss says of the table, where its landing was marked and its system carries it; else None."""
    if off is None or not sets_it(asked.system, asked.rails or ()):
        return None
    try:
        return carried(asked.table.name, round(shift_of(off, slope), 2))
    except BadInputError:
        return None


def carried(table: str, shift: float) -> CarryModel:
    """What is carried on a table, and how it is said."""
    systems = ", ".join(TITLES[each].lower() for each in CARRIED)
    longer = f"{figure(abs(shift))} {'longer' if shift > 0 else 'shorter'}"
    say = f"Carried on this table: {systems} are aimed {longer}." if shift else "Nothing is carried on this table."
    return {"table": table, "shift": shift, "say": say}
