"""How much of a text is read: bounds on its length, rows and errors, so that none takes longer than a moment."""

from dataclasses import dataclass

from rillstep.core.findings import Finding, Span

MAX_CHARACTERS = 150_000
MAX_LINES = 1_000
MAX_LINE = 4_000
# So much of it in rows and rounds, which take far longer to read than words: some 360 rows in eight sizes, 700 in one.
MAX_INSTRUCTIONS = 45_000
# And so many of them, one in eight sizes counted eight times: each is worked in each.
MOST_WORKED = 4_800
# Long lines cost more than their length: of lines of 1,000 characters 40 are read, of 4,000 characters two.
MOST_LENGTH = 40_000_000
# What has so many errors is no pattern, or one in another language: the rest of it is not read.
MOST_ERRORS = 300


def too_long(text: str) -> Finding | None:
    """The error of a text that is not read at all."""
    if len(text) <= MAX_CHARACTERS and text.count("\n") <= MAX_LINES:
        return None
    message = f"This text is too long: at most {MAX_LINES} lines and {MAX_CHARACTERS:,} characters are read."
    return Finding("text-too-long", "error", Span(1, 1, 2), message)


@dataclass
class Extent:
    """How much has been read of one text: characters of rows, what long lines cost, and rows times sizes."""

    instructions: int = 0
    length: int = 0
    worked: int = 0

    def take(self, text: str) -> None:
        """Counts a line; a row that stands with others in one line is padded."""
        self.length += len(text.strip()) ** 2 if len(text) <= MAX_LINE else 0

    def take_row(self, text: str, sizes: int) -> None:
        """Counts a line that turned out to be worked, in so many sizes."""
        self.instructions += len(text.strip())
        self.worked += sizes

    def exceeded(self, text: str, number: int, errors: int) -> Finding | None:
        """The error of the line from which on the text is not read, or None."""
        if errors > MOST_ERRORS:
            message = f"More than {MOST_ERRORS} places of this text could not be read, so it is not read from here on."
            return Finding("too-many-errors", "error", _whole(text, number), message)
        if self.instructions > MAX_INSTRUCTIONS:
            many = f"More than {MAX_INSTRUCTIONS:,} characters of rows and rounds"
        elif self.length > MOST_LENGTH:
            many = "So many very long lines"
        elif self.worked > MOST_WORKED:
            many = "So many rows in so many sizes"
        else:
            return None
        message = (
            f"{many} are not read at once: from here on this text is not read. "
            "Parts of it can be checked by themselves."
        )
        return Finding("text-too-long", "error", _whole(text, number), message)


def _whole(text: str, number: int) -> Span:
    return Span(number, 1, max(2, len(text) + 1))
