"""What every check looks at."""

from dataclasses import dataclass

from rillstep.core.fabric import LineWork, SizeWork
from rillstep.core.measure import SizeShape
from rillstep.core.notation.tree import Pattern


@dataclass(frozen=True)
class Subject:
    """A pattern, worked in every size, and measured where there is a gauge."""

    pattern: Pattern
    works: tuple[SizeWork, ...]
    shapes: tuple[SizeShape, ...] | None

    def line_works(self, number: int) -> list[LineWork]:
        """The work of one line in every size for which it holds, by size."""
        found = (work.of_line(number) for work in self.works)
        return [work for work in found if work is not None]

    def in_size(self, size: int) -> str:
        """ " in size M", or nothing when there is one size only."""
        return f" in size {self.pattern.sizes[size]}" if len(self.pattern.sizes) > 1 else ""
