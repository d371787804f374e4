"""The names of a text, changed by its designer: renamed, tied, untied, held as plain numbers, or given to a number.

Each change is one of the text alone, so it is seen there, and can be undone. What the text says stays the same in every
size: only the names of its numbers do not.
"""

import re
from collections.abc import Sequence
from math import prod

from rillstep.core.grading.lift import same_work
from rillstep.core.grading.named_text import named_values
from rillstep.core.settling import read
from rillstep.core.tree.forms import constant
from rillstep.core.words.expressions import NAME, ExpressionError, Value, evaluate, expression
from rillstep.core.words.named_numbers import BRACES, DEFINED, names_in, names_of
from rillstep.core.words.numbers import set_text
from rillstep.core.words.stream import THE_ROUND

_NUMBER = re.compile(r"\d+")
_SET = re.compile(r"(?<![\w.])(\d{1,5})(?:\s*\(\s*\d{1,5}(?:\s*,\s*\d{1,5})*\s*\))?(?![\w.])")
_SUM = re.compile(rf"(?P<name>{NAME.pattern})|(?P<number>\d+)|(?P<mark>//|[-+*/()−×])|(?P<space>\s+)")


class NotNamed(ValueError):
    """The names of a text cannot be changed so; the message says why, and where."""


def renamed(text: str, old: str, new: str) -> str:
    """The text with another name for a number. Raises NotNamed."""
    _known(text, old)
    new = _free_name(text, new)
    lines = text.split("\n")
    return "\n".join(_defined_as(raw, old, new) if DEFINED.match(raw) else _in_braces(raw, old, new) for raw in lines)


def tied(text: str, kept: str, gone: str) -> str:
    """The text in which one name stands in all places of two, which are equal in every size. Raises NotNamed."""
    values = _values(text)
    for name in (kept, gone):
        _known(text, name)
        if name not in values:
            raise NotNamed(f"“{name}” follows from other numbers; it is tied to them already.")
    if kept == gone:
        raise NotNamed("A number is tied to another one.")
    if values[kept] != values[gone]:
        raise NotNamed(
            f"“{kept}” is {set_text(values[kept])}, and “{gone}” is {set_text(values[gone])}: numbers that "
            "are tied are equal in every size."
        )
    lines = [raw for raw in text.split("\n") if _name_defined(raw) != gone]
    return "\n".join(_in_braces(raw, gone, kept) for raw in lines)


def untied(text: str, name: str, line: int, new: str) -> str:
    """The text in which a name has another one on a line (1-based), with the same numbers. Raises NotNamed."""
    _known(text, name)
    values = _values(text)
    if name not in values:
        raise NotNamed(f"“{name}” follows from other numbers.")
    lines = text.split("\n")
    if not 0 < line <= len(lines) or DEFINED.match(lines[line - 1]) or name not in _names_on(lines[line - 1]):
        raise NotNamed(f"“{name}” does not stand in line {line}.")
    if not any(
        name in _names_on(raw) for at, raw in enumerate(lines, start=1) if at != line and not DEFINED.match(raw)
    ):
        raise NotNamed(f"“{name}” stands in line {line} only; it is not tied to another number.")
    new = _free_name(text, new)
    at = next(at for at, raw in enumerate(lines) if _name_defined(raw) == name)
    lines[line - 1] = _in_braces(lines[line - 1], name, new)
    return "\n".join([*lines[: at + 1], _defined_as(lines[at], name, new), *lines[at + 1 :]])


def held(text: str, name: str) -> str:
    """The text in which a name is its plain numbers again, which grading leaves as they are. Raises NotNamed where it
    stands in a sum that is no plain number in every size."""
    _known(text, name)
    values = _values(text)
    if name not in values:
        raise NotNamed(f"“{name}” follows from other numbers; hold those.")
    found = values[name]
    lines = [raw for raw in text.split("\n") if _name_defined(raw) != name]
    return _alike(text, "\n".join(_with_numbers(raw, name, found) for raw in lines), f"“{name}” cannot be held")


def named(text: str, line: int, column: int, new: str) -> str:
    """The text in which the number that begins at a place (both 1-based) has a name, so that it can move. Raises
    NotNamed where no number stands there, or where the text would be read in another way."""
    lines = text.split("\n")
    raw = lines[line - 1] if 0 < line <= len(lines) else ""
    match = next((one for one in _SET.finditer(raw) if one.start() == column - 1), None)
    if match is None or DEFINED.match(raw) or any(a.start() < column <= a.end() for a in BRACES.finditer(raw)):
        raise NotNamed(f"No plain number stands in line {line} at column {column}.")
    many = len(read(text).pattern.sizes)
    numbers = tuple(int(number) for number in _NUMBER.findall(match[0]))
    if len(numbers) not in (1, many):  # the bracket behind it is no set of sizes
        numbers = numbers[:1]
    end = match.end() if len(numbers) > 1 else match.end(1)
    new = _free_name(text, new)
    lines[line - 1] = f"{raw[: match.start()]}{{{new}}}{raw[end:]}"
    own = next((at for at, one in enumerate(lines) if DEFINED.match(one)), _head_end(lines))
    after = "\n".join([*lines[:own], f"Number: {new} = {set_text(numbers)}", *lines[own:]])
    return _alike(text, after, f"The number in line {line} cannot have a name")


def _alike(before: str, after: str, problem: str) -> str:
    """The text after a change that changes nothing of what it says. Raises NotNamed."""
    if not same_work(read(after).pattern, read(before).pattern):
        raise NotNamed(f"{problem}: the text would be read otherwise.")
    return after


def _head_end(lines: Sequence[str]) -> int:
    return next((at for at, raw in enumerate(lines) if re.match(r"\s*(?:section\s*:|rnd|row)", raw, re.IGNORECASE)), 0)


def _values(text: str) -> dict[str, tuple[int, ...]]:
    return named_values(text, len(read(text).pattern.sizes))


def _known(text: str, name: str) -> None:
    if name not in names_of(text.split("\n")).defined:
        raise NotNamed(f"There is no number “{name}” in this text.")


def _free_name(text: str, name: str) -> str:
    name = " ".join(name.split())
    if not NAME.fullmatch(name) or len(name) > 60 or name.lower() in THE_ROUND:
        raise NotNamed("A name is made of letters, digits and spaces, and begins with a letter.")
    if name.lower() in {known.lower() for known in names_of(text.split("\n")).defined}:
        raise NotNamed(f"There is a number “{name}” already; to give both one name, tie them.")
    return name


def _name_defined(raw: str) -> str | None:
    match = DEFINED.match(raw)
    name, equals, _ = raw[match.end() :].partition("=") if match is not None else ("", "", "")
    return " ".join(name.split()) if equals else None


def _defined_as(raw: str, old: str, new: str) -> str:
    """A line of definition with another name, on whichever side of the equals sign it stands."""
    match = DEFINED.match(raw)
    assert match is not None
    name, equals, right = raw[match.end() :].partition("=")
    own = name.replace(name.strip(), new) if " ".join(name.split()) == old else name
    return f"{raw[: match.end()]}{own}{equals}{_sum_with(right, old, new)}"


def _in_braces(raw: str, old: str, new: str) -> str:
    if DEFINED.match(raw):
        return _defined_as(raw, old, new)
    return BRACES.sub(
        lambda m: m[0].replace(m[1], _sum_with(m[1], old, new), 1) if old in names_in(m[1]) else m[0], raw
    )


def _sum_with(source: str, old: str, new: str) -> str:
    """A sum with another name in it."""
    return _SUM.sub(lambda m: new if " ".join((m["name"] or "").split()) == old else m[0], source)


def _names_on(raw: str) -> frozenset[str]:
    return frozenset(name for match in BRACES.finditer(raw) for name in names_in(match[1]))


def _with_numbers(raw: str, name: str, values: tuple[int, ...]) -> str:
    """A line with plain numbers in place of a name."""
    if DEFINED.match(raw):
        if name not in names_in(raw.partition("=")[2].partition("#")[0].strip().strip("{}")):
            return raw
        if len(set(values)) > 1:
            raise NotNamed(f"Other numbers follow from “{name}”, which differs between the sizes; hold those first.")
        return _defined_as(raw, name, str(values[0]))

    def number(match: re.Match[str]) -> str:
        names = names_in(match[1])
        if name not in names:
            return match[0]
        if len(names) > 1 and len(set(values)) > 1:
            others = ", ".join(sorted(names - {name}))
            raise NotNamed(f"“{name}” stands in a sum with {others}, and differs between the sizes; hold those first.")
        if len(names) == 1:
            return set_text(tuple(_sum_of(match[1], name, value) for value in values)) + (match[2] or "")
        return match[0].replace(match[1], _shortened(_sum_with(match[1], name, str(values[0]))), 1)

    return BRACES.sub(number, raw)


def _sum_of(source: str, name: str, value: int) -> int:
    try:
        return evaluate(expression(source), lambda _: Value(constant(value).constant, constant(value))).whole()
    except ExpressionError as error:
        raise NotNamed(f"“{{{source}}}”: {error}.") from None


def _shortened(source: str) -> str:
    """A sum without what adds nothing: "0 + rnd - 3" is "rnd - 3", and "8*0 + 2*side" is "2*side"."""
    if re.search(r"[()/]", source):
        return source
    plain, names = 0, ""
    for sign, part in re.findall(r"([-+]?)([^-+]+)", source):
        factors = [one.strip() for one in part.split("*")]
        if all(one.isdigit() for one in factors):
            plain += (-1 if sign == "-" else 1) * prod(map(int, factors))
        elif "0" not in factors:
            names += f" {sign or '+'} {part.strip()}"
    names = names.removeprefix(" + ").strip()
    if not names:
        return str(plain)
    return names if plain == 0 else f"{names} {'-' if plain < 0 else '+'} {abs(plain)}"
