"""Two texts compared line by line."""

from difflib import SequenceMatcher

from rillstep.services import views


def changes_of(before: str, after: str) -> list[views.LinesChangedView]:
    """The lines that differ between two texts, neighbouring ones together."""
    old, new = before.split("\n"), after.split("\n")
    return [
        views.LinesChangedView(line=i + 1, before=old[i:j], after=new[k:m])
        for tag, i, j, k, m in SequenceMatcher(None, old, new, autojunk=False).get_opcodes()
        if tag != "equal"
    ]
