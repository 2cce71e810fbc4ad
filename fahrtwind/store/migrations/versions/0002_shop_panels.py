"""The shop's panel models."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.create_table(
        "shop_panels",
        sa.Column("name", sa.String(80), primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
    )
