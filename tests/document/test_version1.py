"""Files of version 1, totes by fields: each is read as the text that it stood for, with the same counts and measures."""

import json
from typing import Any

import pytest

from rillstep.core.fabric import Counts
from rillstep.core.proof import Proof, prove_text
from rillstep.document import ALLOWANCE_MM, BrokenDesign, Design, dump, load
from tests.examples import VERSION_1

FILES = sorted(path.stem for path in VERSION_1.glob("*.json"))


def old(name: str) -> dict[str, Any]:
    content: dict[str, Any] = json.loads((VERSION_1 / f"{name}.json").read_text())
    return content


def counts(proof: Proof) -> list[list[Counts]]:
    """The counts after each round, in each size."""
    return [[counted for line in work.lines for counted in line.rounds] for work in proof.works]


@pytest.mark.parametrize("name", FILES)
def test_the_counts_the_sizes_and_the_measures_are_those_of_before(name: str) -> None:
    design = load((VERSION_1 / f"{name}.json").read_text())
    before = (VERSION_1 / f"{name}.txt").read_text()
    allowance = ALLOWANCE_MM[design.carried]
    was, now = prove_text(before, allowance), prove_text(design.text, allowance)
    assert now.ok and was.ok
    assert counts(now) == counts(was)
    assert now.pattern.sizes == was.pattern.sizes == tuple(size.name for size in design.sizes)
    assert now.bag is not None and was.bag is not None
    assert [(one.called, one.mm) for one in now.bag.measures] == [(one.called, one.mm) for one in was.bag.measures]
    assert load(dump(design)) == design


@pytest.mark.parametrize("name", [name for name in FILES if name not in ("edited", "elsewhere")])
def test_a_text_that_was_written_gets_names(name: str) -> None:
    text = load((VERSION_1 / f"{name}.json").read_text()).text
    assert (
        "\nNumber: side = " in text and "hdc in next {side} sts".replace("hdc", old(name)["swatch"]["stitch"]) in text
    )
    assert "Rnds 2-{wall rounds}:" in text and "ch {handle chain}, sk next {handle opening} sts" in text


@pytest.mark.parametrize("name", ["edited", "elsewhere"])
def test_a_text_that_was_typed_stays_byte_for_byte(name: str) -> None:
    assert load((VERSION_1 / f"{name}.json").read_text()).text == (VERSION_1 / f"{name}.txt").read_text()


def test_targets_and_locks_go_by_name() -> None:
    design = load((VERSION_1 / "locked.json").read_text())
    atlas, flask, rug, tent = design.sizes
    assert atlas.targets_mm == {"width": 240, "height": 265, "depth": 85, "drop": 120}
    assert atlas.tolerances_mm == {"width": 10, "height": 10, "depth": 10, "drop": 15}
    assert (atlas.locks, rug.locks, tent.locks) == ({"side": 18}, {"wall rounds": 36}, {"handle chain": 60})
    assert flask.locks == {} and "stitches around held at 88 in Flask" in design.notes


def test_a_bag_from_elsewhere_takes_no_tote_with_it() -> None:
    design = load((VERSION_1 / "elsewhere.json").read_text())
    assert design == Design(name="Eyepiece pouch", text=design.text, sizes=design.sizes, parts=design.parts)
    assert [(size.name, size.targets_mm) for size in design.sizes] == [("One size", {})]


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"sizes": []}, "$.sizes"),
        ({"swatch": {"stitches": 0}}, "$.swatch.stitches"),
        ({"colour": "red"}, "$.colour"),
        ({"version": 3}, "$.version"),
        ({"version": "1"}, "$.version"),
    ],
)
def test_what_was_refused_is_refused(change: dict[str, Any], path: str) -> None:
    with pytest.raises(BrokenDesign) as caught:
        load(json.dumps(old("nightfield") | change))
    assert [fault.path for fault in caught.value.faults] == [path]


def test_sizes_that_are_built_differently_keep_their_lines() -> None:
    """Increases that only one size has in its first wall round cannot be told by a number."""
    content = old("nightfield")
    content["sizes"][0]["locks"]["extra"] = 2
    design = load(json.dumps(content))
    proof = prove_text(design.text)
    assert proof.ok and "Size Atlas only:" in design.text and "extra increases a side held at 2" in design.notes


@pytest.mark.parametrize("sizes", ["a#b, All", ", ".join(f"S{at}" for at in range(14)), f"{'x' * 200}, y", "S, s"])
def test_a_text_with_any_sizes_is_opened(sizes: str) -> None:
    content = old("elsewhere") | {"text": f"Sizes: {sizes}\nRnd 1: 6 sc in ring. (6 sts)"}
    assert load(json.dumps(content)).text == content["text"]
