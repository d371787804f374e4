"""The connection to MariaDB, and the unit of work: everything in it is kept, or nothing."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from time import monotonic
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event, text
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.exc import DisconnectionError, OperationalError, TimeoutError
from sqlalchemy.orm import Session, sessionmaker
from sqlalchemy.pool import ConnectionPoolEntry

MIGRATIONS = Path(__file__).parent / "migrations"


# A database that hangs is given up after so many seconds: to connect, to answer, to give a lock free.
CONNECT_S, ANSWER_S, LOCK_S = 3, 6, 4
# Connections of one process; a request takes two at most.
MOST_CONNECTIONS = 32

# MariaDB: no connection, the connection is gone, it was lost while an answer was waited for. After it nobody asks for
# so many seconds.
_NO_ANSWER, _SILENT_S = ((2003,), (2006,), (2013,)), 1.0
# A connection that rested longer is asked whether it is still there before it is used, in seconds.
_RESTED_S = 5.0


def _used_now(_connection: DBAPIConnection | None, record: ConnectionPoolEntry) -> None:
    record.info["used"] = monotonic()


def _still_there(connection: Any, record: ConnectionPoolEntry, _proxy: object) -> None:
    if monotonic() - record.info.get("used", monotonic()) > _RESTED_S:
        try:
            connection.ping(reconnect=False)
        except Exception as error:
            raise DisconnectionError from error


class Database:
    """An engine and its sessions; one for each process."""

    def __init__(self, url: str) -> None:
        self.url = url
        self.engine: Engine = create_engine(
            url,
            pool_recycle=1800,
            pool_reset_on_return=None,  # a unit of work ends its transaction itself; that saves a way there and back
            pool_size=MOST_CONNECTIONS // 2,
            max_overflow=MOST_CONNECTIONS // 2,
            pool_timeout=CONNECT_S,
            isolation_level="READ COMMITTED",
            hide_parameters=True,  # an error shows the statement, and never what was in it
            connect_args={
                "charset": "utf8mb4",
                "connect_timeout": CONNECT_S,
                "read_timeout": ANSWER_S,
                "write_timeout": ANSWER_S,
                "init_command": f"SET sql_mode='STRICT_ALL_TABLES', innodb_lock_wait_timeout={LOCK_S}",
            },
        )
        event.listen(self.engine, "checkout", _still_there)
        event.listen(self.engine, "checkin", _used_now)
        self._silent_until = 0.0
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)

    @contextmanager
    def unit_of_work(self) -> Iterator[Session]:
        """A session that commits at the end, or rolls back on any exception. Raises OperationalError, and TimeoutError
        where the database did not answer a moment ago: not all threads shall wait for it at once."""
        if monotonic() < self._silent_until:
            raise TimeoutError("the database did not answer a moment ago")
        try:
            with self._sessions() as session, session.begin():
                yield session
        except OperationalError as error:
            if error.orig is not None and error.orig.args[:1] in _NO_ANSWER:
                self._silent_until = monotonic() + _SILENT_S
            raise

    def ready(self) -> bool:
        """Does the database answer?"""
        with self.engine.begin() as connection:
            return connection.execute(text("SELECT 1")).scalar() == 1


def _config(url: str) -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", url.replace("%", "%%"))
    return config


class WouldDrop(ValueError):
    """Going down drops tables and columns with all that is in them, and was not asked for in so many words."""


def migrate(url: str, revision: str = "head", drop: bool = False) -> None:
    """Bring the database up, or (drop: as tables go with it) down, to a revision of its schema. Raises WouldDrop."""
    config = _config(url)
    if revision == "base" or revision.startswith("-"):
        if not drop:
            raise WouldDrop("this drops tables with all that is in them; make a backup, then add --drop-data")
        command.downgrade(config, revision)
    else:
        command.upgrade(config, revision)


def new_migration(url: str, message: str) -> None:
    """Write a migration from what the models have and the database has not."""
    command.revision(_config(url), message=message, autogenerate=True)
