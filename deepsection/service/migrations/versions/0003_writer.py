"""Which version of the program wrote a document."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    with op.batch_alter_table("documents") as table:
        table.add_column(sa.Column("writer", sa.String(40)))


def downgrade() -> None:
    with op.batch_alter_table("documents") as table:
        table.drop_column("writer")
