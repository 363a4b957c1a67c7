"""Whether an attempt left the opponent nothing; attempts listed by the time they were made."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the column, and the time to the index of the list."""
    op.add_column("attempt", sa.Column("left_safe", sa.Boolean, nullable=True))
    op.drop_index("ix_attempt_listed", "attempt")
    op.create_index("ix_attempt_listed", "attempt", ["deleted_at", "made_at", "id"])


def downgrade() -> None:
    """Back to what was."""
    op.drop_index("ix_attempt_listed", "attempt")
    op.create_index("ix_attempt_listed", "attempt", ["deleted_at", "id"])
    with op.batch_alter_table("attempt") as batch:
        batch.drop_column("left_safe")
