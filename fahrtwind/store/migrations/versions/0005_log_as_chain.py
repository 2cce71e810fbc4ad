"""Each entry of a log carries a hash over itself and the one before; those there are get theirs."""

import sqlalchemy as sa
from alembic import op

from fahrtwind.core.stations.log.chain import FIRST, digest_of

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.add_column("log", sa.Column("digest", sa.String(64), nullable=False, server_default=""))
    log = sa.table(
        "log",
        sa.column("job_id", sa.String),
        sa.column("number", sa.Integer),
        sa.column("at", sa.DateTime),
        sa.column("client", sa.String),
        sa.column("document", sa.Text),
        sa.column("digest", sa.String),
    )
    connection = op.get_bind()
    before: dict[str, str] = {}
    for row in connection.execute(sa.select(log).order_by(log.c.job_id, log.c.number)).all():
        digest = digest_of(before.get(row.job_id, FIRST), row.number, row.at, row.client, row.document)
        before[row.job_id] = digest
        own = (log.c.job_id == row.job_id) & (log.c.number == row.number)
        connection.execute(log.update().where(own).values(digest=digest))
