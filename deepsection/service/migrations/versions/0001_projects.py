"""Projects, versions and documents."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "projects",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("created", sa.DateTime(), nullable=False),
        sa.Column("changed", sa.DateTime(), nullable=False),
    )
    op.create_table(
        "documents",
        sa.Column("digest", sa.String(64), primary_key=True),
        sa.Column("data", sa.LargeBinary(), nullable=False),
    )
    op.create_table(
        "versions",
        sa.Column("key", sa.Integer(), primary_key=True, autoincrement=True),
        sa.Column("project_id", sa.String(40), sa.ForeignKey("projects.id", ondelete="CASCADE"), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("digest", sa.String(64), sa.ForeignKey("documents.digest"), nullable=False),
        sa.Column("label", sa.String(200), nullable=False),
        sa.Column("edits", sa.Text(), nullable=False),
        sa.Column("undo_to", sa.Integer()),
        sa.Column("redo_to", sa.Integer()),
        sa.Column("made", sa.DateTime(), nullable=False),
        sa.UniqueConstraint("project_id", "version"),
    )
    op.create_index("ix_versions_project_id", "versions", ["project_id"])


def downgrade() -> None:
    op.drop_table("versions")
    op.drop_table("documents")
    op.drop_table("projects")
