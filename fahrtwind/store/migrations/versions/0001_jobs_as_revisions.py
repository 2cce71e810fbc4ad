"""Jobs as revisions."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "jobs",
        sa.Column("id", sa.String(24), primary_key=True),
        sa.Column("head", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("removed_at", sa.DateTime, nullable=True),
    )
    op.create_table(
        "revisions",
        sa.Column("job_id", sa.String(24), sa.ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("summary", sa.String(200), nullable=False),
        sa.Column("client", sa.String(60), nullable=False),
        sa.Column("edit_id", sa.String(60), nullable=False),
        sa.Column("merge_key", sa.String(200), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("back_to", sa.Integer, nullable=True),
        sa.Column("forward_to", sa.Integer, nullable=True),
    )
    op.create_index("one_revision_per_edit", "revisions", ["job_id", "edit_id"], unique=True)
