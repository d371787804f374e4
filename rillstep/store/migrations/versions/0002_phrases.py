"""phrases that a studio keeps"""

from alembic import op
import sqlalchemy as sa

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "phrases",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("studio_id", sa.Integer(), nullable=False),
        sa.Column("words", sa.String(length=160), nullable=False),
        sa.Column("meaning", sa.String(length=240), nullable=False),
        sa.ForeignKeyConstraint(["studio_id"], ["studios.id"], name=op.f("fk_phrases_studio_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_phrases")),
        sa.UniqueConstraint("studio_id", "words", name="uq_phrases_studio_words"),
    )
    op.create_index(op.f("ix_phrases_studio_id"), "phrases", ["studio_id"], unique=False)


def downgrade() -> None:
    op.drop_table("phrases")
