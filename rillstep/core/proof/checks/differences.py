"""Every line against its stated totals, and every line that cannot be worked at all."""

from dataclasses import replace

from rillstep.core.fabric import LineWork, SizeWork, found_of, ways_of_counting, work_pattern
from rillstep.core.findings import Finding, Repair, Span
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.checks.named_places import other_names
from rillstep.core.proof.repairs import repairs_for
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.proof.upstream import upstream_repairs
from rillstep.core.tree import (
    Again,
    Chain,
    EachKind,
    Group,
    Next,
    Onward,
    Repeat,
    Row,
    Same,
    Setup,
    Step,
    Work,
    lines_of,
)
from rillstep.core.words.numbers import edit_value, with_line

# Repairs are tried for so many lines: whoever has more to mend begins with the first ones.
MOST_REPAIRED = 40
# And for so many of their steps: each of a long line's numbers is tried by working all of it.
MOST_STEPS_REPAIRED = 250
# For so many wrong totals of a size it is tried what follows from them: each time the pattern is worked again.
MOST_FOLLOWED = 4


def totals(subject: Subject) -> list[Finding]:
    """Findings for lines that run out, leave stitches over, do not come out, or state another total."""
    found: list[Finding] = []
    steps = 0
    suspects = {id(line.line) for line in subject.lines if line.may_be_wrong}
    for work in subject.works if suspects else ():
        follows = _following(subject, work)
        for index, line in enumerate(work.lines):
            if index in follows or id(line.line) not in suspects:
                continue
            if any(total.each for total in getattr(line.line, "totals", ())):
                found += _each_round(subject, line, work.size)
            if line.trouble is None and not line.differences:
                continue
            mended = len(found) < MOST_REPAIRED and steps < MOST_STEPS_REPAIRED
            steps += line.last.spent if line.last is not None else 0
            if line.trouble is not None:
                found.append(_trouble(subject, work.lines, index, work.size, mended))
            elif line.rounds and line.last is not None and isinstance(line.line, Row | Again) and not line.line.broken:
                found += _differences(subject, work.lines, index, work.size, mended)
    return found


def _following(subject: Subject, work: SizeWork) -> set[int]:
    """Lines that are only wrong because an earlier total is: when the work goes on from what is made there, they are
    true."""
    follows: set[int] = set()
    tried = 0
    for index, line in enumerate(work.lines):
        if (
            index in follows
            or line.trouble is not None
            or not line.differences
            or not isinstance(line.line, Row | Again)
        ):
            continue
        later = {at for at in range(index + 1, len(work.lines)) if _is_wrong(work.lines[at])} - follows
        if not later or len(later) > MOST_REPAIRED or tried == MOST_FOLLOWED:
            break
        tried += 1
        untold = with_line(subject.pattern, line.line, replace(line.line, totals=()))
        made = work_pattern(untold, work.size).lines
        follows |= {at for at in later if not _is_wrong(made[at])}
    return follows


def _is_wrong(line: LineWork) -> bool:
    return line.trouble is not None or bool(line.differences)


def _each_round(subject: Subject, line: LineWork, size: int) -> list[Finding]:
    """A total for each round of a range: the first that differs (the last is the total of the line itself)."""
    if not isinstance(line.line, Row | Again) or line.trouble is not None or not line.rounds:
        return []
    for total in line.line.totals:
        if not total.each:
            continue
        if len(total.each) != line.line.rounds(size):
            message = (
                f"{write_label(line.line)}{subject.in_size(size)} has {line.line.rounds(size)} "
                f"rounds, and {len(total.each)} totals."
            )
            return [
                Finding("set-length", "error", total.count.span, message, size, line.line.rounds(size), len(total.each))
            ]
        for number, counts, stated in zip(
            range(line.line.first.at(size), 10**6), line.rounds[:-1], total.each, strict=False
        ):
            made = found_of(total, counts, size)
            if made != stated.at(size):
                message = f"{line.line.kind} {number} says {stated.at(size)}{subject.in_size(size)}; it makes {made}."
                repair = Repair(f"State {made}", (edit_value(stated, size, made),))
                return [Finding("total-differs", "error", stated.span, message, size, stated.at(size), made, (repair,))]
    return []


def _trouble(subject: Subject, lines: tuple[LineWork, ...], index: int, size: int, mended: bool) -> Finding:
    line = lines[index]
    assert isinstance(line.line, Row | Again) and line.trouble is not None
    trouble = line.trouble
    span = trouble.span if trouble.span.line in lines_of(line.line) else line.line.span
    message = f"{write_label(line.line)}{subject.in_size(size)}: {trouble.told(subject.pattern.terms)}."
    expected = found = None
    if trouble.missing or trouble.left:
        expected, found = trouble.missing, trouble.left
    repairs: tuple[Repair, ...] = ()
    if trouble.code == "stitch-not-there":
        repairs = other_names(line, size, subject.pattern.terms)
    elif mended:
        repairs, fits = repairs_for(lines, index, size, max(trouble.missing, trouble.left, 1))
        if (
            not fits or trouble.code == "repeat-uneven"
        ):  # a slip in the line itself is no reason to begin with another count
            repairs = (*repairs, *upstream_repairs(subject, lines, index, size))
    return Finding(
        trouble.code, "error", span, message, size, expected, found, repairs, _before(lines, index), _steps(line)
    )


def _differences(subject: Subject, lines: tuple[LineWork, ...], index: int, size: int, mended: bool) -> list[Finding]:
    line = lines[index]
    assert isinstance(line.line, Row | Again)
    off = line.differences
    if not off:
        return []
    total, stated, made = off[0]
    what = "ch sps" if total.what == "sp" else "sts"
    short = f"{abs(made - stated)} too {'few' if made < stated else 'many'}"
    message = (
        f"{write_label(line.line)} says {stated} {what}{subject.in_size(size)}; these steps make {made} ({short})."
    )
    repairs = repairs_for(lines, index, size, abs(made - stated))[0] if mended else ()
    return [
        Finding(
            "total-differs",
            "error",
            total.count.span,
            message,
            size,
            stated,
            made,
            repairs,
            _unstated_before(lines, index),
            _steps(line),
        )
    ]


def _steps(line: LineWork) -> tuple[str, ...]:
    """The arithmetic: what each step took and made."""
    if line.last is None:
        return ()
    return tuple(f"{step.span.column}-{step.span.end_column}: {step.took} -> {step.made}" for step in line.last.steps)


def _unstated_before(lines: tuple[LineWork, ...], index: int) -> tuple[Span, ...]:
    """The line before, when it states no total of its own: the fault may be there as well."""
    before = lines[index - 1].line if index else None
    return (before.span,) if isinstance(before, Row | Again) and not before.totals else ()


def _before(lines: tuple[LineWork, ...], index: int) -> tuple[Span, ...]:
    """The line that gave the stitches: the fault may be there."""
    return (lines[index - 1].line.span,) if index else ()


def by_manner(worked: WorkedLine) -> list[Finding]:
    """Rows that go on "in this manner": they grow by as much as those before them, and are not worked stitch by
    stitch."""
    line = worked.line
    if not isinstance(line, Row) or line.broken or not any(isinstance(step, Onward) for step in line.steps):
        return []
    message = (
        "How these rows are worked is told by those before them: they are counted "
        "by how those grow, and not worked stitch by stitch."
    )
    return [Finding("manner-not-worked", "warning", line.span, message)]


def of_foundation(worked: WorkedLine) -> list[Finding]:
    """A chain of nothing in a set-up line; and a total that it states, held to its chain: one of anything else is said
    not to be checked."""
    line = worked.line
    if not isinstance(line, Setup) or line.broken:
        return []
    none = [one for one in line.steps if isinstance(one, Chain) and not any(one.length.values)]
    found = [Finding("chain-of-none", "error", one.span, "A chain has at least 1 stitch.") for one in none]
    for total in line.totals:
        for work in worked.done:
            stated, chains = total.count.at(work.size), work.end.counts().loose
            if not work.end.foundation or total.what not in ("ch", "sts") or (total.what == "sts" and stated != chains):
                message = (
                    f"{stated} {'spaces' if total.what == 'sp' else total.what} are "
                    f"stated here, and nothing is held to that number."
                )
                found.append(Finding("total-not-checked", "warning", total.count.span, message))
                break
            if stated != chains:
                message = f"This says {stated} chains{worked.in_size(work.size)}; there are {chains}."
                repair = Repair(f"State {chains}", (edit_value(total.count, work.size, chains),))
                found.append(
                    Finding("total-differs", "error", total.count.span, message, work.size, stated, chains, (repair,))
                )
    return found


def beside_motifs(worked: WorkedLine) -> list[Finding]:
    """ "18 shells and 19 sc", where the text does not define what a shell is: the sc are counted where none of them is
    within a group of several in one place, and are else said not to be checked."""
    found: list[Finding] = []
    totals = [total for total in getattr(worked.line, "totals", ()) if total.beside]
    for work in worked.done if totals else ():
        if work.trouble is not None or not work.rounds or not isinstance(work.line, Row | Again):
            continue
        for total in totals:
            stated, made = total.count.at(work.size), found_of(total, work.rounds[-1], work.size)
            within = _in_groups(work.steps, total.what)
            if stated == made or (within and stated < made):
                if within:
                    message = f"How many of the {total.what} are part of a motif is not known: {stated} is not checked."
                    found.append(Finding("kind-not-known", "warning", total.count.span, message))
                continue
            message = (
                f"{write_label(work.line)} says {stated}{worked.in_size(work.size)}; these steps make {made} of them."
            )
            repair = Repair(f"State {made}", (edit_value(total.count, work.size, made),))
            found.append(
                Finding("total-differs", "error", total.count.span, message, work.size, stated, made, (repair,))
            )
    return found


def _in_groups(steps: tuple[Step, ...], stitch: str) -> bool:
    """Is a stitch made with others of its kind in one place?"""
    for step in steps:
        match step:
            case Work(stitch=made, per=per, into=into) if made == stitch:
                if isinstance(into, Same) or not per.is_always(1):
                    return True
            case Group(steps=inner):
                if any(getattr(one, "stitch", None) == stitch for one in inner):
                    return True
            case Repeat(steps=inner) | EachKind(works=inner):
                if _in_groups(inner, stitch):
                    return True
            case _:
                pass
    return False


def missing_numbers(worked: WorkedLine) -> list[Finding]:
    """ "(sc, ch, sc)", "sc in next sts": a chain or several places of which the text does not say how many they are;
    worked as one, and asked."""
    line = worked.line
    if not isinstance(line, Row | Setup) or line.broken:
        return []
    message = "How many chains this is is not said; it is worked as ch 1, and not proved."
    several = "There are several of them, and it is not said how many: one is worked, and the line is not proved."
    return [
        Finding("chain-number-missing", "warning", step.span, message)
        if isinstance(step, Chain)
        else Finding("number-missing", "warning", step.span, several)
        for step in _unnumbered(line.steps)
    ]


def _unnumbered(steps: tuple[Step, ...]) -> list[Chain | Work]:
    found: list[Chain | Work] = []
    for step in steps:
        match step:
            case Chain(length=length, until=None) if not length.parts and length.span.end_column <= 1:
                found.append(step)
            case Work(into=Next(unsaid=True)):
                found.append(step)
            case Group(steps=inner) | Repeat(steps=inner) | EachKind(works=inner):
                found += _unnumbered(inner)
            case _:
                pass
    return found


def counted_alike(worked: WorkedLine) -> list[Finding]:
    """A total that is true in each size by itself, but not by the same way of counting: with the posts here, without
    them there."""
    line = worked.line
    done = [work for work in worked.done if work.rounds and work.trouble is None and not work.differences]
    if not isinstance(line, Row | Again) or len(done) < 2:
        return []
    found: list[Finding] = []
    for total in line.totals:
        ways = {work.size: ways_of_counting(total, line.totals, work.rounds[-1], work.size) for work in done}
        true = {size: {way for way, count in of.items() if count == total.count.at(size)} for size, of in ways.items()}
        if not all(true.values()) or set.intersection(*true.values()):
            continue
        usual = max(ways[done[0].size], key=lambda way: sum(way in true[size] for size in true))
        odd = [size for size in true if usual not in true[size]]
        size = odd[0]
        stated, made = total.count.at(size), ways[size].get(usual, 0)
        message = (
            f"{write_label(line)} says {stated}{worked.in_size(size)}; counted as in the other sizes it makes {made}."
        )
        alone = len(odd) == 1 and len(true) > 2  # of two sizes either may be the one that is wrong
        repair = Repair(f"State {made}", (edit_value(total.count, size, made),))
        span = total.count.span
        found.append(Finding("total-differs", "error", span, message, size if alone else None, stated, made, (repair,)))
    return found
