"""The part of docs/notation.md that lists the forms, made of their tables: `python -m rillstep.core.language.page`."""

import sys
from pathlib import Path

from rillstep.core.language.grammar import TABLES
from rillstep.core.language.patterns import forms_of

BEGINS, ENDS = "<!-- forms: generated -->", "<!-- end of forms -->"
# So many forms of a category are shown; the others are in its table.
MOST_SHOWN = 12


def listed() -> str:
    """Each category of each table with the examples that its forms read, as Markdown."""
    lines: list[str] = []
    for table in TABLES:
        title, _, rest = (table.__doc__ or "").strip().partition(":")
        lines += [f"**{title}**:{rest}".replace("\n", " ").replace("**:", "**,") if rest else f"**{title}**", ""]
        for category, forms in forms_of(table.TABLE).items():
            examples = dict.fromkeys(form.example.replace("<<", "…").replace(">>", "…") for form in forms)
            shown = [f"`{example}`" for example in examples][:MOST_SHOWN]
            more = f" and {len(examples) - MOST_SHOWN} more" if len(examples) > MOST_SHOWN else ""
            lines.append(f"- {category}: {' · '.join(shown)}{more}")
        lines.append("")
    return "\n".join(lines).rstrip() + "\n"


def placed(page: str) -> str:
    """The page with the list of today in its place."""
    before, _, rest = page.partition(BEGINS)
    _, _, after = rest.partition(ENDS)
    return f"{before}{BEGINS}\n\n{listed()}\n{ENDS}{after}"


if __name__ == "__main__":
    sys.stdout.write(placed(Path(sys.argv[1]).read_text(encoding="utf-8")))
