"""Phones of the crew that were let in to one job each."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.create_table(
        "phones",
        sa.Column("id", sa.String(24), primary_key=True),
        sa.Column("job_id", sa.String(24), sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("name", sa.String(40), nullable=False),
        sa.Column("key_digest", sa.String(64), nullable=False, unique=True),
        sa.Column("paired_at", sa.DateTime, nullable=False),
    )
