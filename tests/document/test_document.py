"""The open design file."""

import json
from typing import Any

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.demo.data import nightfield, steward
from rillstep.document import BrokenDesign, Design, Swatch, dump, load


@pytest.mark.parametrize("design", [nightfield(), steward()], ids=lambda d: d.name)
def test_what_is_saved_reads_back(design: Design) -> None:
    assert load(dump(design)) == design
    assert dump(load(dump(design))) == dump(design)


def test_the_published_schema_describes_the_file() -> None:
    with open("docs/design.schema.json") as file:
        schema = json.load(file)
    jsonschema.Draft202012Validator(schema).validate(json.loads(dump(nightfield())))
    broken = json.loads(dump(nightfield()))
    broken["sizes"][0]["targets_mm"]["width"] = -1
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.Draft202012Validator(schema).validate(broken)


def test_all_faults_are_told_at_once_with_path_and_value() -> None:
    content: dict[str, Any] = json.loads(dump(nightfield()))
    content["sizes"][2]["targets_mm"]["drop"] = -4
    content["hook_mm"] = "thick"
    del content["sizes"][0]["name"]
    with pytest.raises(BrokenDesign) as caught:
        load(json.dumps(content))
    faults = {fault.path: fault for fault in caught.value.faults}
    assert faults["$.sizes[2].targets_mm.drop"].value == "-4"
    assert faults["$.hook_mm"].message == "write a number, such as 24 or 24.5"
    assert faults["$.sizes[0].name"].message == "this is missing"


JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.text(max_size=20),
    lambda c: st.lists(c, max_size=4) | st.dictionaries(st.text(max_size=8), c, max_size=4),
)


@given(JSON, st.sampled_from(["sizes", "swatches", "yarns", "weighings", "carried", "parts", "name", "text"]))
def test_no_content_does_anything_but_load_or_be_refused(value: Any, key: str) -> None:
    content = json.loads(dump(nightfield()))
    content[key] = value
    try:
        load(json.dumps(content))
    except BrokenDesign as error:
        assert error.faults
        assert all(fault.path.startswith("$") and fault.message for fault in error.faults)


def test_files_with_one_yarn_and_one_swatch_are_read() -> None:
    content: dict[str, Any] = json.loads(dump(nightfield()))
    (content["yarn"],), (content["swatch"],) = content.pop("yarns"), content.pop("swatches")
    assert load(json.dumps(content)) == nightfield()
    content |= {"yarn": None, "swatch": None}
    assert (load(json.dumps(content)).yarns, load(json.dumps(content)).swatches) == ([], [])


def test_each_yarn_is_for_a_colour_of_its_own() -> None:
    content: dict[str, Any] = json.loads(dump(nightfield()))
    content["yarns"].append(content["yarns"][0] | {"name": "Other"})
    with pytest.raises(BrokenDesign, match="Yarns: two yarns are for the same stitches"):
        load(json.dumps(content))


@pytest.mark.parametrize("stitch", ["hdc", "FPdc, BPdc", "sc, 3 ch", "2 dc and ch 1", "hdc BLO", "puff, ch 1"])
def test_a_swatch_is_in_a_stitch_or_in_a_pattern_of_stitches(stitch: str) -> None:
    assert Swatch(stitch=stitch).stitch == stitch


@pytest.mark.parametrize("stitch", ["htr", "moss", "sc, , dc", "0 sc", "3"])
def test_words_that_are_no_stitch_are_named(stitch: str) -> None:
    content: dict[str, Any] = json.loads(dump(nightfield()))
    content["swatches"][0]["stitch"] = stitch
    with pytest.raises(BrokenDesign, match="Swatch 1: stitches:"):
        load(json.dumps(content))
