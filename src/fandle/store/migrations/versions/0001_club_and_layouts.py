"""Club, players, tables and named layouts."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the first tables."""
    op.create_table(
        "club",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False, unique=True),
    )
    op.create_table(
        "player",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("nickname", sa.String, nullable=False, unique=True),
        sa.Column("club_id", sa.Integer, sa.ForeignKey("club.id"), nullable=False),
    )
    op.create_table(
        "club_table",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("label", sa.String, nullable=False, unique=True),
        sa.Column("club_id", sa.Integer, sa.ForeignKey("club.id"), nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
    )
    op.create_table(
        "named_layout",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False, unique=True),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    """Drop them again."""
    for name in ("named_layout", "club_table", "player", "club"):
        op.drop_table(name)
