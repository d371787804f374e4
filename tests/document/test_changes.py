"""What was changed of a design, made in it again."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.document import ChangedLines, Changes, Design, with_changes

LINES = st.lists(
    st.sampled_from(["", "Rnd 1: 6 sc in ring. (6)", "Fasten off.", "an ö\r", "🧶"]), min_size=1, max_size=9
)


@given(LINES, LINES, st.data())
def test_lines_between_the_same_ends_give_the_other_text(old: list[str], new: list[str], data: st.DataObject) -> None:
    most = min(len(old), len(new))
    same = next((n for n in range(most) if old[n] != new[n]), most)
    at = data.draw(st.integers(0, same))
    rest = most - at
    end = next((n for n in range(rest) if old[-1 - n] != new[-1 - n]), rest)
    end = data.draw(st.integers(0, end))
    lines = ChangedLines(at=at, removed=len(old) - at - end, lines=new[at : len(new) - end])
    changed = with_changes(Design(text="\n".join(old)), Changes(lines=lines, fields={"name": "Comet"}))
    assert (changed.text, changed.name) == ("\n".join(new), "Comet")


@pytest.mark.parametrize(
    "changes",
    [
        Changes(lines=ChangedLines(at=1, removed=1)),
        Changes(lines=ChangedLines(at=0, removed=1), fields={"text": "other"}),
        Changes(fields={"hook_mm": -1}),
        Changes(fields={"unknown": 1}),
    ],
)
def test_what_does_not_fit_is_refused(changes: Changes) -> None:
    with pytest.raises(ValueError):
        with_changes(Design(text="one line"), changes)
