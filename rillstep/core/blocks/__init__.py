"""Generators of text: a bag from its numbers, as a tree for all sizes."""

from rillstep.core.blocks.named_tote import named_tote
from rillstep.core.blocks.tote import tote_pattern

__all__ = ["named_tote", "tote_pattern"]
