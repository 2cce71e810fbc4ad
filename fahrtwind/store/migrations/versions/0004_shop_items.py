"""Everything else that the shop has: sections, fasteners, tapes, sealants, cables."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "shop_items",
        sa.Column("name", sa.String(80), primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
    )
