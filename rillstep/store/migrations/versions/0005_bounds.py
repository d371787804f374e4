"""long work that is under way, limits shared by all processes, sizes of designs and revisions in columns"""

from alembic import op
import sqlalchemy as sa

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "jobs",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("studio_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=64), nullable=False),
        sa.Column("begun_at", sa.DateTime(), nullable=False),
        sa.Column("stage", sa.String(length=80), nullable=False),
        sa.Column("done", sa.Integer(), nullable=False),
        sa.Column("of", sa.Integer(), nullable=False),
        sa.Column("stopped", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["studio_id"], ["studios.id"], name=op.f("fk_jobs_studio_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_jobs")),
        sa.UniqueConstraint("studio_id", "name", name="uq_jobs_studio_name"),
    )
    op.create_table(
        "hits",
        sa.Column("key", sa.String(length=64), nullable=False),
        sa.Column("many", sa.Integer(), nullable=False),
        sa.Column("ends_at", sa.BigInteger(), nullable=False),
        sa.PrimaryKeyConstraint("key", name=op.f("pk_hits")),
    )
    op.add_column("designs", sa.Column("sizes", sa.JSON(), nullable=False, server_default="[]"))
    op.execute(
        "UPDATE designs SET sizes = COALESCE((SELECT JSON_EXTRACT(document, '$.sizes[*].name') FROM revisions "
        "WHERE design_id = designs.id AND number = designs.revision), '[]')"
    )
    op.alter_column("designs", "sizes", existing_type=sa.JSON(), existing_nullable=False, server_default=None)
    op.add_column("revisions", sa.Column("size", sa.Integer(), nullable=False, server_default="0"))
    op.execute("UPDATE revisions SET size = LENGTH(document)")
    op.alter_column("revisions", "size", existing_type=sa.Integer(), existing_nullable=False, server_default=None)
    op.create_index("ix_revisions_design_size", "revisions", ["design_id", "size"])


def downgrade() -> None:
    op.drop_index("ix_revisions_design_size", "revisions")
    op.drop_column("revisions", "size")
    op.drop_column("designs", "sizes")
    op.drop_table("hits")
    op.drop_table("jobs")
