"""What happens at the same moment: the last places of a test, deleting a design while testers are invited, full rooms;
and lists that stay quick."""

import threading
import time
from collections import Counter
from datetime import timedelta
from typing import Any

import pytest
from sqlalchemy import update

from rillstep.services import designs, quota, testing
from rillstep.services.accounts import now
from rillstep.store import DesignRow
from tests.conftest import Client


def at_once(client: Client, app: Any, asks: list[tuple[str, str, object]]) -> list[int]:
    """The statuses of requests of one designer that are made at the same moment."""
    cookie = client.client.get_cookie("rillstep").value  # type: ignore[union-attr]
    ready, statuses = threading.Barrier(len(asks)), []

    def ask(method: str, path: str, body: object) -> None:
        one = Client(app.test_client())
        one.client.set_cookie("rillstep", cookie)
        one.csrf = client.csrf
        ready.wait()
        statuses.append(one(method, path, body).status_code)

    threads = [threading.Thread(target=ask, args=one) for one in asks]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return statuses


def test_a_test_never_has_more_testers_than_it_may(app: Any, designer: Client, design_id: int) -> None:
    test = designer.post(f"/api/designs/{design_id}/tests").json["id"]  # type: ignore[index]
    path = f"/api/tests/{test}/testers"
    for number in range(testing.MOST_TESTERS - 2):
        assert designer.post(path, {"name": f"T{number}", "size": "Rug"}).status_code == 200
    asks = [("POST", path, {"name": f"L{number}", "size": "Rug"}) for number in range(8)]
    assert Counter(at_once(designer, app, asks)) == {200: 2, 422: 6}
    listed = designer.get(f"/api/designs/{design_id}/tests").json
    assert len(listed["tests"][0]["testers"]) == testing.MOST_TESTERS  # type: ignore[index]


def test_a_list_of_fifty_testers_with_reports_is_quick(app: Any, designer: Client, design_id: int) -> None:
    test = designer.post(f"/api/designs/{design_id}/tests").json["id"]  # type: ignore[index]
    phone = Client(app.test_client())
    for number in range(testing.MOST_TESTERS):
        body = {"name": f"T{number}", "size": ("Rug", "Flask", "Atlas", "Tent")[number % 4]}
        link = designer.post(f"/api/tests/{test}/testers", body).json["path"]  # type: ignore[index]
        phone(
            "PUT", f"/api{link}/report", {"measures_mm": {"width": 200 + number, "height": 250}, "grams": 90 + number}
        )
    begun = time.process_time()
    listed = designer.get(f"/api/designs/{design_id}/tests").json["tests"][0]["testers"]  # type: ignore[index]
    spent = time.process_time() - begun
    assert all(tester["finished"] and len(tester["compared"]) == 3 and tester["steps"] > 20 for tester in listed)
    assert spent < 3  # of computing; it was more when each tester's steps were worked anew


def test_deleting_a_design_while_testers_are_invited_is_answered_with_a_word(
    app: Any, designer: Client, document: dict[str, Any]
) -> None:
    for _ in range(5):
        design = designer.post("/api/designs", {"document": document}).json["id"]  # type: ignore[index]
        test = designer.post(f"/api/designs/{design}/tests").json["id"]  # type: ignore[index]
        asks: list[tuple[str, str, object]] = [
            ("POST", f"/api/tests/{test}/testers", {"name": f"T{number}", "size": "Rug"}) for number in range(4)
        ]
        asks += [("DELETE", f"/api/designs/{design}", None), ("POST", f"/api/designs/{design}/tests", None)]
        assert set(at_once(designer, app, asks)) <= {200, 204, 404}
        assert designer.get(f"/api/designs/{design}").status_code == 404


def test_room_is_said_before_it_is_used_up_and_made_by_deleting(
    designer: Client, document: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(quota, "MOST_DESIGNS", 5)
    ids = [designer.post("/api/designs", {"document": document}).json["id"] for _ in range(3)]  # type: ignore[index]
    assert designer.get("/api/designs").json["room"] == ""  # type: ignore[index]
    ids.append(designer.post("/api/designs", {"document": document}).json["id"])  # type: ignore[index]
    assert "4 of 5 designs" in designer.get("/api/designs").json["room"]  # type: ignore[index]
    designer.post("/api/designs", {"document": document})
    full = designer.post("/api/designs", {"document": document})
    assert full.status_code == 422 and full.json["code"] == "no-room"  # type: ignore[index]
    assert designer("DELETE", f"/api/designs/{ids[0]}").status_code == 204
    assert designer.post("/api/designs", {"document": document}).status_code == 200


def test_old_revisions_make_room_and_the_newest_stays(
    designer: Client, design_id: int, document: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    path = f"/api/designs/{design_id}"
    for number in range(1, 8):
        saved = designer.put(path, {"base": number, "document": {**document, "hook_mm": 3 + number / 10}})
        assert saved.status_code == 200
    monkeypatch.setattr(quota, "MOST_BYTES", 9 * len(str(document)))
    assert " MB. Make room" in designer.get(f"{path}/revisions").json["room"]  # type: ignore[index]
    monkeypatch.setattr(quota, "MOST_BYTES", 8 * len(str(document)))
    full = designer.put(path, {"base": 8, "document": {**document, "hook_mm": 9}})
    assert full.status_code == 422 and "not saved" in full.json["title"]  # type: ignore[index]
    assert designer("DELETE", f"{path}/revisions?before=6").json == {"many": 5}
    assert designer.put(path, {"base": 8, "document": {**document, "hook_mm": 9}}).status_code == 200
    assert designer("DELETE", f"{path}/revisions?before=2000").json == {"many": 3}
    listed = designer.get(f"{path}/revisions").json
    assert [one["number"] for one in listed["revisions"]] == [9] and listed["total"] == 1  # type: ignore[index]
    assert designer.get(path).json["revision"] == 9  # type: ignore[index]


def test_lists_come_in_pages_and_are_searched_by_name(designer: Client, document: dict[str, Any]) -> None:
    for number in range(53):
        designer.post("/api/designs", {"document": {**document, "name": f"Bag {number} 100%"}})
    first, second = designer.get("/api/designs").json, designer.get("/api/designs?page=2").json
    assert (len(first["designs"]), len(second["designs"])) == (50, 3)  # type: ignore[index]
    assert (first["pages"], first["total"]) == (2, 53)  # type: ignore[index]
    names = {one["name"] for page in (first, second) for one in page["designs"]}  # type: ignore[index]
    assert len(names) == 53
    assert designer.get("/api/designs?search=bag 52").json["total"] == 1  # type: ignore[index]
    assert designer.get("/api/designs?search=%25").json["total"] == 53  # type: ignore[index]
    assert designer.get("/api/designs?search=_").json["total"] == 0  # type: ignore[index]
    assert designer.get("/api/designs?page=0").status_code == 422


def test_a_deleted_design_is_brought_back_with_its_tests(app: Any, designer: Client, design_id: int) -> None:
    test = designer.post(f"/api/designs/{design_id}/tests").json["id"]  # type: ignore[index]
    link = designer.post(f"/api/tests/{test}/testers", {"name": "A", "size": "Rug"}).json["path"]  # type: ignore[index]
    phone = Client(app.test_client())
    before = designer.get(f"/api/designs/{design_id}").json
    assert designer("DELETE", f"/api/designs/{design_id}").status_code == 204
    assert phone.get(f"/api{link}").status_code == 404
    assert designer.post(f"/api/tests/{test}/testers", {"name": "B", "size": "Rug"}).status_code == 404
    assert designer.get("/api/designs").json["total"] == 0  # type: ignore[index]
    (kept,) = designer.get("/api/designs/deleted").json["designs"]  # type: ignore[index]
    assert kept["id"] == design_id
    assert designer.post(f"/api/designs/deleted/{design_id}/bring-back").status_code == 204
    assert designer.get(f"/api/designs/{design_id}").json == before
    assert phone.get(f"/api{link}").status_code == 200
    assert designer("DELETE", f"/api/designs/deleted/{design_id}").status_code == 404  # it is not deleted
    designer("DELETE", f"/api/designs/{design_id}")
    assert designer("DELETE", f"/api/designs/deleted/{design_id}").status_code == 204
    assert designer.get("/api/designs/deleted").json["designs"] == []  # type: ignore[index]


def test_what_was_deleted_long_ago_is_gone(app: Any, designer: Client, design_id: int) -> None:
    designer("DELETE", f"/api/designs/{design_id}")
    long_ago = now() - timedelta(days=designs.KEPT_DAYS, minutes=1)
    with app.extensions["rillstep_database"].unit_of_work() as work:
        work.execute(update(DesignRow).where(DesignRow.id == design_id).values(deleted_at=long_ago))
    assert designer.get("/api/designs/deleted").json["designs"] == []  # type: ignore[index]
    assert designer.post(f"/api/designs/deleted/{design_id}/bring-back").status_code == 404
