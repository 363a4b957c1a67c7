"""Who plays here is made with the club, so that nobody who comes with a file is ever taken for them."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Until now the first player of all was who plays here; a club without any gets both."""
    op.add_column("player", sa.Column("is_me", sa.Boolean, nullable=False, server_default="0"))
    op.create_index("ix_player_me", "player", ["is_me"], unique=True, sqlite_where=sa.text("is_me"))
    connection = op.get_bind()
    if connection.scalar(sa.text("SELECT count(*) FROM player")):
        connection.execute(sa.text("UPDATE player SET is_me = 1 WHERE id = (SELECT min(id) FROM player)"))
        return
    if not connection.scalar(sa.text("SELECT count(*) FROM club")):
        connection.execute(sa.text("INSERT INTO club (name) VALUES ('My club')"))
    connection.execute(sa.text("INSERT INTO player (nickname, club_id, is_me) SELECT 'Me', min(id), 1 FROM club"))


def downgrade() -> None:
    """Back to what was."""
    op.drop_index("ix_player_me", "player")
    with op.batch_alter_table("player") as batch:
        batch.drop_column("is_me")
