"""Tree to text: every instruction that is printed comes from here."""

from rillstep.core.printing.project import one_size
from rillstep.core.printing.writer import write, write_steps

__all__ = ["one_size", "write", "write_steps"]
