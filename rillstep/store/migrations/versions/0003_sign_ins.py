"""sign-ins that can be revoked"""

from alembic import op
import sqlalchemy as sa

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "sign_ins",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("token_hash", sa.String(length=64), nullable=False),
        sa.Column("designer_id", sa.Integer(), nullable=False),
        sa.Column("begun_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["designer_id"], ["designers.id"], name=op.f("fk_sign_ins_designer_id"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_sign_ins")),
        sa.UniqueConstraint("token_hash", name=op.f("uq_sign_ins_token_hash")),
    )
    op.create_index(op.f("ix_sign_ins_designer_id"), "sign_ins", ["designer_id"], unique=False)


def downgrade() -> None:
    op.drop_table("sign_ins")
