"""What the tests' applications log, searched at the end of the run: no personal data, token or text may stand in it."""

import json
import logging
import os
import re
import tempfile
from pathlib import Path

import pytest

from rillstep.web import app as application

FOLDER = "RILLSTEP_TEST_LOGS"
# Names, addresses, passwords, texts and tokens of the tests; what they send is made of these.
CANARIES = re.compile(
    r"observing-night|@[a-z]|long password|Night Shift|Another studio|Nightfield|Terms: US|Rnd \d|sc in |in ring|"
    r"/t/[\w-]{12}|[0-9a-f]{40}|127\.0\.0\.\d+[^:]|lamps|Cassini"
)
MESSAGES = {"request", "unexpected error", "database does not answer"}
VALUES = {
    "at": re.compile(r"[\d:, -]+"), "level": re.compile("[A-Z]+"), "route": re.compile(r"[\w.]+|None"),
    "method": re.compile("[A-Z]+"), "status": re.compile(r"\d{3}"), "ms": re.compile(r"[\d.]+"),
    "code": re.compile(r"\w+"), "error": re.compile(r"\w+"),
}  # fmt: skip


def begin(config: pytest.Config) -> None:
    """Makes the folder of the logs, once for all processes of the run."""
    if not hasattr(config, "workerinput"):
        os.environ[FOLDER] = tempfile.mkdtemp(prefix="rillstep-logs-")
    really = application._log
    kept = logging.FileHandler(Path(os.environ[FOLDER]) / f"{os.getpid()}.log")
    config.add_cleanup(kept.close)

    def logged(app: application.OpenAPI, level: str) -> None:
        really(app, "INFO")
        kept.setFormatter(app.logger.handlers[0].formatter)
        app.logger.handlers[:] = [kept]

    application._log = logged


def server_log() -> Path:
    """The file that a server's messages go to, which the tests begin."""
    return Path(os.environ[FOLDER]) / f"servers-{os.getpid()}.log"


def fault_of(line: str) -> str:
    """What is wrong with a line of a log; empty where nothing is."""
    if (found := CANARIES.search(line)) is not None:
        return f"“{found[0]}” in: {line[:300]}"
    if not line.startswith("{"):
        return ""
    for name, value in json.loads(line).items():
        if name == "message":
            if value not in MESSAGES:
                return f"a message that is none of the application's: {value[:200]}"
        elif name == "stack":
            if not all(re.fullmatch(r"[\w./<>-]+:\d+ [\w<>]+", frame) for frame in value):
                return f"a stack with more than places: {value}"
        elif name not in VALUES or not VALUES[name].fullmatch(str(value)):
            return f"{name} is {value!r}"
    return ""


def found(folder: Path) -> tuple[int, list[str]]:
    """How many lines were logged, and what is wrong with some of them."""
    lines = [line for file in sorted(folder.glob("*.log")) for line in file.read_text(errors="replace").splitlines()]
    return len(lines), [fault for line in lines if (fault := fault_of(line))]
