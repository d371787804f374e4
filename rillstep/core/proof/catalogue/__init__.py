"""Every finding that there is: what it means, what to do, and a text that shows it.

One table is the catalogue, the help page, the documentation (docs/findings.md) and the test data:
each example gives its finding, and a code that is not in the table fails a test.
"""

from rillstep.core.proof.catalogue.counting_entries import COUNTING
from rillstep.core.proof.catalogue.entry import Entry
from rillstep.core.proof.catalogue.habit_entries import HABIT
from rillstep.core.proof.catalogue.number_entries import NUMBER
from rillstep.core.proof.catalogue.place_entries import PLACE
from rillstep.core.proof.catalogue.reading_entries import READING
from rillstep.core.proof.catalogue.shape_entries import SHAPE

CATALOGUE: tuple[Entry, ...] = (*COUNTING, *PLACE, *NUMBER, *HABIT, *SHAPE, *READING)

# Findings that no text can show: what they would be found in is made by Rillstep itself.
WITHOUT_EXAMPLE = {"print-differs": "What was printed did not read back as what was meant, and was not exported."}


def entry_of(code: str) -> Entry | None:
    """The entry of a finding's code."""
    return next((entry for entry in CATALOGUE if entry.code == code), None)


def as_markdown() -> str:
    """The catalogue as a page of the documentation."""
    parts = [
        "# Findings\n\nWhat Rillstep can find in a pattern text, with a text that shows each. "
        "This page is written from the table in `rillstep/core/proof/catalogue` (`bash scripts/generated`).\n"
    ]
    for group in dict.fromkeys(entry.group for entry in CATALOGUE):
        parts.append(f"## {group[:1].upper()}{group[1:]}\n")
        for entry in CATALOGUE:
            if entry.group == group:
                parts.append(
                    f"### {entry.title}\n\n`{entry.code}`, {entry.severity}. {entry.meaning} {entry.way_out}\n\n"
                    f"```\n{_shown(entry.example)}\n```\n\nFound in line {entry.line}.\n"
                )
    return "\n".join(parts)


def _shown(example: str) -> str:
    """An example, cut where only its length matters."""
    lines = [line if len(line) < 400 else line[:120] + " ..." for line in example.strip().split("\n")]
    return "\n".join([*lines[:24], *(["..."] if len(lines) > 24 else [])])
