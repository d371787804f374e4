"""The language as tables: every form reads its example, and refuses what it says it refuses."""

import pytest

from rillstep.core.language.grammar import FORMS
from rillstep.core.language.match import built, ends_of, readings
from rillstep.core.language.patterns import GrammarForm, TableError, forms_of
from rillstep.core.tree import Loops, What
from rillstep.core.words.stream import Context, Stream, stream_over

EVERY = [form for forms in FORMS.values() for form in forms]


OWN = (("V-st", ("v", "-", "st")),)


def stream_at(text: str, sizes: int) -> tuple[Stream, int]:
    """A stream that stands before an example ("before << example >> after"), and the token at which that ends."""
    before, _, rest = text.rpartition("<<")
    example, _, after = rest.partition(">>")
    context = Context(sizes, tuple(range(sizes)), "US", OWN)

    def tokens(words: str) -> int:
        return len(stream_over(words, 1, context, 0, len(words)).tokens)

    whole_text = f": {before}{example}{after}"
    stream = stream_over(whole_text, 1, context, 0, len(whole_text))
    stream.at = tokens(f": {before}")
    stream.between = What("st", stitch="dc", between=3)
    stream.free_loops = Loops("front", "Rnd", None)
    return stream, tokens(f": {before}{example}")


@pytest.mark.parametrize("form", EVERY, ids=lambda form: f"{form.category}: {form.pattern}")
def test_each_form_reads_its_example(form: GrammarForm) -> None:
    assert form.example, "a form without an example is not tested"
    reads = [
        (stream, end) for stream, end in (stream_at(form.example, n) for n in (1, 2)) if end in ends_of(stream, form)
    ]
    assert reads, form.example
    stream, end = reads[0]
    built(stream, readings(stream, form.category)[end])
    assert stream.at == end
    if form.refused:
        assert all(
            end not in readings(stream, form.category) for stream, end in (stream_at(form.refused, n) for n in (1, 2))
        )


@pytest.mark.parametrize("table", ["== A\n[ a => none # a", "== A\na => 3 # a"])
def test_a_table_that_is_not_well_written_is_refused(table: str) -> None:
    with pytest.raises(TableError):
        forms_of(table)
