"""Every text of the corpus goes through all steps of the application, as a design of its own: kept, opened, worked,
graded, printed, divided, tested by a tester and exported. `make test` takes a share of them; RILLSTEP_ALL=1 takes all.
"""

import json
import os
import re
import zlib
from pathlib import Path
from typing import Any

import pytest
from werkzeug.test import TestResponse

from rillstep.demo.texts import bag_text
from rillstep.document import Design, Size, Swatch, Yarn
from tests.conftest import Client, as_json
from tests.examples import VERSION_1

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
ALL = os.environ.get("RILLSTEP_ALL") == "1"
SHARE = [path for path in CORPUS if ALL or zlib.crc32(path.name.encode()) % 31 == 0]
# Of other designs in the same studio; none of it belongs to another text.
CANARIES = re.compile(r"Canary|Quiet Meridian|17\.77|\b(?:6\.789|6\.79|2987(?:\.6)?|298\.8|8765(?:\.4)?)\b")


def canary() -> Design:
    """A design whose every number is told from others."""
    return Design(
        name="Canary", text=bag_text("nightfield").replace("Atlas", "Canary"), hook_mm=6.789,
        sizes=[Size(name="Canary", targets_mm={"width": 2987.6, "height": 2987.6})],
        yarns=[Yarn(name="Canary yarn", metres_per_ball=8765.4)],
        swatches=[Swatch(stitches=17.77, rows=17.77, width_mm=177.7, height_mm=177.7)],
    )  # fmt: skip


@pytest.fixture(scope="module")
def studio(app: Any) -> Client:
    client = Client(app.test_client())
    client.sign_up("All steps")
    for document in (as_json(canary()), json.loads((VERSION_1 / "nightfield.json").read_text())):
        assert client.post("/api/designs", {"document": document}).status_code == 200
    return client


def good(answer: TestResponse) -> TestResponse:
    """An answer that came, and holds nothing of another design."""
    assert answer.status_code == 200, answer.text[:600]
    if answer.mimetype != "application/pdf":
        found = CANARIES.search(answer.text)
        assert found is None, answer.text[max(0, found.start() - 200) : found.end() + 100]
    return answer


@pytest.mark.parametrize("path", SHARE, ids=lambda path: path.stem)
def test_a_text_goes_through_all_steps(studio: Client, app: Any, path: Path) -> None:
    text = path.read_text()
    kept = good(studio.post("/api/designs/from-text", {"text": text})).json
    design = f"/api/designs/{kept['id']}"  # type: ignore[index]
    document = good(studio.get(design)).json["document"]  # type: ignore[index]
    assert document["text"] == text
    body = {"document": document}
    worked: dict[str, Any] = good(studio.post("/api/work", body)).json  # type: ignore[assignment]
    assert worked["ok"] and worked["text"] == text
    sizes = [size["name"] for size in worked["sizes"]]
    grading: dict[str, Any] = good(studio.post("/api/grading", body)).json if ALL else {}  # type: ignore[assignment]
    assert not ALL or bool(grading["problem"]) != bool(grading["sizes"])
    for terms in ("US", "UK"):
        assert good(studio.post("/api/booklet", {**body, "terms": terms})).json["proved"]  # type: ignore[index]
    for size in sizes:
        assert good(studio.post("/api/booklet", {**body, "size": size})).json["sizes"]  # type: ignore[index]
    good(studio.post("/api/export/text", body))
    good(studio.post("/api/export/design", body))
    if ALL or len(text) % 5 == 0:
        assert good(studio.post("/api/export/pdf", body)).data.startswith(b"%PDF")
    parts: dict[str, Any] = good(studio.post("/api/parts", body)).json  # type: ignore[assignment]
    assert parts["proved"] and all([size["name"] for size in part["sizes"]] == sizes for part in parts["parts"])
    good(studio.post("/api/parts/calendar", body))
    test = good(studio.post(f"{design}/tests")).json["id"]  # type: ignore[index]
    phone = Client(app.test_client())
    for size in sizes:
        invited = good(studio.post(f"/api/tests/{test}/testers", {"name": "Ida", "size": size, "terms": "UK"})).json
        link = f"/api{invited['path']}"  # type: ignore[index]
        page: dict[str, Any] = good(phone.get(link)).json  # type: ignore[assignment]
        assert len(page["steps"]) == invited["tester"]["steps"] > 0  # type: ignore[index]
        good(phone("POST", f"{link}/lines", {"step": 0, "note": "looked at"}))
        good(phone("PUT", f"{link}/report", {"measures_mm": {"width": 200}, "grams": 80}))
    good(studio.get(f"{design}/tests"))
    changed = {**document, "notes": "seen"} if "notes" in document else document
    good(studio.put(design, {"base": 1, "document": changed}))
    good(studio.get(f"{design}/revisions/1"))
    assert studio("DELETE", design).status_code == 204
