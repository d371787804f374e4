"""measures of reports by their names, as a bag has them"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

_NAMES = ("width", "height", "depth", "drop")
_TESTERS = sa.table("testers", sa.column("id", sa.Integer), sa.column("report", sa.JSON))


def _change(changed: Any) -> None:
    connection = op.get_bind()
    rows = connection.execute(sa.select(_TESTERS).where(_TESTERS.c.report.is_not(None))).all()
    for row in rows:
        report = json.loads(row.report) if isinstance(row.report, str) else row.report
        if report is not None:
            connection.execute(sa.update(_TESTERS).where(_TESTERS.c.id == row.id).values(report=changed(dict(report))))


def _by_name(report: dict[str, Any]) -> dict[str, Any]:
    taken = {name: report.pop(f"{name}_mm", None) for name in _NAMES}
    return {**report, "measures_mm": {name: mm for name, mm in taken.items() if mm is not None}}


def _by_field(report: dict[str, Any]) -> dict[str, Any]:
    measures = report.pop("measures_mm", {})
    return {**report, **{f"{name}_mm": measures.get(name) for name in _NAMES}}


def upgrade() -> None:
    _change(_by_name)


def downgrade() -> None:
    _change(_by_field)
