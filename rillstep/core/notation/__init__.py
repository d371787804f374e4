"""Text to tree and back: the language of pattern instructions."""

from rillstep.core.notation.parser import parse
from rillstep.core.notation.project import one_size
from rillstep.core.notation.writer import write, write_steps

__all__ = ["one_size", "parse", "write", "write_steps"]
