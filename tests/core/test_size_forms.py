"""Each form in which a line names sizes by itself, and lines that look like one and are none; and edges told in a sentence."""

import pytest

from rillstep.core.notation.edgings import is_edging, read_edging, read_plain_edging
from rillstep.core.notation.header import Header, context_of
from rillstep.core.notation.unlisted_sizes import spoken_names, told_at
from rillstep.core.tree import Evenly
from rillstep.core.words.sizes import are_names, size_names

FORMS = [
    (["Sizes", "S (M, L)"], ("S", "M", "L"), (1, 2)),
    (["Sizes", "A) e-reader", "B) laptop sleeve", "Yarn: DK"], ("e-reader", "laptop sleeve"), (1, 2, 3)),
    (["Size S [M] {L}"], ("S", "M", "L"), (1,)),
    (["Size   small | big"], ("small", "big"), (1,)),
    (["To fit: phone [tablet]"], ("phone", "tablet"), (1,)),
    (["Small   Medium   Large"], ("Small", "Medium", "Large"), (1,)),
    (["Toddler/Child/Adult"], ("Toddler", "Child", "Adult"), ()),
    (["Star Clutch (S-M-L)"], ("S", "M", "L"), ()),
    (["Three sizes: Mini - Regular - Large"], None, None),
    (["Available in two sizes, standard and jumbo (in parentheses)."], ("standard", "jumbo"), ()),
    (["UK terms. Sizes: coin (card, phone)"], ("coin", "card", "phone"), ()),
    (['Finished size: 12" (14") wide'], ('12"', '14" wide'), None),
    (["size 1: 13 squares wide; size 2: 17 squares wide"], ("1", "2"), ()),
    (["Small: up to 80 cm, Large: up to 100 cm"], ("Small", "Large"), ()),
    (["Instructions are for the small pouch, with medium and large in parentheses."], ("Small", "Medium", "Large"), ()),
    (["Size matters: make a swatch."], (), None),
    (["To fit: your 13 inch laptop"], (), None),
    (['Finished size: 12" (30 cm) wide'], (), None),  # one size, in two units
    (["A small bag for large adventures"], (), None),
    (["Hook size: 4 mm"], (), None),
]  # fmt: skip


@pytest.mark.parametrize(("lines", "names", "taken"), FORMS, ids=[lines[-1][:40] for lines, _, _ in FORMS])
def test_a_line_names_sizes(lines: list[str], names: tuple[str, ...] | None, taken: tuple[int, ...] | None) -> None:
    """names: () for none, None where only that there are some counts; taken: the lines that tell nothing else."""
    told = told_at(lines, 0)
    if names == ():
        assert told is None
        return
    assert told is not None
    assert names is None or (told.names[0] == names[0] and len(told.names) == len(names))
    assert taken is None or told.lines == taken


def test_a_sentence_after_sizes_is_told_from_a_list() -> None:
    assert spoken_names("written for the small bag with changes for medium and large in brackets") == (
        "Small",
        "Medium",
        "Large",
    )
    assert spoken_names("Small, Medium, Large") == ()


def test_names_in_their_order() -> None:
    assert are_names(("1", "2", "3")) and are_names(("A", "B")) and are_names(("size S", "size M"))
    assert not are_names(("1", "3")) and not are_names(("blue", "red"))
    assert size_names("to fit coins (spectacles)") == ("coins", "spectacles")
    assert size_names("S-M-L") == ("S", "M", "L") and size_names("e-reader") == ("e-reader",)


TWO = context_of(Header(sizes=("S", "L")), (0, 1))


@pytest.mark.parametrize(
    ("text", "stitch", "counts"),
    [
        ("Sc evenly around the outside of the rectangle: 64 (76) sts.", "sc", (64, 76)),
        ("Now work hdc evenly around the whole piece. [64 (76) hdc]", "hdc", (64, 76)),
        ("Edging: sc evenly around the edge (64 (76) sc), join.", "sc", (64, 76)),
        ("Sc evenly around the edge.", None, None),  # how many?
        ("Sl st evenly around the edge: 64 sts.", None, None),
        ("Sc both pieces together evenly around the edge: 64 sts.", None, None),
        ("Sew the lining evenly around the edge: 64 sts.", None, None),
        ("Sc evenly around: 12 sts on the sides, 20 sts on the bottom.", None, None),  # which of them?
    ],
)
def test_an_edge_told_in_a_sentence(text: str, stitch: str | None, counts: tuple[int, int] | None) -> None:
    told = read_edging(text, 3, TWO)
    assert (told is None) == (stitch is None)
    if told is not None:
        edge = told[0].steps[0]
        assert isinstance(edge, Evenly) and (edge.stitch, edge.count.values, edge.along) == (
            stitch,
            counts,
            "all edges",
        )
        assert told[1].code == "edge-not-checked" and told[1].span.line == 3


def test_an_edge_as_it_is_printed() -> None:
    setup = read_plain_edging("64 (76) sc evenly around all edges; join.", 1, TWO)
    assert setup is not None and setup.steps[0].count.values == (64, 76)  # type: ignore[union-attr]
    assert read_plain_edging("0 sc evenly around all edges", 1, TWO) is None
    assert read_plain_edging("64 xx evenly around all edges", 1, TWO) is None
    assert is_edging(" Ch 1, sc evenly around all four sides") and is_edging(
        " Do not turn; work sc evenly all the way around"
    )
    assert not is_edging(" Ch 1, sc in next 5 sts, sc evenly around the base")
