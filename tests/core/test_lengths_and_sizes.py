"""How large one bag is names no sizes; sizes that are called by what they measure do."""

import pytest

from rillstep.core.proof import prove_text

BEGIN = "Make a magic ring.\nRnd 1: 6 sc in ring. (6)\nRnd 2: 2 sc in each st around. (12)\n"


@pytest.mark.parametrize(
    "head",
    [
        "Size: 30 cm (12 in) wide, 35 cm (14 in) tall",
        "Size\n9 in wide, 11 in deep\n",
        "Strap drop 20, 25 cm.\nSize: one, 25 cm",
        "Size: about 20 cm across the bottom and 27 cm tall",
        "Size: one size, about 34 cm wide and 38 cm deep",
        "Size: 11 in tall, 8.5 in wide",
        "Size: one (about 32 cm x 36 cm)",
        "Size: approx. 22 cm wide and 18 cm tall, not counting the handles.",
    ],
)
def test_a_length_is_no_size(head: str) -> None:
    pattern = prove_text(f"{head}\n{BEGIN}").pattern
    assert len(pattern.sizes) == 1
    if head.startswith("Size: "):
        assert head.removeprefix("Size: ") in " ".join(words for _, words in pattern.extra)  # nothing of it is lost


@pytest.mark.parametrize(
    ("head", "sizes"),
    [("Sizes: 20 cm wide, 25 cm wide", 2), ("Sizes: 20cm (25cm, 30cm) across", 3), ("Sizes: One, Two, Three", 3)],
)
def test_sizes_may_be_called_by_what_they_measure(head: str, sizes: int) -> None:
    assert len(prove_text(f"{head}\n{BEGIN}").pattern.sizes) == sizes
