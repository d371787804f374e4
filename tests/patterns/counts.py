"""Counts the rows of the patterns by arithmetic alone: what each row takes of the one before, and what it makes."""

import re
from dataclasses import dataclass
from pathlib import Path

FOLDER = Path(__file__).parent


@dataclass(frozen=True)
class Counted:
    """A row by its label: what it makes in each size, one number where it is the same in all."""

    label: str
    totals: tuple[int, ...]


def steps_of(text: str) -> tuple[int, int]:
    """(taken, made) of steps as "1 1>2 5*(3 1>2)". Raises ValueError for anything else."""
    tokens = re.findall(r"\d+\*\(|\d+>\d+|\d+|\)|\S", text)
    stack: list[list[int]] = [[1, 0, 0]]
    for token in tokens:
        if token.endswith("*("):
            stack.append([int(token[:-2]), 0, 0])
        elif token == ")":
            times, taken, made = stack.pop()
            stack[-1][1] += times * taken
            stack[-1][2] += times * made
        elif re.fullmatch(r"\d+(>\d+)?", token):
            taken_, _, made_ = token.partition(">")
            stack[-1][1] += int(taken_)
            stack[-1][2] += int(made_ or taken_)
        else:
            raise ValueError(f"{token!r} in {text!r}")
    if len(stack) != 1:
        raise ValueError(f"a bracket is open in {text!r}")
    return stack[0][1], stack[0][2]


def _sum_of(text: str) -> int:
    """The value of "1+19+3*2-4/2": products before sums, from left to right."""
    if not re.fullmatch(r"[\d+\-*/ ]+", text.strip()):
        raise ValueError(text)
    total = 0
    for sign, term in re.findall(r"([+-]?)([\d*/ ]+)", text.strip()):
        value = 1
        for how, number in re.findall(r"([*/]?)\s*(\d+)", term):
            value = value // int(number) if how == "/" else value * int(number)
        total += -value if sign == "-" else value
    return total


def _columns(text: str) -> list[str]:
    return [part.strip() for part in text.split("|")]


def counted(path: Path) -> list[Counted]:
    """The rows of a `.count` file. Raises ValueError, with the row, where one does not come out."""
    found: list[Counted] = []
    have: tuple[int, ...] = ()
    for line in path.read_text().splitlines():
        label, _, rest = line.partition(": ")
        steps, _, total = rest.rpartition("=")
        totals = tuple(int(one) for one in _columns(total))
        if label.startswith("sum "):
            made = tuple(_sum_of(one) for one in _columns(steps))
        else:
            if steps.startswith("start "):
                start, _, steps = steps.removeprefix("start ").partition(";")
                have = tuple(int(one) for one in _columns(start))
            worked = [steps_of(one) for one in _columns(steps)]
            width = max(len(have), len(worked))
            taken = tuple(one for one, _ in worked) * (width // len(worked))
            if taken != have * (width // len(have)):
                raise ValueError(f"{path.name}: {label} takes {taken}, where there are {have}")
            made = tuple(one for _, one in worked)
        if made != totals:
            raise ValueError(f"{path.name}: {label} makes {made}, not {totals}")
        have = made
        found.append(Counted(label.removeprefix("sum "), totals))
    return found


def patterns(folder: str) -> list[Path]:
    """The patterns of a folder, "open" or "sealed", in order."""
    return sorted((FOLDER / folder).glob("*.txt"))


if __name__ == "__main__":
    rows = {path: counted(path.with_suffix(".count")) for kind in ("open", "sealed") for path in patterns(kind)}
    print(f"{len(rows)} patterns, {sum(len(one) for one in rows.values())} rows: each comes out")
