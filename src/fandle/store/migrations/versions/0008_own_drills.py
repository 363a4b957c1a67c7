"""Drills that players made; the system on screen when an attempt was noted."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the table and the column."""
    op.create_table(
        "own_drill",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False, unique=True),
        sa.Column("made_at", sa.String, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.Column("deleted_at", sa.String, nullable=True),
    )
    op.add_column("attempt", sa.Column("system", sa.String, nullable=False, server_default=""))


def downgrade() -> None:
    """Back to what was."""
    with op.batch_alter_table("attempt") as batch:
        batch.drop_column("system")
    op.drop_table("own_drill")
