"""History in words, named points, archived projects."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    with op.batch_alter_table("projects") as table:
        table.add_column(sa.Column("archived", sa.Boolean(), nullable=False, server_default=sa.false()))
    with op.batch_alter_table("versions") as table:
        table.add_column(sa.Column("words", sa.String(240)))
        table.add_column(sa.Column("mark", sa.String(120)))


def downgrade() -> None:
    with op.batch_alter_table("versions") as table:
        table.drop_column("mark")
        table.drop_column("words")
    with op.batch_alter_table("projects") as table:
        table.drop_column("archived")
