"""Attempts name table, table version and player by id; room for what else a note can say; tables that are gone.

Attempts made before are given to the table they name, one that is not there any more to a table marked as gone.
"""

import json
from datetime import UTC, datetime
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

FIRST_CLUB, FIRST_PLAYER = "My club", "Me"
FIGURES = ["deleted_at", "table_id", "table_version_id", "set_up", "result", "off"]
NEW = (
    sa.Column("kind", sa.String, nullable=False, server_default="kick"),
    sa.Column("pocket", sa.String, nullable=True),
    sa.Column("potted", sa.Boolean, nullable=True),
    sa.Column("in_off", sa.Boolean, nullable=True),
    sa.Column("touched", sa.JSON, nullable=True),
    sa.Column("stopped_x", sa.Float, nullable=True),
    sa.Column("stopped_y", sa.Float, nullable=True),
    sa.Column("try_number", sa.Integer, nullable=False, server_default="1"),
)
OWNERS = (("table_id", "club_table.id"), ("table_version_id", "table_version.id"), ("player_id", "player.id"))


def upgrade() -> None:
    """Add the columns, then give every attempt its table, version and player."""
    with op.batch_alter_table("club_table", naming_convention={"uq": "uq_%(table_name)s_%(column_0_name)s"}) as batch:
        batch.add_column(sa.Column("gone_at", sa.String, nullable=True))
        batch.drop_constraint("uq_club_table_label", type_="unique")
    op.create_index(
        "ix_club_table_label", "club_table", ["label"], unique=True, sqlite_where=sa.text("gone_at IS NULL")
    )
    op.create_table(
        "table_version",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("table_id", sa.Integer, sa.ForeignKey("club_table.id"), nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("since", sa.String, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
    )
    op.create_index("ix_table_version", "table_version", ["table_id", "number"], unique=True)
    with op.batch_alter_table("attempt") as batch:
        for column in NEW:
            batch.add_column(column)
        for name, target in OWNERS:
            batch.add_column(
                sa.Column(name, sa.Integer, sa.ForeignKey(target, name=f"fk_attempt_{name}"), nullable=True)
            )
    op.create_index("ix_attempt_figures", "attempt", FIGURES)
    op.create_index("ix_attempt_listed", "attempt", ["deleted_at", "id"])
    _give(op.get_bind())


def downgrade() -> None:
    """Take the columns off again."""
    op.drop_index("ix_attempt_listed", "attempt")
    op.drop_index("ix_attempt_figures", "attempt")
    with op.batch_alter_table("attempt") as batch:
        for name, _ in OWNERS:
            batch.drop_column(name)
        for column in NEW:
            batch.drop_column(column.name)
    op.drop_table("table_version")
    op.drop_index("ix_club_table_label", "club_table")
    op.execute("DELETE FROM club_table WHERE gone_at IS NOT NULL")
    with op.batch_alter_table("club_table") as batch:
        batch.drop_column("gone_at")
        batch.create_unique_constraint("uq_club_table_label", ["label"])


def _give(bind: sa.Connection) -> None:
    """Every attempt so far: its table by the name in its layout, its version by the numbers, the first player."""
    attempts = bind.execute(sa.text("SELECT id, set_up, table_label, layout, made_at FROM attempt ORDER BY id")).all()
    if not attempts:
        return
    club = _first(bind, "club", "name", FIRST_CLUB)
    player = _first(bind, "player", "nickname", FIRST_PLAYER, club_id=club)
    tables: dict[str, int] = {}
    versions: dict[tuple[int, str], int] = {}
    for key, set_up, label, layout, made_at in attempts:
        data = _table_in(layout, label)
        name = data if isinstance(data, str) else str(data.get("name", label))
        if name not in tables:
            tables[name] = _table(bind, club, name, label, data)
        written = json.dumps(data, sort_keys=True)
        version = (tables[name], written)
        if version not in versions:
            number = 1 + sum(table == tables[name] for table, _ in versions)
            versions[version] = _insert(
                bind, "table_version", table_id=tables[name], number=number, since=made_at, data=json.dumps(data)
            )
        bind.execute(
            sa.text(
                "UPDATE attempt SET table_id = :t, table_version_id = :v, player_id = :p, set_up = :s WHERE id = :i"
            ),
            {"t": tables[name], "v": versions[version], "p": player, "s": set_up.partition("|")[2], "i": key},
        )


def _table_in(layout: str, label: str) -> Any:
    """The table named or held by an attempt's layout; its label where the record cannot be read."""
    try:
        data = json.loads(layout)["table"]
    except (ValueError, KeyError, TypeError):
        return label
    return data if isinstance(data, (str, dict)) else label


def _table(bind: sa.Connection, club: int, name: str, label: str, data: Any) -> int:
    found = bind.execute(
        sa.text("SELECT id FROM club_table WHERE label = :name OR data = :named"),
        {"name": name, "named": json.dumps(name)},
    ).scalar()
    if found is not None:
        return int(found)
    gone = None if isinstance(data, str) else datetime.now(UTC).isoformat(timespec="seconds")
    return _insert(bind, "club_table", label=label, club_id=club, data=json.dumps(data), gone_at=gone)


def _first(bind: sa.Connection, table: str, column: str, called: str, **others: int) -> int:
    found = bind.execute(sa.text(f"SELECT id FROM {table} ORDER BY id LIMIT 1")).scalar()
    return int(found) if found is not None else _insert(bind, table, **{column: called}, **others)


def _insert(bind: sa.Connection, table: str, **values: Any) -> int:
    names = ", ".join(values)
    marks = ", ".join(f":{name}" for name in values)
    return int(bind.execute(sa.text(f"INSERT INTO {table} ({names}) VALUES ({marks})"), values).lastrowid)
