"""Studios, designs with their revisions, and tests, in MariaDB."""

from rillstep.store.database import Database
from rillstep.store.models import (
    Base,
    Designer,
    DesignRow,
    Hit,
    Job,
    LineReport,
    Phrase,
    Result,
    Revision,
    SignInRow,
    Studio,
    Tester,
    TestRow,
)

__all__ = [
    "Base",
    "Database",
    "Designer",
    "DesignRow",
    "Hit",
    "Job",
    "LineReport",
    "Phrase",
    "Result",
    "Revision",
    "SignInRow",
    "Studio",
    "TestRow",
    "Tester",
]
