"""The console command, in the shapes that scripts rely on."""

import json
from pathlib import Path

import pytest

from rillstep.cli import main
from rillstep.demo.data import nightfield
from rillstep.document import dump
from tests.examples import MESH_TOTE
from tests.intake.documents import word_document


@pytest.fixture
def pattern(tmp_path: Path) -> str:
    path = tmp_path / "mesh.txt"
    path.write_text(MESH_TOTE)
    return str(path)


def test_check_clean(pattern: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["check", pattern, "--json"]) == 0
    report = json.loads(capsys.readouterr().out)
    assert report["ok"]
    assert report["sizes"] == ["S", "M", "L"]
    line = next(line for line in report["lines"] if line["label"] == "Rnd 2" and line["section"] == "Mesh wall")
    assert line["totals"] == {"sts": [16, 19, 22], "spaces": [16, 19, 22]}
    assert line["stated"] == {"sts": [16, 19, 22]}


def test_check_finds(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "wrong.txt"
    path.write_text(MESH_TOTE.replace("— 32 (38, 44) sts\nSection", "— 32 (38, 45) sts\nSection"))
    assert main(["check", str(path), "--json"]) == 1
    report = json.loads(capsys.readouterr().out)
    finding = next(f for f in report["findings"] if f["severity"] == "error")
    assert (finding["code"], finding["size"], finding["expected"], finding["found"]) == ("total-differs", "L", 45, 44)
    assert finding["repairs"][0]["edits"][0].keys() == {"line", "column", "end_column", "text"}
    assert main(["check", str(path)]) == 1
    shown = capsys.readouterr().out
    assert "total-differs" in shown
    assert "repair:" in shown


def test_unusable(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["check", str(tmp_path / "none.txt")]) == 2
    (tmp_path / "prose.txt").write_text("Dear reader")
    assert main(["check", str(tmp_path / "prose.txt")]) == 2
    (tmp_path / "bytes.txt").write_bytes(b"\xff\xfe\xff")
    assert main(["check", str(tmp_path / "bytes.txt")]) == 2
    assert main(["grade", str(tmp_path / "prose.txt")]) == 2
    assert "rillstep:" in capsys.readouterr().err


def test_write_round_trips(pattern: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    out = str(tmp_path / "uk.txt")
    assert main(["write", pattern, "--terms", "uk", "-o", out]) == 0
    assert "Terms: UK" in Path(out).read_text()
    assert main(["check", out]) == 0
    capsys.readouterr()
    assert main(["write", out, "--size", "m"]) == 0
    single = capsys.readouterr().out
    assert "Sizes: M\n" in single
    assert "dc in next 13 ch" in single  # a text is written in its own terms, if not asked otherwise
    assert main(["write", out, "--size", "m", "--terms", "us"]) == 0
    assert "sc in next 13 ch" in capsys.readouterr().out
    assert main(["write", pattern, "--size", "XXL"]) == 2


def test_measure_and_yarn(pattern: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["measure", pattern, "--json"]) == 0
    report = json.loads(capsys.readouterr().out)
    (width,) = [one["mm"] for one in report["measures"] if one["piece"] is None and one["name"] == "width"]
    assert report["sizes"] == ["S", "M", "L"] and width == sorted(set(width))
    assert main(["yarn", pattern]) == 2  # of which no label is known, and none is made up
    assert "--grams and --metres" in capsys.readouterr().err
    label = ["--grams", "100", "--metres", "200"]
    assert main(["yarn", pattern, "--json", *label]) == 0
    assert json.loads(capsys.readouterr().out)["sizes"]["L"]["balls"] >= 1
    assert main(["measure", pattern]) == 0
    assert main(["yarn", pattern, *label]) == 0


def test_grade_to_other_targets(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    design, targets, out = tmp_path / "d.json", tmp_path / "to.json", tmp_path / "graded.txt"
    design.write_text(dump(nightfield()))
    sizes = [
        {"name": name, "targets": {"width": width, "height": 30, "depth": 9}}
        for name, width in (("Star", 26), ("Moon", 33))
    ]
    targets.write_text(json.dumps({"units": "cm", "sizes": [{"name": "Atlas"}, *sizes]}))
    assert main(["grade", str(design), "--to", str(targets), "--json", "-o", str(out)]) == 0
    report = json.loads(capsys.readouterr().out)
    assert report["sizes"] == ["Atlas", "Star", "Moon"]
    assert main(["check", str(out)]) == 0
    targets.write_text('[{"name": "X"}]')
    assert main(["grade", str(design), "--to", str(targets)]) == 2


@pytest.mark.parametrize(
    ("form", "begins"), [("html", "<!doctype html>"), ("markdown", "# Example"), ("text", "Pattern:"), ("pdf", "%PDF-")]
)
def test_write_in_other_forms(pattern: str, tmp_path: Path, form: str, begins: str) -> None:
    out = tmp_path / f"out.{form}"
    assert main(["write", pattern, "--as", form, "--size", "M", "--hand", "left", "-o", str(out)]) == 0
    content = out.read_bytes().decode("latin-1")
    assert content.startswith(begins)
    if form in ("html", "markdown"):
        assert "Left-handed" in content
        assert "32 sts" in content
        assert "26 (32, 38)" not in content


def test_a_pdf_needs_a_file(pattern: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["write", pattern, "--as", "pdf"]) == 2
    assert "-o" in capsys.readouterr().err


def test_charts_are_drawn_for_either_hand_and_size(
    pattern: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    line = str(1 + MESH_TOTE.split("\n").index(next(row for row in MESH_TOTE.split("\n") if row.startswith("Rnd 2"))))
    assert main(["chart", pattern, "--line", line]) == 0
    right = capsys.readouterr().out
    assert right.startswith("<svg ") and f"Example, line {line}, size S" in right
    out = tmp_path / "left.svg"
    assert (
        main(["chart", pattern, "--line", line, "--size", "m", "--hand", "left", "--terms", "uk", "-o", str(out)]) == 0
    )
    assert "size M" in out.read_text() and "dc: double crochet" in out.read_text()


@pytest.mark.parametrize(
    ("arguments", "says"),
    [(["--line", "1"], "no round or row"), (["--line", "5", "--size", "XXL"], "there is no size")],
)
def test_a_chart_that_cannot_be_drawn_is_said(
    pattern: str, arguments: list[str], says: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["chart", pattern, *arguments]) == 2
    assert says in capsys.readouterr().err


@pytest.mark.parametrize("kind", ["text", "markdown", "html"])
@pytest.mark.parametrize("hand", ["right", "left"])
def test_each_form_is_written_for_each_hand(pattern: str, kind: str, hand: str, tmp_path: Path) -> None:
    out = tmp_path / "bag.out"
    assert main(["write", pattern, "--as", kind, "--hand", hand, "--size", "M", "-o", str(out)]) == 0
    shown = out.read_text()
    assert ("Left-handed" in shown) == (hand == "left")
    assert "Oval base" in shown and "Numbers are given" not in shown


def test_what_is_written_as_text_stands_alone_and_checks_clean(
    pattern: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = str(tmp_path / "alone.txt")
    assert main(["write", pattern, "--terms", "uk", "--hand", "left", "-o", out]) == 0
    assert main(["check", out]) == 0
    shown = Path(out).read_text()
    assert "Note: Abbreviations:" in shown and "Note: Rounds are joined" in shown
    assert max(len(line) for line in shown.split("\n") if line.startswith(("Rnd", "Row", "    "))) <= 92
    capsys.readouterr()


LAYOUT = (
    "Sizes: S, L\nSquare (make 8 (12))\nCh 4, join into a ring.\nRnd 1: 8 sc in ring; join. (8)\n"
    "Arrange the squares in 2 rows of 4 (3 rows of 4).\nTop\nRnd 1: Ch 1, work 60 (72) sc evenly around; join. (60 (72))\n"
    "Rnds 2-4 (2-6): Rep Rnd 1. (60 (72))\n"
)


def test_one_size_of_many_pieces_is_written_with_its_own_numbers(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "squares.txt"
    path.write_text(LAYOUT)
    assert main(["check", str(path), "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["ok"]
    assert main(["write", str(path), "--size", "L"]) == 0
    written = capsys.readouterr().out
    assert "make 12" in written and "72 sc evenly" in written and "8/12" not in written
    path.write_text(LAYOUT.replace("3 rows of 4", "3 rows of 5"))
    assert main(["check", str(path), "--json"]) == 1
    (finding,) = [f for f in json.loads(capsys.readouterr().out)["findings"] if f["severity"] == "error"]
    assert (finding["code"], finding["size"]) == ("layout-count", "L")


def test_measure_tells_the_sides_where_they_are_needed(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "drift.txt"
    path.write_text(
        "Gauge: sc 20 sts x 20 rows = 10 cm\nSizes: S, L\nCh 24 (40), join into a ring.\nRnd 1: Sc in each ch around; join.\n"
        "Rnds 2-6 (9): Sl st in next 2 sts, ch 1, sc in same st, sc in each st around; join.\n"
    )
    assert main(["measure", str(path), "--json"]) == 0
    report = json.loads(capsys.readouterr().out)
    assert [(one["size"], one["number"], one["correction"]) for one in report["sides"]] == [("S", 6, 7), ("L", 9, 12)]
    assert main(["measure", str(path)]) == 0
    assert "round 6, size S: sides at between 19 and 20 and between 7 and 8" in capsys.readouterr().out


def test_a_text_with_names_is_graded_to_targets(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    source = str(Path(__file__).parent / "grading_texts" / "pouch.txt")
    to, out = tmp_path / "to.json", tmp_path / "graded.txt"
    sizes = [{"name": "Small"}, {"name": "Large", "targets": {"width": 18, "height": 13, "Cord.length": 70}}]
    to.write_text(json.dumps({"units": "cm", "sizes": sizes}))
    assert main(["grade", source, "--to", str(to), "--json", "-o", str(out)]) == 0
    report = json.loads(capsys.readouterr().out)
    assert report["ok"] and report["sizes"] == ["Small", "Large"]
    assert {one["name"]: one["values"] for one in report["numbers"]}["base rounds"] == [8, 12]
    assert main(["check", str(out)]) == 0
    to.write_text(json.dumps({"sizes": [{"name": "Odd", "targets": {"width": 15}}]}))
    assert main(["grade", source, "--to", str(to), "-o", str(out)]) == 1  # the nearest that is proved
    assert main(["check", str(out)]) == 0
    for broken in ('{"sizes": [{"name": "S", "targets": {"drop": 3}}]}', '{"sizes": [{"nam": "S"}]}', "[]"):
        to.write_text(broken)
        assert main(["grade", source, "--to", str(to)]) == 2
    assert "--to" in (main(["grade", source]) and capsys.readouterr().err)


def test_a_plain_text_is_lifted_and_undone(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    plain, out = tmp_path / "bag.txt", tmp_path / "named.txt"
    plain.write_text(
        "Wall\nCh 40, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnds 2-20: Sc in each st around; join.\n"
    )
    assert main(["lift", str(plain), "-o", str(out)]) == 0
    assert "Number: wall rounds = 19" in out.read_text() and "Rnds 2-{wall rounds + 1}:" in out.read_text()
    assert main(["lift", str(plain), "--json"]) == 0
    names = json.loads(capsys.readouterr().out)["names"]
    assert [(one["name"], one["value"]) for one in names] == [("wall chain", 40), ("wall rounds", 19)]
    assert main(["unname", str(out)]) == 0
    assert "Rnds 2-20:" in capsys.readouterr().out
    plain.write_text("Sizes: S, L\nCh 20 (30).")
    assert main(["lift", str(plain)]) == 2


GRADED = Path(__file__).parent / "grading_texts"
FLAPPED = (GRADED / "pouch.txt").read_text() + (
    "\nSection: Flap (rows, panel)\nCh {flap}.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 20 sts\n"
    "Rows 2-12: Ch 1, sc in each st across; turn. — 20 sts\nNumber: flap = 21\n"
)
OPENING = (GRADED / "ring_tote.txt").read_text().replace("sk next 10 sts", "sk next {hand} sts").replace(
    "{4*side + 20}", "{4*side + 2*hand}"
).replace("Number: side", "Number: hand = 10\nNumber: side")  # fmt: skip
SQUARE = (
    "Gauge: dc 16 sts x 8 rows = 10 cm\nSection: Square (joined rounds, square, make 2)\nMake an adjustable ring.\n"
    "Rnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join. — 12 dc, 4 ch-2 sps\n"
)
IMPOSSIBLE = [
    (OPENING, {"targets": {"drop": 0}}, 2, "is above zero"),
    (FLAPPED, {"targets": {"Flap.width": 40}}, 1, "wider than the bag at its mouth"),
    (OPENING, {"targets": {"opening": 60, "width": 20}}, 1, "stands against it"),
    ((GRADED / "pouch.txt").read_text(), {"locks": {"gaps": 7}}, 1, "it can be 6 or 9"),
    (SQUARE, {"targets": {"Square.side": 40}}, 2, "Squares that are worked in rounds stay as they are"),
    ((GRADED / "pouch.txt").read_text(), {"targets": {"strap": 40}}, 2, "is not measured in this text; there are: "),
    ((GRADED / "pouch.txt").read_text(), {"targets": {"width": 15}}, 1, "a smaller one does not come out"),
]


@pytest.mark.parametrize(("text", "wish", "code", "words"), IMPOSSIBLE, ids=range(len(IMPOSSIBLE)))
def test_impossible_wishes_say_why_and_what_would_help(
    text: str, wish: dict[str, object], code: int, words: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "bag.txt").write_text(text)
    targets = {"units": "cm", "sizes": [{"name": "S"}, {"name": "L", **wish}]}
    (tmp_path / "targets.json").write_text(json.dumps(targets))
    assert main(["grade", str(tmp_path / "bag.txt"), "--to", str(tmp_path / "targets.json")]) == code
    out = capsys.readouterr()
    assert words in out.out + out.err


def test_eleven_sizes_are_refused(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "targets.json").write_text(json.dumps({"sizes": [{"name": str(n)} for n in range(11)]}))
    assert main(["grade", str(GRADED / "pouch.txt"), "--to", str(tmp_path / "targets.json")]) == 2
    assert "One to 10 sizes" in capsys.readouterr().err


CAP = "Pattern: Dew cap\nRnd 1: 6 sc in a magic ring. (6)\nRnd 2: 2 blorp in each st around. (12)\n"


def test_check_asks_what_unknown_words_mean_and_an_answer_is_written(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path, answered = tmp_path / "cap.txt", tmp_path / "answered.txt"
    path.write_text(CAP)
    assert main(["check", str(path)]) == 1  # an open question
    shown = capsys.readouterr().out
    assert "question 1: What is “blorp”? (line 3)" in shown and "1=a  a stitch, one into each place" in shown
    assert "1 proved, 1 assumed, of 2 lines" in shown
    main(["check", str(path), "--json"])
    report = json.loads(capsys.readouterr().out)
    (question,) = report["questions"]
    assert (question["words"], question["lines"]) == ("blorp", [3]) and not report["ok"]
    assert question["answers"][0] == {
        "means": "a stitch, one into each place", "makes": "Rnd 2: 12 sts", "decided_by": "Rnd 2 (12)",
    }  # fmt: skip
    assert [line["mark"] for line in report["lines"]] == ["proved", "assumed"]
    assert main(["check", str(path), "--answer", "1=a", "-o", str(answered)]) == 0
    assert path.read_text() == CAP  # the text itself is never changed
    assert 'Means: "blorp" = a stitch\n' in answered.read_text() and main(["check", str(answered)]) == 0
    capsys.readouterr()
    for wrong in ("2=a", "1=z", "0=a"):
        assert main(["check", str(path), "--answer", wrong]) == 2
        assert "there is no answer" in capsys.readouterr().err


def test_check_reads_the_documents_of_other_programs(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "pouch.docx"
    path.write_bytes(word_document())
    assert main(["check", str(path), "--json"]) == 0
    shown = capsys.readouterr()
    assert len(json.loads(shown.out)["lines"]) == 5
    assert "note: Heads and feet of pages were left out" in shown.err
    path.write_bytes(b"%PDF-1.4 nothing more")
    assert main(["check", str(path)]) == 2
    assert "damaged" in capsys.readouterr().err
