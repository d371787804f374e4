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
        ("Hook (mm)", "", "5"),
    ]
    assert [(one["before"], one["after"]) for one in first["lines"]] == [
        (["Fasten off."], ["Fasten off, and weave in."])
    ]
    restored = designer.post(f"/api/designs/{design_id}/revisions/1/restore", {"base": 3})
    assert restored.json["revision"] == 4
    now = designer.get(f"/api/designs/{design_id}").json
    assert now["document"]["hook_mm"] is None
    assert designer.get(f"/api/designs/{design_id}/revisions/3").json["document"]["hook_mm"] == 5.0


def test_two_tabs_do_not_overwrite_each_other(designer: Client, design_id: int, document: dict[str, Any]) -> None:
    mine, theirs = json.loads(json.dumps(document)), json.loads(json.dumps(document))
    mine["hook_mm"], theirs["hook_mm"] = 5.5, 6.0
    assert save(designer, design_id, 1, theirs).status_code == 200
    answer = save(designer, design_id, 1, mine)
    assert (answer.status_code, answer.json["code"], answer.json["revision"]) == (409, "conflict", 2)
    assert designer.get(f"/api/designs/{design_id}").json["document"]["hook_mm"] == 6.0
    assert save(designer, design_id, 2, mine).json["revision"] == 3


def test_what_was_changed_is_worked_and_saved_without_the_rest(
    designer: Client, design_id: int, document: dict[str, Any]
) -> None:
    at = document["text"].split("\n").index("Fasten off.")
    lines = {"at": at, "removed": 1, "lines": ["Fasten off, and weave in."]}
    body = {"base": 1, "changes": {"lines": lines, "fields": {"hook_mm": 5.0}}}
    whole = {
        **document,
        "text": document["text"].replace("Fasten off.", "Fasten off, and weave in.", 1),
        "hook_mm": 5.0,
    }
    worked = designer.post(f"/api/designs/{design_id}/work", body)
    assert worked.json == designer.post("/api/work", {"document": whole}).json
    assert designer.get(f"/api/designs/{design_id}").json["document"] == document  # nothing was saved by it
    path = f"/api/designs/{design_id}"
    for _ in range(2):  # a save is repeated when its answer was lost
        assert designer("PATCH", path, body).json["revision"] == 2
    assert designer.get(path).json["document"] == whole
    other = {"base": 1, "changes": {"fields": {"hook_mm": 6.0}}}
    assert designer("PATCH", path, other).json["code"] == "conflict"
    wrong = designer("PATCH", path, {"base": 2, "changes": {"fields": {"hook_mm": -1}}})
    assert (wrong.status_code, wrong.json["faults"][0]["path"]) == (422, "$.hook_mm")
    away = designer.post(f"{path}/work", {"base": 2, "changes": {"lines": {"at": 9000, "removed": 0}}})
    assert (away.status_code, "does not fit revision 2" in away.json["title"]) == (422, True)
    assert designer.post(f"{path}/work", {"base": 7, "changes": {}}).status_code == 404
    assert designer("DELETE", f"{path}/revisions?before=2").status_code == 200
    late = designer("PATCH", path, other)  # its base is deleted: it is a conflict all the same, and nothing is lost
    assert (late.status_code, late.json["code"], late.json["revision"]) == (409, "conflict", 2)


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
    (("swatches", 0, "width_mm"), 0, "$.swatches[0].width_mm", "must be more than 0"),
    (("swatches", 0, "stitches"), 0, "$.swatches[0].stitches", "must be more than 0"),
    (("swatches", 0, "stitches"), "many", "$.swatches[0].stitches", "write a number"),
    (("sizes", 2, "targets_mm", "drop"), -4, "$.sizes[2].targets_mm.drop", "must be more than 0"),
    (("sizes", 2, "targets_mm", "drop"), 9000, "$.sizes[2].targets_mm.drop", "at most 300 cm (118.1 in)"),
    (("sizes", 0, "name"), "", "$.sizes[0].name", "cannot be empty"),
    (("sizes", 0, "name"), "A, B", "$.sizes[0].name", "leave out"),
    (("yarns", 0, "metres_per_ball"), 1e999, "$.yarns[0].metres_per_ball", ""),
    (("yarns", 0, "weight_class"), 8, "$.yarns[0].weight_class", "at most 7"),
    (("surprise",), 1, "$.surprise", "not known"),
    (("parts", "start"), "tomorrow", "$.parts.start", "date like"),
    (("swatches", 0, "height_mm"), 2000, "$.swatches[0]", "count and measure again"),
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
