"""What every check looks at."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from rillstep.core.fabric import LineWork, SizeWork
from rillstep.core.measures import BagMeasures
from rillstep.core.memory import Shelf
from rillstep.core.tree import Again, Pattern, Row, Setup


@dataclass(frozen=True, eq=False)
class WorkedLine:
    """A line of a section with its work in each size: None where it does not hold. ascending: the sizes of the text
    from the narrowest to the widest, whatever their order in it.

    It is the same thing again as long as the line and its work are, so that what was found in it is remembered.
    """

    line: Row | Again | Setup
    section: int
    works: tuple[LineWork | None, ...]
    sizes: tuple[str, ...]
    ascending: tuple[int, ...] = ()

    @cached_property
    def done(self) -> tuple[LineWork, ...]:
        """The work in the sizes for which it holds."""
        return tuple(work for work in self.works if work is not None)

    @cached_property
    def has_openings(self) -> bool:
        return any(work.openings for work in self.done)

    @cached_property
    def has_motifs(self) -> bool:
        return any(work.end.motifs for work in self.done)

    @cached_property
    def warned(self) -> bool:
        """Did working it give warnings?"""
        return any(work.last is not None and work.last.warnings for work in self.done)

    @cached_property
    def may_be_wrong(self) -> bool:
        """Is there trouble in it, or a total that it does not meet, or a list of totals of which each is still to be
        looked at?"""
        each = any(total.each for total in getattr(self.line, "totals", ()))
        return each or any(work.trouble is not None or work.differences for work in self.done)

    def in_size(self, size: int) -> str:
        """ " in size M", or nothing when there is one size only."""
        return f" in size {self.sizes[size]}" if len(self.sizes) > 1 else ""


_WORKED_LINES: Shelf[tuple[Any, ...], WorkedLine] = Shelf(20_000)


def _worked_line(
    line: Row | Again | Setup,
    section: int,
    works: tuple[LineWork | None, ...],
    sizes: tuple[str, ...],
    ascending: tuple[int, ...],
) -> WorkedLine:
    key = (id(line), section, sizes, ascending, *map(id, works))  # what is kept under it keeps these things alive
    known = _WORKED_LINES.get(key)
    if known is None:
        known = WorkedLine(line, section, works, sizes, ascending)
        _WORKED_LINES.put(key, known)
    return known


@dataclass(frozen=True)
class Subject:
    """A pattern, worked in every size, and measured where there is a gauge."""

    pattern: Pattern
    works: tuple[SizeWork, ...]
    bag: BagMeasures | None = None

    @cached_property
    def lines(self) -> tuple[WorkedLine, ...]:
        """Every line that is worked, in order, with its work in each size."""
        lines = [
            (index, line)
            for index, section in enumerate(self.pattern.sections)
            for line in section.lines
            if isinstance(line, Row | Again | Setup)
        ]
        columns: Iterable[tuple[LineWork | None, ...]]
        if all(len(work.lines) == len(lines) for work in self.works):  # every line holds in every size
            columns = zip(*(work.lines for work in self.works), strict=True)
        else:
            columns = (tuple([work.of(line) for work in self.works]) for _, line in lines)
        sizes = self.pattern.sizes
        return tuple(
            [
                _worked_line(line, index, works, sizes, self.ascending)
                for (index, line), works in zip(lines, columns, strict=True)
            ]
        )

    @cached_property
    def ascending(self) -> tuple[int, ...]:
        """The sizes from the narrowest to the widest; in their order where they have as many stitches."""
        return tuple(sorted(range(len(self.works)), key=lambda size: self.works[size].stitches))

    def in_size(self, size: int) -> str:
        """ " in size M", or nothing when there is one size only."""
        return f" in size {self.pattern.sizes[size]}" if len(self.pattern.sizes) > 1 else ""
