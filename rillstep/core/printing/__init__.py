"""Tree to text: every instruction that is printed comes from here."""

from rillstep.core.printing.project import one_size
from rillstep.core.printing.step_words import write_steps
from rillstep.core.printing.writer import write

__all__ = ["one_size", "write", "write_steps"]
