"""The workbench over the API: live numbers, proof, words, parts."""

import json
from datetime import date
from typing import Any

import pytest
from sqlalchemy import create_engine, inspect
from sqlalchemy import text as sql

from rillstep.demo.mariadb import OwnMariaDb
from rillstep.store.database import migrate
from tests.conftest import Client
from tests.examples import VERSION_1


def test_numbers_measures_and_yarn(designer: Client, document: dict[str, Any]) -> None:
    work = designer.post("/api/work", {"document": document}).json
    assert work["ok"]
    walls = [line for line in work["lines"] if line["section"] == "Wall"]
    assert walls[0]["sts"] == [72, 86, 102, 120]
    assert work["counts"]["proved"] == len(work["lines"])
    by_name = {one["name"]: one for one in work["bag"]}
    assert by_name["width"]["shown"] == ["24.0 cm", "28.7 cm", "34.0 cm", "40.0 cm"]
    assert {"width", "height", "depth", "drop"} <= by_name.keys()
    for size in work["sizes"]:
        assert size["yarn"]["low_g"] < size["yarn"]["grams"] < size["yarn"]["high_g"]


def test_a_hand_edit_is_judged_and_repaired(designer: Client, document: dict[str, Any]) -> None:
    text = (VERSION_1 / "nightfield.txt").read_text()
    document["text"] = text.replace(
        "hdc in next 16 (23, 27, 32) sts, 2 hdc in each", "hdc in next 16 (24, 27, 32) sts, 2 hdc in each", 1
    )
    work = designer.post("/api/work", {"document": document}).json
    assert not work["ok"]
    finding = next(f for f in work["findings"] if f["severity"] == "error")
    assert (finding["size"], finding["code"]) == ("Flask", "runs-out")
    edit = finding["repairs"][0]["edits"][0]
    lines = document["text"].split("\n")
    row = lines[edit["line"] - 1]
    lines[edit["line"] - 1] = row[: edit["column"] - 1] + edit["text"] + row[edit["end_column"] - 1 :]
    document["text"] = "\n".join(lines)
    assert document["text"] == text
    assert designer.post("/api/work", {"document": document}).json["ok"]


def test_garbage_text_is_answered_and_kept(designer: Client, document: dict[str, Any]) -> None:
    for text in ("", "Hello", "Rnd 1: ???", "Sizes: A\nRnd 1: 6 sc.", "Rnds 1-999999: 6 sc"):
        work = designer.post("/api/work", {"document": {**document, "text": text}})
        assert work.status_code == 200
        assert not work.json["ok"]
        assert work.json["text"] == text


def test_words_in_one_size_and_uk_terms(designer: Client, document: dict[str, Any]) -> None:
    all_sizes = designer.post("/api/booklet", {"document": document, "terms": "US", "size": None}).json
    one = designer.post("/api/booklet", {"document": document, "terms": "UK", "size": "Rug"}).json
    assert all_sizes["proved"] and one["proved"]
    assert one["sizes"] == ["Rug"]
    words = " ".join(line["text"] for section in one["sections"] for line in section["lines"])
    assert "htr" in words
    assert "hdc" not in words
    assert {pair["name"] for pair in one["abbreviations"]} == {"BLO", "ch", "htr", "rnd(s)", "sk", "sp(s)", "st(s)"}
    wrong = designer.post("/api/booklet", {"document": document, "terms": "UK", "size": "Nope"})
    assert wrong.status_code == 422


def test_the_text_download_checks_clean(designer: Client, document: dict[str, Any]) -> None:
    from rillstep.core.proof import prove_text

    for terms in ("US", "UK"):
        text = designer.post("/api/export/text", {"document": document, "terms": terms, "size": None}).text
        assert prove_text(text).findings == ()


def test_dated_parts_and_their_calendar(designer: Client, document: dict[str, Any]) -> None:
    body = {"document": document, "terms": "US", "size": None}
    parts = designer.post("/api/parts", body).json
    assert parts["proved"]
    assert [p["day"] for p in parts["parts"]] == ["2027-01-08", "2027-01-15", "2027-01-22", "2027-01-29"]
    assert all(p["needs"] and p["checkpoint"] and p["sections"] for p in parts["parts"])
    calendar = designer.post("/api/parts/calendar", body)
    from icalendar import Calendar

    events = Calendar.from_ical(calendar.data).walk("VEVENT")
    assert events[0].decoded("dtstart") == date(2027, 1, 8)
    assert len(events) == 4
    assert designer.post("/api/parts/9/pdf", body).status_code == 404
    assert designer.post("/api/parts/2/pdf", body).data[:5] == b"%PDF-"


def test_unknown_addresses_get_a_problem_not_a_page(anyone: Client, designer: Client) -> None:
    assert anyone.get("/api/nothing/here").status_code == 401
    answer = designer.get("/api/nothing/here")
    assert (answer.status_code, answer.json["code"]) == (404, "not-found")


@pytest.mark.parametrize("path", ["/", "/designs/1/shape", "/t/whatever"])
def test_pages_come_with_a_strict_policy(anyone: Client, path: str) -> None:
    answer = anyone.get(path)
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "unsafe" not in policy
    nonce = policy.split("'nonce-")[1].split("'")[0]
    assert nonce in answer.text
    assert nonce not in anyone.get(path).text


def test_the_schema_goes_up_and_down(mariadb: OwnMariaDb) -> None:
    url = mariadb.create_database("rillstep_migrations")
    migrate(url)
    tables = set(inspect(create_engine(url)).get_table_names())
    assert {"studios", "designs", "revisions", "testers", "line_reports"} <= tables
    migrate(url, "base", drop=True)
    assert set(inspect(create_engine(url)).get_table_names()) == {"alembic_version"}
    migrate(url)


def test_reports_keep_their_measures_when_the_schema_goes_up_and_down(mariadb: OwnMariaDb) -> None:
    url = mariadb.create_database("rillstep_reports")
    migrate(url, "0006")
    engine = create_engine(url)
    with engine.begin() as connection:
        connection.execute(sql("SET FOREIGN_KEY_CHECKS = 0"))
        connection.execute(
            sql(
                "INSERT INTO testers (id, test_id, name, size, terms, hand, token_hash, place, report) VALUES "
                """(1, 1, 'Ivo', 'S', 'US', 'right', 'x', 0, '{"width_mm": 240.0, "drop_mm": null, "grams": 90}')"""
            )
        )

    def report() -> dict[str, object]:
        with engine.begin() as connection:
            found = json.loads(connection.execute(sql("SELECT report FROM testers")).scalar_one())
            assert isinstance(found, dict)
            return found

    migrate(url)
    assert report() == {"grams": 90, "measures_mm": {"width": 240.0}}
    migrate(url, "-1", drop=True)
    none = dict.fromkeys(("height_mm", "depth_mm", "drop_mm"))
    assert report() == {"grams": 90, "width_mm": 240.0, **none}


def test_the_migrations_make_what_the_models_say(mariadb: OwnMariaDb) -> None:
    from alembic.autogenerate import compare_metadata
    from alembic.migration import MigrationContext

    from rillstep.store import Base

    url = mariadb.create_database("rillstep_compare")
    migrate(url)
    with create_engine(url).connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": True})
        assert compare_metadata(context, Base.metadata) == []
