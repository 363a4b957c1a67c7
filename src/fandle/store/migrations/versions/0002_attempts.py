"""Attempts and preferences."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the log."""
    op.create_table(
        "attempt",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.String, nullable=False, unique=True),
        sa.Column("made_at", sa.String, nullable=False),
        sa.Column("set_up", sa.String, nullable=False),
        sa.Column("title", sa.String, nullable=False),
        sa.Column("table_label", sa.String, nullable=False),
        sa.Column("layout", sa.JSON, nullable=False),
        sa.Column("rails", sa.String, nullable=False),
        sa.Column("stroke", sa.JSON, nullable=False),
        sa.Column("aim", sa.JSON, nullable=False),
        sa.Column("result", sa.String, nullable=False),
        sa.Column("off", sa.Float, nullable=True),
        sa.Column("side_hit", sa.String, nullable=False),
        sa.Column("comment", sa.String, nullable=False),
        sa.Column("deleted_at", sa.String, nullable=True),
    )
    op.create_index("ix_attempt_set_up", "attempt", ["set_up"])
    op.create_table(
        "preference",
        sa.Column("name", sa.String, primary_key=True),
        sa.Column("value", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    """Drop it again."""
    op.drop_table("preference")
    op.drop_index("ix_attempt_set_up", "attempt")
    op.drop_table("attempt")
