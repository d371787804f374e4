"""Every command on every shipped text: it answers with 0, 1 or 2, never with a traceback, and says what the application
says."""

import json
from pathlib import Path

import pytest

from rillstep.cli import main
from rillstep.demo.data import pouch
from rillstep.design import facts_of
from rillstep.document import Design, dump
from rillstep.document.ready import READY_BAGS
from rillstep.services.assuming import assumptions
from rillstep.services.checking import design_of
from rillstep.services.proof_views import line_views
from rillstep.services.reports import MARKS
from rillstep.services.workbench import work

ROOT = Path(__file__).parent
CORPUS = sorted((ROOT / "corpus").glob("*.txt"))
TYPED = sorted((ROOT / "typed").glob("*.txt"))
TEXTS = {
    **{f"ready_{bag.key}": bag.text for bag in READY_BAGS},
    **{path.stem: path.read_text() for path in (*TYPED, *CORPUS[::120])},
}
DEMO = {path.stem: path.read_text() for path in sorted((ROOT.parent / "rillstep" / "demo" / "bags").glob("*.txt"))}
TARGETS = json.dumps({"units": "cm", "sizes": [{"name": "As it is"}]})
COMMANDS = (
    ["check"], ["check", "--json"], ["write"], ["write", "--as", "markdown"], ["write", "--as", "html"],
    ["write", "--terms", "uk", "--hand", "left"], ["unname"], ["measure"], ["measure", "--json"], ["lift"],
    ["lift", "--json"], ["yarn"], ["yarn", "--json", "--grams", "50", "--metres", "120"],
    ["chart", "--line", "9"],
)  # fmt: skip


def _of_kind(name: str, text: str, folder: Path) -> list[str]:
    """A text as a file, and as a design file."""
    plain, file = folder / f"{name}.txt", folder / f"{name}.json"
    plain.write_text(text)
    file.write_text(dump(design_of(text)))
    return [str(plain), str(file)]


@pytest.mark.parametrize("name", [*TEXTS, *DEMO])
def test_every_command_answers(name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    text = TEXTS.get(name) or DEMO[name]
    for file in _of_kind(name, text, tmp_path):
        for command, *rest in COMMANDS:
            code = main([command, file, *rest])
            said = capsys.readouterr()
            assert code in (0, 1, 2)
            assert (code == 2) == (not said.out) or command in ("unname", "lift")
            assert code != 2 or said.err.startswith("rillstep: ")
            if "--json" in rest and code != 2:
                json.loads(said.out)


@pytest.mark.parametrize("name", ["ready_round_pouch", "lantern-pouch"])
def test_how_large_is_answered(name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """It finds how the bag grows, which takes seconds: two texts stand for the others."""
    for file in _of_kind(name, TEXTS[name], tmp_path):
        assert main(["yarn", file, "--json", "--grams", "50", "--metres", "120", "--have", "200"]) in (0, 1)
        assert json.loads(capsys.readouterr().out)


def test_half_a_label_and_a_second_one_are_refused(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "pouch.txt"
    file.write_text(READY_BAGS[0].text)
    assert main(["yarn", str(file), "--metres", "120"]) == 2
    assert "give both" in capsys.readouterr().err
    file.write_text(dump(pouch()))
    assert main(["yarn", str(file), "--grams", "50", "--metres", "120"]) == 2
    assert "names its yarn" in capsys.readouterr().err


@pytest.mark.parametrize("name", [*TEXTS, *DEMO])
def test_check_and_measure_say_what_the_application_says(
    name: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    design = design_of(TEXTS.get(name) or DEMO[name])
    shown, proof = work(design), facts_of(design).proof
    (file, _) = _of_kind(name, design.text, tmp_path)
    main(["check", file, "--json"])
    report = json.loads(capsys.readouterr().out)
    asked = assumptions(design.text) if report["questions"] else None
    lines = asked.lines if asked is not None else line_views(proof)
    assert [one["words"] for one in report["questions"]] == [one.words for one in (asked.questions if asked else [])]
    assert [one["mark"] for one in report["lines"]] == [MARKS[line.mark] for line in lines]
    assert [one["totals"]["sts"] for one in report["lines"]] == [line.sts for line in lines]
    findings = asked.findings if asked is not None else shown.findings
    assert [one["message"] for one in report["findings"]] == [one.message for one in findings]
    if main(["measure", file, "--json"]) != 2:
        measures = json.loads(capsys.readouterr().out)["measures"]
        assert [one["label"] for one in measures] == [one.label for one in shown.bag]
        assert [[mm is None for mm in one["mm"]] for one in measures] == [
            [mm is None for mm in one.mm] for one in shown.bag
        ]


def test_grading_a_design_file_goes_by_its_sample_and_how_it_is_carried(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "to.json").write_text(json.dumps({"units": "cm", "sizes": [{"name": "X", "targets": {"drop": 25}}]}))
    text = next(bag.text for bag in READY_BAGS if bag.key == "oval_tote")
    graded: dict[str, object] = {}
    for carried in ("hand", "shoulder"):
        design = Design(text=text, carried=carried)  # type: ignore[arg-type]
        (tmp_path / "d.json").write_text(dump(design))
        main(["grade", str(tmp_path / "d.json"), "--to", str(tmp_path / "to.json"), "--json"])
        graded[carried] = json.loads(capsys.readouterr().out)["numbers"]
    assert graded["hand"] != graded["shoulder"]
