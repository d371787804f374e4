"""One cause, one finding: what is wrong in the same way in every size is said once, for all of them."""

import re
from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.findings import Edit, Finding, Repair
from rillstep.core.tree import Pattern
from rillstep.core.words.numbers import set_text


def merged(found: Sequence[Finding], pattern: Pattern) -> list[Finding]:
    """The findings, those that hold alike in every size of the pattern made one without a size."""
    every = set(range(len(pattern.sizes)))
    groups: dict[tuple[object, ...], list[Finding]] = {}
    for finding in dict.fromkeys(found):  # the same of two handles is said once
        groups.setdefault(_key(finding, pattern), []).append(finding)
    result: list[Finding] = []
    for members in groups.values():
        whole = {finding.size for finding in members} == every and len(members) == len(every)
        result += [_one(members, pattern)] if whole else members
    return _mended_together(result)


def _mended_together(found: list[Finding]) -> list[Finding]:
    """The findings, each repair of a line that mends it in several sizes made one for all of them, also where they
    say different things."""
    alike: dict[tuple[int, str], list[tuple[int, Repair]]] = {}
    for one in found:
        if one.size is not None and one.severity == "error":
            for repair in one.repairs:
                alike.setdefault((one.span.line, repair.message), []).append((one.size, repair))
    several = {
        key: Repair(key[1], _edits([repair for _, repair in same], [size for size, _ in same]))
        for key, same in alike.items()
        if len({size for size, _ in same}) == len(same) > 1
    }
    if not several:
        return found
    return [
        replace(one, repairs=tuple(several.get((one.span.line, repair.message), repair) for repair in one.repairs))
        for one in found
    ]


def caused(found: Sequence[Finding], read: Sequence[Finding]) -> list[Finding]:
    """Those that are no consequence of a range whose rows were counted otherwise: its end, changed, would take them
    away as well."""
    causes = {edit for one in read if one.code == "rows-otherwise" for repair in one.repairs for edit in repair.edits}
    return [one for one in found if not any(repair.edits and causes.issuperset(repair.edits) for repair in one.repairs)]


def _key(finding: Finding, pattern: Pattern) -> tuple[object, ...]:
    told = tuple(repair.message for repair in finding.repairs)
    return (finding.code, finding.span, finding.expected, finding.found, _without_size(finding, pattern), told)


def _without_size(finding: Finding, pattern: Pattern) -> str:
    if finding.size is None:
        return finding.message
    return finding.message.replace(f" in size {pattern.sizes[finding.size]}", "", 1)


def _one(members: list[Finding], pattern: Pattern) -> Finding:
    """One finding for all of them; its repairs mend every size at once."""
    repairs = tuple(
        Repair(same[0].message, _edits(same, [m.size or 0 for m in members]))
        for same in zip(*(member.repairs for member in members), strict=True)
    )
    first = members[0]
    return replace(first, size=None, message=_without_size(first, pattern), repairs=repairs)


def _edits(repairs: Sequence[Repair], sizes: Sequence[int]) -> tuple[Edit, ...]:
    """The edits of all sizes together: those at one place, each written for its own size, become one set."""
    by_span: dict[object, list[tuple[int, Edit]]] = {}
    for repair, size in zip(repairs, sizes, strict=True):
        for edit in repair.edits:
            by_span.setdefault(edit.span, []).append((size, edit))
    return tuple(_edit(edits, sizes) for edits in by_span.values())


def _edit(edits: list[tuple[int, Edit]], sizes: Sequence[int]) -> Edit:
    span = edits[0][1].span
    written = [[int(text) for text in re.findall(r"\d+", edit.text)] for _, edit in edits]
    if len({edit.text for _, edit in edits}) == 1 or not written[0]:
        return edits[0][1]
    if len(written[0]) == 1:  # one number was meant for each of these sizes
        return Edit(span, set_text(tuple(numbers[0] for numbers in written)))
    values = list(written[0])
    for (size, _), numbers in zip(edits, written, strict=True):
        at = size if len(numbers) > max(sizes) else sorted(sizes).index(size)
        values[at] = numbers[at]
    return Edit(span, set_text(tuple(values)))
