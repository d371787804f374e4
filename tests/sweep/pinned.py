"""What is known of each text of the corpus: its marks, as they were seen and gone through, and how its bag is built.

`bodies.txt` was gone through by hand: how each is built, and the pieces of its body. `marks.txt` holds the mark of each
of its worked lines; `python -m tests.sweep.pinned` writes it anew, and each line that changes is looked at.
"""

from dataclasses import replace
from itertools import groupby
from pathlib import Path

from rillstep.core.gauge import Gauge
from rillstep.core.measures.registry import bag_measures
from rillstep.core.proof import Proof
from tests.sweep.outcomes import digest, outcome_of, pinned
from tests.sweep.texts import CORPUS, CorpusText

_TESTS = Path(__file__).parents[1]
MARKS = _TESTS / "marks.txt"


def _table(path: Path) -> dict[str, list[str]]:
    rows = (line.split(" | ") for line in path.read_text().splitlines())
    return {name: values for name, *values in rows}


def marks(proof: Proof) -> str:
    """The marks of the lines in order, as runs: "12 proved, 1 unchecked"."""
    return ", ".join(f"{len(list(run))} {mark}" for mark, run in groupby(line.mark for line in proof.lines))


PINNED = {name: mark for name, (mark,) in _table(MARKS).items()} if MARKS.exists() else {}
OUTCOMES = pinned()
BODIES = _table(_TESTS / "bodies.txt")


def its_marks_are_those_that_were_seen(one: CorpusText) -> None:
    assert marks(one.proof) == PINNED[one.name]


def its_outcomes_are_those_that_were_seen(one: CorpusText) -> None:
    """See `python -m tests.sweep.outcomes --against HEAD` for what differs."""
    assert digest(outcome_of(one.text, one.proof, one.readers["all"].text)) == OUTCOMES[one.name]


def its_body_is_what_was_looked_up_by_hand(one: CorpusText) -> None:
    build, pieces = BODIES[one.name]
    # How a bag is built does not follow from its gauge: any will do.
    bag = one.proof.bag or bag_measures(replace(one.pattern, gauges=(Gauge("sc", 5.0, 5.0),)), one.proof.works)
    assert bag is not None and bag.body.build == build
    assert " + ".join(bag.pattern.sections[index].title for index in bag.body.pieces) == pieces
    assert bool(bag.body.why) == (build == "unknown")


if __name__ == "__main__":
    MARKS.write_text("".join(f"{one.name} | {marks(one.proof)}\n" for one in map(CorpusText, CORPUS)))
