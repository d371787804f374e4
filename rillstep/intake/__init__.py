"""Files of other programs as plain text: what stands in them line by line, and what of them was left out."""

from rillstep.intake.taking import FileText, NotReadable, text_of

__all__ = ["FileText", "NotReadable", "text_of"]
