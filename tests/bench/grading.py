"""How fast a text is analysed and graded: the equations of the corpus, eight sizes, a changed target."""

import time
from pathlib import Path

from rillstep.core.grading import SizeWanted, analysed, grade_from, lift
from rillstep.core.grading.equations import directions_of
from rillstep.core.grading.trials import trials_of
from rillstep.core.memory import Memory
from rillstep.core.proof import prove_text, reprint
from rillstep.demo.texts import sample_text

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))


def _in_one_size(path: Path) -> str | None:
    """A text of the corpus, or its first size as it is printed; None where that is not proved."""
    text = path.read_text()
    pattern = prove_text(text).pattern
    if len(pattern.sizes) == 1:
        return text
    made = reprint(pattern, pattern.terms, 0)
    return made.text if made.ok else None


def _equations_ms(text: str) -> float | None:
    lifted = lift(text)
    if lifted is None or not lifted.names:
        return None
    with Memory().in_use():
        before = time.process_time()
        directions_of(trials_of(lifted.text))
        return 1000 * (time.process_time() - before)


def report(every: int = 4) -> None:
    """Prints the times; every: how many texts of the corpus are one that is measured."""
    texts = [text for path in CORPUS[::every] if (text := _in_one_size(path)) is not None]
    found = sorted(ms for text in texts if (ms := _equations_ms(text)) is not None)
    plain = sorted(_proof_ms(text) for text in texts)
    at = [found[int(len(found) * share)] for share in (0.5, 0.9, 0.95)]
    print(
        f"equations of {len(found)} texts: {at[0]:.0f} ms (half), {at[1]:.0f} (90 %), {at[2]:.0f} (95 %), {found[-1]:.0f} (all)"
    )
    print(
        f"  one proof of the same: {plain[len(plain) // 2]:.0f} ms (half); ratio {at[0] / plain[len(plain) // 2]:.0f}"
    )
    analysis = analysed(sample_text("pouch"))
    sizes = [SizeWanted("Sample", {}, {})]
    sizes += [SizeWanted(f"S{n}", {"width": 100.0 + 40 * n, "height": 80.0 + 12 * n}, {}) for n in range(7)]
    eight = _seconds(lambda: grade_from(analysis, sizes))
    sizes[3] = SizeWanted("S2", {"width": 240.0, "height": 111.0}, {})
    changed = _seconds(lambda: grade_from(analysis, sizes))
    again = _seconds(lambda: grade_from(analysis, sizes))
    print(
        f"eight sizes of the demo pouch: {eight:.2f} s; one target changed: {changed:.2f} s; nothing changed: {again:.2f} s"
    )


def _proof_ms(text: str) -> float:
    with Memory().in_use():
        before = time.process_time()
        prove_text(text)
        return 1000 * (time.process_time() - before)


def _seconds(run: object) -> float:
    assert callable(run)
    before = time.perf_counter()
    run()
    return time.perf_counter() - before
