"""Refusals that a user can do something about. The web turns them into problem details."""

from rillstep.document import Fault


class Refused(Exception):
    """Root of all refusals. `status` is the HTTP status that fits; `faults` name fields."""

    status = 400
    code = "refused"

    def __init__(self, message: str, faults: tuple[Fault, ...] = ()) -> None:
        super().__init__(message)
        self.message, self.faults = message, faults


class NotFound(Refused):
    """It does not exist, or is not the asker's: the answer is the same."""

    status, code = 404, "not-found"


class Conflict(Refused):
    """Somebody else saved in between; nothing was overwritten."""

    status, code = 409, "conflict"

    def __init__(self, message: str, revision: int) -> None:
        super().__init__(message)
        self.revision = revision


class NotProved(Refused):
    """What was asked for would print a number that is not proved."""

    status, code = 422, "not-proved"


class Invalid(Refused):
    """The input is wrong; `faults` say where."""

    status, code = 422, "invalid"


class TooHeavy(Refused):
    """It was stopped at its deadline."""

    status, code = 422, "too-heavy"


class Stopped(Refused):
    """It was stopped by whoever asked for it."""

    status, code = 409, "stopped"


class Busy(Refused):
    """As much is under way already as there is room for."""

    status, code = 429, "busy"
