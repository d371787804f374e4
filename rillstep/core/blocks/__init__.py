"""Generators of text: a bag from its numbers, as a tree for all sizes."""

from rillstep.core.blocks.tote import tote_pattern

__all__ = ["tote_pattern"]
