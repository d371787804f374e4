"""deleted designs are kept for a while"""

from alembic import op
import sqlalchemy as sa

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("designs", sa.Column("deleted_at", sa.DateTime(), nullable=True))


def downgrade() -> None:
    op.execute("DELETE FROM designs WHERE deleted_at IS NOT NULL")
    op.drop_column("designs", "deleted_at")
