"""Rows said in other words, and rows that say nothing: no row is called wrong for the words of another."""

from itertools import islice

from tests.sweep import reworded, unread


def test_no_row_is_called_wrong_for_being_said_in_other_words() -> None:
    found = [(said, *reworded.outcome((text, at, said))) for text, at, said in islice(reworded.cases(3), 30)]
    assert [one for one in found if one[1] == "wrong"] == []
    assert sum(mark == "proved" for _, mark, _ in found) >= 26


def test_no_row_is_called_wrong_for_another_that_is_not_understood() -> None:
    some = list(islice(unread.cases(4), 30))
    assert {at: wrong for text, at in some if (wrong := unread.blamed((text, at)))} == {}
