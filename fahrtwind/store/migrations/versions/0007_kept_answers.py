"""The last answer of each job, so that it opens at once the next time."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.create_table(
        "answers",
        sa.Column("job_id", sa.String(24), sa.ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("maker", sa.String(64), nullable=False),
        sa.Column("body", sa.LargeBinary, nullable=False),
    )
