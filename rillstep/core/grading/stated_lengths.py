"""Lengths that a text states of itself ("Check: 24.0 (28.7) cm wide"), restated as its rounds measure."""

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.proof import Proof, prove_as_read
from rillstep.core.tree import Check, CheckItem, Decimals
from rillstep.core.words.numbers import set_text

DIFFERS = "measure-differs"


def proved_with_lengths(text: str, allowance_mm: float = 0.0) -> tuple[str, Proof]:
    """The text with the lengths that it states as they are measured, where nothing else is wrong with it, and its
    proof."""
    proof = prove_as_read(text, allowance_mm)
    errors = [f for f in proof.findings if f.severity == "error"]
    if not errors or any(f.code != DIFFERS for f in errors):
        return text, proof
    edits = _edits(proof)
    if not edits:
        return text, proof
    again = apply_edits(text, edits)
    return again, prove_as_read(again, allowance_mm)


def _edits(proof: Proof) -> tuple[Edit, ...]:
    values: dict[Span, list[float | None]] = {}
    items = {item.number.span: item.number for item in _items(proof) if isinstance(item.number, Decimals)}
    for finding in proof.findings:
        number = items.get(finding.span)
        if finding.code != DIFFERS or number is None or finding.expected is None:
            continue
        own = values.setdefault(finding.span, list(number.values))
        for size in range(len(own)) if finding.size is None else (finding.size,):  # None is said of all of them
            own[size] = float(finding.expected)
    return tuple(Edit(span, set_text(tuple(each), lambda value: f"{value:.1f}")) for span, each in values.items())


def _items(proof: Proof) -> list[CheckItem]:
    checks = [line for _, line in proof.pattern.lines() if isinstance(line, Check)]
    finished = proof.pattern.finished
    return [item for check in (*checks, *([finished] if finished is not None else [])) for item in check.items]
