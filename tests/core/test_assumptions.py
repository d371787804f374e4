"""Words that are not understood: what is assumed of them, what is asked, and what is never assumed."""

import re
from pathlib import Path

import pytest

from rillstep.core.assumptions import ask
from rillstep.core.findings import apply_edits
from rillstep.core.notation.phrases import teach
from rillstep.core.proof import prove_as_read, prove_text

CORPUS = Path(__file__).parents[1] / "corpus"
CAP = """Pattern: Dew cap
Terms: US

Base
Rnd 1: 6 sc in a magic ring. (6)
Rnd 2: 2 sc in each st around. (12)
Rnd 3: *Sc in next st, 2 sc in next st; rep from * around. (18)
"""


def _marks(text: str) -> list[str]:
    return [line.mark for line in ask(text).proof.lines]


def test_one_word_in_many_places_is_asked_once_and_its_lines_are_assumed() -> None:
    asked = ask(CAP.replace("2 sc in", "2 blorp in").replace("*Sc", "*Blorp"))
    (question,) = asked.questions
    assert (question.words, question.lines, question.assumed) == ("blorp", (6, 7), True)
    first = question.offers[0]
    assert first.meaning.head == 'Means: "blorp" = a stitch'
    assert (first.makes, first.decided_by) == ("Rnd 2: 12 sts", "Rnd 2 (12)")
    assert [line.mark for line in asked.proof.lines] == ["proved", "assumed", "assumed"]


@pytest.mark.parametrize("name", ["lean dc", "sp dc", "moon stitch", "t-twist"])
def test_a_stitch_may_be_called_by_two_words(name: str) -> None:
    (question,) = ask(CAP.replace("2 sc in", f"2 {name} in")).questions
    assert question.words == name and question.assumed and question.offers[0].meaning.kind == "stitch"


def test_what_is_worked_on_an_assumed_line_says_so() -> None:
    text = CAP.replace("2 sc in each", "2 blorp in each") + "Rnds 4-6: Sc in each st around. (18)\n"
    lines = ask(text).proof.lines
    assert [(line.mark, line.depends) for line in lines[1:]] == [("assumed", None), ("proved", 6), ("proved", 6)]


def test_an_answer_is_written_into_the_head_and_asks_no_more() -> None:
    text = CAP.replace("2 sc in", "2 blorp in")
    question = ask(text).questions[0]
    edit = teach(text, question.words, question.offers[0].meaning.head.partition('" = ')[2], "US")
    answered = apply_edits(text, (edit,))  # type: ignore[arg-type]
    assert ask(answered).questions == ()
    assert all(line.proved for line in prove_text(answered).lines)


@pytest.mark.parametrize(
    ("was", "now", "meaning"),
    [
        ("in each st around", "in every top all the way round", "in each st around"),
        ("2 sc in next st", "2 sc into the neighbour", "in next st"),
        ("2 sc in", "2 scc in", "sc"),
        ("2 sc in each st around", "sc in each st around, growing as before", "increasing 6 sts evenly"),
    ],
)
def test_words_of_every_place_are_offered_with_what_comes_out(was: str, now: str, meaning: str) -> None:
    (question,) = ask(CAP.replace(was, now)).questions
    assert question.assumed and question.offers[0].meaning.head.endswith(f"= {meaning}")


@pytest.mark.parametrize("said", ["catching just the far strand", "skimming the rear"])
def test_loops_that_no_total_tells_of_are_asked_and_never_assumed(said: str) -> None:
    text = CAP.replace("2 sc in each st around.", f"2 sc in each st around, {said}.")
    (question,) = ask(text).questions
    assert not question.assumed and {"loops", "nothing"} >= {one.meaning.kind for one in question.offers}
    assert not any(one.decided_by for one in question.offers)
    assert _marks(text)[1] in ("unchecked", "not understood")


def test_letting_one_strand_be_means_the_other() -> None:
    text = CAP.replace("2 sc in each st around.", "2 sc in each st around, letting the near strand be.")
    assert ask(text).questions[0].offers[0].meaning.head.endswith("= in BLO")


def test_no_offer_gives_up_a_number_or_a_stitch_of_the_words() -> None:
    for said in ("hopping 3 dc away", "over the 5 that wait", "as 2 hdc would"):
        for question in ask(CAP.replace("2 sc in each st around.", f"2 sc in each st around, {said}.")).questions:
            for offer in question.offers:
                if offer.meaning.kind not in ("stitch", "near stitch", "several"):
                    kept = re.findall(r"\d+", offer.meaning.head.partition('" = ')[2])
                    assert set(re.findall(r"\d+", question.words)) <= set(kept), offer


def test_a_number_that_is_wrong_is_an_error_and_no_question() -> None:
    asked = ask(CAP.replace("(18)", "(19)"))
    assert asked.questions == () and asked.proof.lines[-1].mark == "wrong"
    assert asked.proof.findings == prove_text(CAP.replace("(18)", "(19)")).findings


def test_a_wrong_number_beside_an_unknown_word_is_not_explained_away() -> None:
    """Each total one up and one down: with the stitch assumed in the other lines, this one stays wrong."""
    text = CAP.replace("2 sc in", "2 blorp in")
    for wrong in ("(11)", "(13)"):
        lines = ask(text.replace("(12)", wrong)).proof.lines
        assert lines[1].mark in ("wrong", "not understood")


def _invented(limit: int) -> list[tuple[str, str, str]]:
    """(name, text, text with its main stitch called by a word that is none), of texts that are proved."""
    found = []
    for path in sorted(CORPUS.glob("*.txt"))[::12]:
        text = path.read_text()
        changed = re.sub(r"(?<![A-Za-z-])(?:sc|Sc|SC)(?![\w-])", "zed", text)
        if "Means" not in text and changed.count("zed") > 2 and all(line.proved for line in prove_as_read(text).lines):
            found.append((path.stem, text, changed))
    return found[:limit]


def test_an_invented_name_in_texts_of_the_corpus_is_the_stitch_that_it_stood_for() -> None:
    texts = _invented(8)
    right = 0
    for name, text, changed in texts:
        asked = ask(changed)
        plain = [(line.sts, line.spaces) for line in prove_as_read(text).lines]
        assert not any(line.mark == "proved" and "zed" in changed.split("\n")[line.line - 1] for line in asked.proof.lines
                       if any(one.words.lower() == "zed" for one in asked.questions)), name  # fmt: skip
        right += [(line.sts, line.spaces) for line in asked.proof.lines] == plain
    assert len(texts) >= 5 and right >= 0.8 * len(texts), f"{right} of {len(texts)}"


def test_a_text_that_is_understood_is_worked_as_ever() -> None:
    for path in sorted(CORPUS.glob("*.txt"))[::40]:
        text = path.read_text()
        plain = prove_text(text)
        if all(line.proved for line in plain.lines):
            asked = ask(text)
            assert asked.questions == () and asked.proof.lines == plain.lines and asked.proof.findings == plain.findings


def test_words_of_a_place_that_is_known_else_may_be_a_loop_and_nothing_is_assumed() -> None:
    (question,) = ask(CAP.replace("2 sc in each st around", "2 sc in bb of each st around")).questions
    assert question.words == "in bb" and not question.assumed
    assert [one.meaning.words for one in question.offers] == ["in the back loop", "in the front loop"]


def test_an_aside_ends_where_its_place_begins() -> None:
    (question,) = ask(CAP.replace("2 sc in each st around", "2 sc the comet way in each st around")).questions
    assert question.words == "the comet way" and question.offers[0].meaning.kind == "nothing"
