"""first tables"""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import mysql

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "studios",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_studios")),
    )
    op.create_table(
        "designers",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("studio_id", sa.Integer(), nullable=False),
        sa.Column("email", sa.String(length=254), nullable=False),
        sa.Column("password_hash", sa.String(length=255), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["studio_id"], ["studios.id"], name=op.f("fk_designers_studio_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_designers")),
        sa.UniqueConstraint("email", name=op.f("uq_designers_email")),
    )
    op.create_table(
        "designs",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("studio_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("saved_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["studio_id"], ["studios.id"], name=op.f("fk_designs_studio_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_designs")),
    )
    op.create_index(op.f("ix_designs_studio_id"), "designs", ["studio_id"], unique=False)
    op.create_table(
        "revisions",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("design_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("document", mysql.LONGTEXT(), nullable=False),
        sa.Column("note", sa.String(length=200), nullable=False),
        sa.Column("saved_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["design_id"], ["designs.id"], name=op.f("fk_revisions_design_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_revisions")),
        sa.UniqueConstraint("design_id", "number", name="uq_revisions_design_number"),
    )
    op.create_table(
        "tests",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("design_id", sa.Integer(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("document", mysql.LONGTEXT(), nullable=False),
        sa.Column("opened_at", sa.DateTime(), nullable=False),
        sa.Column("closed_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["design_id"], ["designs.id"], name=op.f("fk_tests_design_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_tests")),
    )
    op.create_index(op.f("ix_tests_design_id"), "tests", ["design_id"], unique=False)
    op.create_table(
        "testers",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("test_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("size", sa.String(length=80), nullable=False),
        sa.Column("terms", sa.String(length=2), nullable=False),
        sa.Column("hand", sa.String(length=5), nullable=False),
        sa.Column("token_hash", sa.String(length=64), nullable=False),
        sa.Column("withdrawn_at", sa.DateTime(), nullable=True),
        sa.Column("place", sa.Integer(), nullable=False),
        sa.Column("seen_at", sa.DateTime(), nullable=True),
        sa.Column("report", sa.JSON(), nullable=True),
        sa.ForeignKeyConstraint(["test_id"], ["tests.id"], name=op.f("fk_testers_test_id"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_testers")),
        sa.UniqueConstraint("token_hash", name=op.f("uq_testers_token_hash")),
    )
    op.create_index(op.f("ix_testers_test_id"), "testers", ["test_id"], unique=False)
    op.create_table(
        "line_reports",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("tester_id", sa.Integer(), nullable=False),
        sa.Column("line", sa.Integer(), nullable=False),
        sa.Column("label", sa.String(length=80), nullable=False),
        sa.Column("expected", sa.Integer(), nullable=True),
        sa.Column("found", sa.Integer(), nullable=True),
        sa.Column("note", sa.Text(), nullable=False),
        sa.Column("reported_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(
            ["tester_id"], ["testers.id"], name=op.f("fk_line_reports_tester_id"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_line_reports")),
    )
    op.create_index(op.f("ix_line_reports_tester_id"), "line_reports", ["tester_id"], unique=False)


def downgrade() -> None:
    op.drop_table("line_reports")
    op.drop_table("testers")
    op.drop_table("tests")
    op.drop_table("revisions")
    op.drop_table("designs")
    op.drop_table("designers")
    op.drop_table("studios")
