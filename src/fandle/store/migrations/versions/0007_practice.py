"""Practice: tries at drills, answers in the quiz."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add both tables."""
    op.create_table(
        "drill_try",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.String, nullable=False, unique=True),
        sa.Column("made_at", sa.String, nullable=False),
        sa.Column("drill", sa.String, nullable=False),
        sa.Column("table_label", sa.String, nullable=False),
        sa.Column("player_id", sa.Integer, sa.ForeignKey("player.id"), nullable=True),
        sa.Column("made", sa.Boolean, nullable=False),
        sa.Column("deleted_at", sa.String, nullable=True),
    )
    op.create_index("ix_drill_try", "drill_try", ["deleted_at", "player_id", "drill", "made_at"])
    op.create_table(
        "quiz_try",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.String, nullable=False, unique=True),
        sa.Column("made_at", sa.String, nullable=False),
        sa.Column("topic", sa.String, nullable=False),
        sa.Column("player_id", sa.Integer, sa.ForeignKey("player.id"), nullable=True),
        sa.Column("correct", sa.Boolean, nullable=False),
        sa.Column("off", sa.Float, nullable=True),
        sa.Column("seconds", sa.Float, nullable=False),
    )


def downgrade() -> None:
    """Back to what was."""
    op.drop_table("quiz_try")
    op.drop_index("ix_drill_try", "drill_try")
    op.drop_table("drill_try")
