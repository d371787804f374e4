"""Text to tree: the language of pattern instructions."""

from rillstep.core.notation.parser import parse

__all__ = ["parse"]
