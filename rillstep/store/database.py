"""The connection to MariaDB, and the unit of work: everything in it is kept, or nothing."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, text
from sqlalchemy.orm import Session, sessionmaker

MIGRATIONS = Path(__file__).parent / "migrations"


class Database:
    """An engine and its sessions; one for each process."""

    def __init__(self, url: str) -> None:
        self.url = url
        self.engine: Engine = create_engine(
            url,
            pool_pre_ping=True,
            pool_recycle=1800,
            isolation_level="READ COMMITTED",
            connect_args={
                "charset": "utf8mb4",
                "connect_timeout": 5,
                "init_command": "SET sql_mode='STRICT_ALL_TABLES'",
            },
        )
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)

    @contextmanager
    def unit_of_work(self) -> Iterator[Session]:
        """A session that commits at the end, or rolls back on any exception."""
        with self._sessions() as session, session.begin():
            yield session

    def ready(self) -> bool:
        """Does the database answer?"""
        with self.engine.connect() as connection:
            return connection.execute(text("SELECT 1")).scalar() == 1


def _config(url: str) -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", url.replace("%", "%%"))
    return config


def migrate(url: str, revision: str = "head") -> None:
    """Bring the database up (or down) to a revision of its schema."""
    config = _config(url)
    if revision == "base" or revision.startswith("-"):
        command.downgrade(config, revision)
    else:
        command.upgrade(config, revision)


def new_migration(url: str, message: str) -> None:
    """Write a migration from what the models have and the database has not."""
    command.revision(_config(url), message=message, autogenerate=True)
