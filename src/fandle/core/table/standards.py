"""The five standard tables, and what of a table is its condition rather than its make."""

from dataclasses import replace
from functools import lru_cache

from fandle.core import constants as k
from fandle.core.errors import BadInputError
from fandle.core.table.model import Table
from fandle.core.table.parameters import CONDITION
from fandle.core.table.pocket import Pockets, Point

DEFAULT = "pool-9ft"

_POOL_SPOTS: dict[str, Point] = {"head": (2.0, 2.0), "centre": (4.0, 2.0), "foot": (6.0, 2.0)}
_POOL_POCKETS = Pockets(
    corner_mouth=k.POOL_CORNER_MOUTH_M,
    side_mouth=k.POOL_SIDE_MOUTH_M,
    corner_cut_deg=k.POOL_CORNER_CUT_DEG,
    side_cut_deg=k.POOL_SIDE_CUT_DEG,
    corner_shelf=k.POOL_CORNER_SHELF_M,
    side_shelf=k.POOL_SIDE_SHELF_M,
    corner_point_radius=k.POOL_POINT_RADIUS_M,
    side_point_radius=k.POOL_POINT_RADIUS_M,
)
_SNOOKER_POCKETS = Pockets(
    corner_mouth=k.SNOOKER_CORNER_MOUTH_M,
    side_mouth=k.SNOOKER_SIDE_MOUTH_M,
    corner_cut_deg=k.SNOOKER_CORNER_CUT_DEG,
    side_cut_deg=k.SNOOKER_SIDE_CUT_DEG,
    corner_shelf=k.SNOOKER_CORNER_SHELF_M,
    side_shelf=k.SNOOKER_SIDE_SHELF_M,
    corner_point_radius=k.SNOOKER_CORNER_POINT_RADIUS_M,
    side_point_radius=k.SNOOKER_SIDE_POINT_RADIUS_M,
)


def _pool(name: str, length: float, width: float) -> Table:
    return Table(
        name=name,
        standard=name,
        length=length,
        width=width,
        ball_radius=k.POOL_BALL_RADIUS_M,
        ball_mass=k.POOL_BALL_MASS_KG,
        nose_height=k.POOL_NOSE_SHARE * 2 * k.POOL_BALL_RADIUS_M,
        sight_setback=k.POOL_SIGHT_SETBACK_M,
        rail_width=k.POOL_RAIL_WIDTH_M,
        cushion_restitution=k.POOL_CUSHION_RESTITUTION,
        cushion_friction=k.POOL_CUSHION_FRICTION,
        cushion_compression=0.0,
        cloth_sliding=k.POOL_CLOTH_SLIDING,
        cloth_rolling=k.POOL_CLOTH_ROLLING,
        spin_decay=k.POOL_SPIN_DECAY,
        ball_restitution=k.POOL_BALL_RESTITUTION,
        ball_friction_floor=k.BALL_FRICTION_FLOOR,
        ball_friction_rise=k.BALL_FRICTION_RISE,
        ball_friction_fall=k.BALL_FRICTION_FALL,
        ball_stiffness=k.POOL_BALL_STIFFNESS,
        pockets=_POOL_POCKETS,
        head_string=2.0,
        spots=_POOL_SPOTS,
    )


def _snooker() -> Table:
    eighth, quarter = k.SNOOKER_LENGTH_M / k.DIAMONDS_LONG, k.SNOOKER_WIDTH_M / k.DIAMONDS_SHORT
    baulk, aside = k.SNOOKER_BAULK_M / eighth, k.SNOOKER_D_RADIUS_M / quarter
    return replace(
        _pool("snooker-12ft", k.SNOOKER_LENGTH_M, k.SNOOKER_WIDTH_M),
        ball_radius=k.SNOOKER_BALL_RADIUS_M,
        ball_mass=k.SNOOKER_BALL_MASS_KG,
        nose_height=k.SNOOKER_NOSE_SHARE * 2 * k.SNOOKER_BALL_RADIUS_M,
        sight_setback=None,
        rail_width=k.SNOOKER_RAIL_WIDTH_M,
        cushion_restitution=k.SNOOKER_CUSHION_RESTITUTION,
        cushion_friction=k.SNOOKER_CUSHION_FRICTION,
        cloth_sliding=k.SNOOKER_CLOTH_SLIDING,
        ball_stiffness=k.SNOOKER_BALL_STIFFNESS,
        pockets=_SNOOKER_POCKETS,
        head_string=baulk,
        d_radius=k.SNOOKER_D_RADIUS_M,
        # seen from baulk: green at the left of brown, yellow at its right
        spots={
            "yellow": (baulk, 2.0 - aside),
            "green": (baulk, 2.0 + aside),
            "brown": (baulk, 2.0),
            "blue": (4.0, 2.0),
            "pink": (6.0, 2.0),
            "black": (8.0 - k.SNOOKER_BLACK_M / eighth, 2.0),
        },
    )


def _carom() -> Table:
    return replace(
        _pool("carom-10ft", k.CAROM_LENGTH_M, k.CAROM_WIDTH_M),
        ball_radius=k.CAROM_BALL_RADIUS_M,
        ball_mass=k.CAROM_BALL_MASS_KG,
        nose_height=k.CAROM_NOSE_HEIGHT_M,
        rail_width=k.CAROM_RAIL_WIDTH_M,
        cushion_restitution=k.CAROM_CUSHION_RESTITUTION,
        cushion_friction=k.CAROM_CUSHION_FRICTION,
        cloth_rolling=k.CAROM_CLOTH_ROLLING,
        ball_stiffness=k.CAROM_BALL_STIFFNESS,
        pockets=None,
        head_string=None,
    )


STANDARDS = {
    table.name: table
    for table in (
        _pool("pool-9ft", k.POOL_9FT_LENGTH_M, k.POOL_9FT_WIDTH_M),
        _pool("pool-8ft", k.POOL_8FT_LENGTH_M, k.POOL_8FT_WIDTH_M),
        _pool("pool-7ft", k.POOL_7FT_LENGTH_M, k.POOL_7FT_WIDTH_M),
        _snooker(),
        _carom(),
    )
}
LABELS = {
    "pool-9ft": "Pool, nine-foot",
    "pool-8ft": "Pool, eight-foot",
    "pool-7ft": "Pool, seven-foot",
    "snooker-12ft": "Snooker, twelve-foot",
    "carom-10ft": "Carom, ten-foot",
}
GAMES_ON = {"snooker-12ft": "snooker", "carom-10ft": "three-cushion"}


def standard_table(name: str) -> Table:
    """The standard table called `name`."""
    if name not in STANDARDS:
        raise BadInputError(
            f"unknown table {name!r}: use {', '.join(STANDARDS)}, or give a whole table object", "table", code="unknown"
        )
    return STANDARDS[name]


@lru_cache(maxsize=256)
def standard_twin(table: Table) -> Table:
    """A table's make, and the give of its cushions, in the condition of the standard table it derives from.

    Compression and what goes with it are no condition: they are a link of the chain of their own.
    """
    norm = standard_table(table.standard)
    return replace(table, **{name: getattr(norm, name) for name in CONDITION})


def usual_game(table: Table) -> str:
    """The game a table is made for."""
    return GAMES_ON.get(table.standard, "nine-ball")


def usual_target(table: Table) -> str:
    """A ball to be hit in that game."""
    return {"three-cushion": "red", "snooker": "red1"}.get(usual_game(table), "1")
