"""The open design file."""

import json
from typing import Any

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.demo.data import nightfield, steward
from rillstep.document import BrokenDesign, Design, dump, load


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


@given(JSON, st.sampled_from(["sizes", "swatch", "yarn", "carried", "parts", "name", "text"]))
def test_no_content_does_anything_but_load_or_be_refused(value: Any, key: str) -> None:
    content = json.loads(dump(nightfield()))
    content[key] = value
    try:
        load(json.dumps(content))
    except BrokenDesign as error:
        assert error.faults
        assert all(fault.path.startswith("$") and fault.message for fault in error.faults)
