"""Designs: saved as revisions, compared, restored, never silently overwritten."""

import json
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import pytest

from tests.conftest import Client


def save(designer: Client, design_id: int, base: int, document: dict[str, Any]) -> Any:
    return designer.put(f"/api/designs/{design_id}", {"base": base, "document": document})


def test_each_save_is_a_revision(designer: Client, design_id: int, document: dict[str, Any]) -> None:
    document["hook_mm"] = 5.0
    assert save(designer, design_id, 1, document).json["revision"] == 2
    assert save(designer, design_id, 2, document).json["revision"] == 2  # nothing changed
    document["sizes"][1]["targets_mm"]["width"] = 310
    document["text"] = document["text"].replace("Fasten off.", "Fasten off, and weave in.")
    assert save(designer, design_id, 2, document).json["revision"] == 3
    assert [r["number"] for r in designer.get(f"/api/designs/{design_id}/revisions").json["revisions"]] == [3, 2, 1]
    first = designer.get(f"/api/designs/{design_id}/revisions/1").json
    assert [(c["field"], c["before"], c["after"]) for c in first["changes"]] == [
        ("Width wanted in Flask", "29 cm", "31 cm"),
        ("Hook (mm)", "4.5", "5"),
    ]
    assert [(one["before"], one["after"]) for one in first["lines"]] == [
        (["Fasten off."], ["Fasten off, and weave in."])
    ]
    restored = designer.post(f"/api/designs/{design_id}/revisions/1/restore", {"base": 3})
    assert restored.json["revision"] == 4
    now = designer.get(f"/api/designs/{design_id}").json
    assert now["document"]["hook_mm"] == 4.5
    assert designer.get(f"/api/designs/{design_id}/revisions/3").json["document"]["hook_mm"] == 5.0


def test_two_tabs_do_not_overwrite_each_other(designer: Client, design_id: int, document: dict[str, Any]) -> None:
    mine, theirs = json.loads(json.dumps(document)), json.loads(json.dumps(document))
    mine["hook_mm"], theirs["hook_mm"] = 5.5, 6.0
    assert save(designer, design_id, 1, theirs).status_code == 200
    answer = save(designer, design_id, 1, mine)
    assert (answer.status_code, answer.json["code"], answer.json["revision"]) == (409, "conflict", 2)
    assert designer.get(f"/api/designs/{design_id}").json["document"]["hook_mm"] == 6.0
    assert save(designer, design_id, 2, mine).json["revision"] == 3


def test_many_at_once_make_one_revision_each(
    app: Any, designer: Client, design_id: int, document: dict[str, Any]
) -> None:
    cookie = designer.client.get_cookie("rillstep")
    assert cookie is not None

    def one(hook: int) -> int:
        client = app.test_client()
        client.set_cookie("rillstep", cookie.value)
        body = {"base": 1, "document": {**document, "hook_mm": 10 + hook}}
        answer = client.put(f"/api/designs/{design_id}", json=body, headers={"X-CSRF-Token": designer.csrf})
        return int(answer.status_code)

    with ThreadPoolExecutor(8) as pool:
        codes = list(pool.map(one, range(8)))
    assert sorted(codes) == [200, *[409] * 7]
    assert [r["number"] for r in designer.get(f"/api/designs/{design_id}/revisions").json["revisions"]] == [2, 1]


def test_a_design_file_goes_out_and_comes_back(designer: Client, design_id: int, document: dict[str, Any]) -> None:
    file = designer.post("/api/export/design", {"document": document})
    assert file.headers["Content-Disposition"] == 'attachment; filename="nightfield-tote.rillstep.json"'
    back = designer("POST", "/api/designs/import", None, data=file.data, content_type="application/json")
    assert back.status_code == 200
    assert back.json["document"] == document
    assert back.json["id"] != design_id


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"not json", "not JSON"), (b"[]", "no design file"), (b'{"format": "other"}', "no design file"),
        (b'{"format": "rillstep-design", "version": 9}', "version"), (b'{"format": "rillstep-design", "version": 1}', "Sizes: this is missing"),
        (b"[" * 100_000, "nested too deeply"), (b"\xff\xfe\x00", "not JSON"),
    ],
)  # fmt: skip
def test_broken_files_are_refused_with_the_place(designer: Client, content: bytes, says: str) -> None:
    answer = designer("POST", "/api/designs/import", None, data=content, content_type="application/json")
    assert (answer.status_code, answer.json["code"]) == (422, "broken-design")
    assert says in answer.json["title"]
    assert designer.get("/api/designs").json["designs"] == []  # type: ignore[index]


def test_a_huge_file_is_refused(designer: Client) -> None:
    answer = designer("POST", "/api/designs/import", None, data=b" " * 4_000_000, content_type="application/json")
    assert answer.status_code == 413
    assert "3 MB" in answer.json["title"]


BAD = [
    (("swatch", "width_mm"), 0, "$.swatch.width_mm", "must be more than 0"),
    (("swatch", "stitches"), 0, "$.swatch.stitches", "must be more than 0"),
    (("swatch", "stitches"), "many", "$.swatch.stitches", "write a number"),
    (("sizes", 2, "targets_mm", "drop"), -4, "$.sizes[2].targets_mm.drop", "must be more than 0"),
    (("sizes", 2, "targets_mm", "drop"), 9000, "$.sizes[2].targets_mm.drop", "at most 300 cm (118.1 in)"),
    (("sizes", 0, "name"), "", "$.sizes[0].name", "cannot be empty"),
    (("sizes", 0, "name"), "A, B", "$.sizes[0].name", "leave out"),
    (("yarn", "metres_per_ball"), 1e999, "$.yarn.metres_per_ball", ""),
    (("yarn", "weight_class"), 8, "$.yarn.weight_class", "at most 7"),
    (("surprise",), 1, "$.surprise", "not known"),
    (("parts", "start"), "tomorrow", "$.parts.start", "date like"),
    (("swatch", "height_mm"), 2000, "$.swatch", "count and measure again"),
]


@pytest.mark.parametrize(("place", "value", "path", "says"), BAD)
def test_bad_documents_name_the_field(
    designer: Client, document: dict[str, Any], place: tuple[str | int, ...], value: object, path: str, says: str
) -> None:
    inner: Any = document
    for key in place[:-1]:
        inner = inner[key]
    inner[place[-1]] = value
    answer = designer.post("/api/work", {"document": document})
    assert answer.status_code == 422
    assert path in [fault["path"] for fault in answer.json["faults"]]
    assert says in " ".join(fault["message"] for fault in answer.json["faults"])


def test_eleven_sizes_are_too_many(designer: Client, document: dict[str, Any]) -> None:
    document["sizes"] = [{**document["sizes"][0], "name": f"S{n}"} for n in range(11)]
    answer = designer.post("/api/work", {"document": document})
    assert answer.status_code == 422
    assert "at most 10 sizes" in answer.json["title"]
    document["sizes"] = document["sizes"][:10]
    assert designer.post("/api/work", {"document": document}).json["ok"]


def test_delete_takes_everything_with_it(designer: Client, design_id: int) -> None:
    test = designer.post(f"/api/designs/{design_id}/tests").json
    link = designer.post(f"/api/tests/{test['id']}/testers", {"name": "A", "size": "Rug"}).json["path"]
    assert designer.get(f"/api{link}").status_code == 200
    assert designer("DELETE", f"/api/designs/{design_id}").status_code == 204
    assert designer.get(f"/api/designs/{design_id}").status_code == 404
    assert designer.get(f"/api{link}").status_code == 404
