"""The craft: its stitches, what they are called, and how they are drawn."""

from rillstep.core.craft.names import long_names, name_expression, names_of, plurals, stitch_words
from rillstep.core.craft.stitches import (
    BY_US,
    DC,
    ESC,
    GATHERED,
    GATHERED_SHORT,
    GATHERED_SYMBOLS,
    HDC,
    LOOP_ABBREVIATIONS,
    MODIFIERS,
    PICOT,
    POSTS,
    RSC,
    SC,
    SL_ST,
    STITCHES,
    Loop,
    Stitch,
    Terms,
    abbreviation,
    basic,
    basic_of,
    full_name,
    is_called,
    is_post,
    other_side,
)

__all__ = [
    "BY_US", "DC", "ESC", "GATHERED", "GATHERED_SHORT", "GATHERED_SYMBOLS", "HDC",
    "LOOP_ABBREVIATIONS", "MODIFIERS", "PICOT", "POSTS", "RSC", "SC", "SL_ST", "STITCHES", "Loop", "Stitch", "Terms",
    "abbreviation", "basic", "basic_of", "full_name", "is_called", "is_post", "long_names", "name_expression",
    "names_of", "other_side", "plurals", "stitch_words",
]  # fmt: skip
