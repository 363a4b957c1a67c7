"""Cues of the club; a home-made table is known by its name."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the cues."""
    op.create_table(
        "club_cue",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False, unique=True),
        sa.Column("end_ratio", sa.Float, nullable=False),
        sa.Column("tip_mm", sa.Float, nullable=False),
    )


def downgrade() -> None:
    """Drop them again."""
    op.drop_table("club_cue")
