"""The language as tables: every form reads its example, and refuses what it says it refuses."""

import pytest

from rillstep.core.language.grammar import FORMS
from rillstep.core.language.match import built, ends_of, whole
from rillstep.core.language.patterns import Form, TableError, forms_of
from rillstep.core.words.stream import Context, Stream, stream_over

EVERY = [form for forms in FORMS.values() for form in forms]


def of_sizes(text: str, sizes: int) -> Stream:
    """A stream that stands before the text, within a line."""
    text = f": {text}"
    stream = stream_over(text, 1, Context(sizes, tuple(range(sizes)), "US"), 0, len(text))
    stream.at = 1
    return stream


def reads(form: Form, text: str) -> bool:
    """Does its category read a text, in one size or in two?"""
    return any(whole(of_sizes(text, sizes), form.category) is not None for sizes in (1, 2))


@pytest.mark.parametrize("form", EVERY, ids=lambda form: f"{form.category}: {form.pattern}")
def test_each_form_reads_its_example(form: Form) -> None:
    assert form.example, "a form without an example is not tested"
    stream = next(s for sizes in (1, 2) if len((s := of_sizes(form.example, sizes)).tokens) in ends_of(s, form))
    node = whole(stream, form.category)
    assert node is not None
    built(stream, node)
    assert stream.at == len(stream.tokens)
    if form.refused:
        assert not reads(form, form.refused)


@pytest.mark.parametrize("table", ["== A\n[ a => none # a", "== A\n[ a | b ] => none # a", "== A\na => 3 # a"])
def test_a_table_that_is_not_well_written_is_refused(table: str) -> None:
    with pytest.raises(TableError):
        forms_of(table)
