"""The log of a job and the files that belong to it."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "log",
        sa.Column("job_id", sa.String(24), sa.ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("client", sa.String(60), nullable=False),
        sa.Column("entry_id", sa.String(60), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
    )
    op.create_index("one_log_row_per_entry", "log", ["job_id", "entry_id"], unique=True)
    op.create_table(
        "contents",
        sa.Column("digest", sa.String(64), primary_key=True),
        sa.Column("media_type", sa.String(60), nullable=False),
        sa.Column("content", sa.LargeBinary, nullable=False),
    )
    op.create_table(
        "attachments",
        sa.Column("job_id", sa.String(24), sa.ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("digest", sa.String(64), sa.ForeignKey("contents.digest"), primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
    )
