"""Devices that were let in from beyond this machine."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the devices."""
    op.create_table(
        "device",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("since", sa.String, nullable=False),
        sa.Column("secret", sa.String, nullable=False, unique=True),
    )


def downgrade() -> None:
    """Drop them again."""
    op.drop_table("device")
