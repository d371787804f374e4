"""what heavy work made, by its content"""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import mysql

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "results",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("content_key", sa.String(length=64), nullable=False),
        sa.Column("made", mysql.LONGBLOB(), nullable=False),
        sa.Column("size", sa.Integer(), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_results")),
        sa.UniqueConstraint("content_key", name=op.f("uq_results_content_key")),
    )


def downgrade() -> None:
    op.drop_table("results")
