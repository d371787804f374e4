"""The open design file: its schema, reading, writing."""

from rillstep.document.load import BrokenDesign, Design, Fault, design_schema, dump, faults_of, load
from rillstep.document.schema import Parts, Size, Swatch, ToteDesign, Way, Yarn, blank
from rillstep.document.text_design import SizeName, TextDesign, TextSize

__all__ = [
    "BrokenDesign",
    "Design",
    "Fault",
    "Parts",
    "Size",
    "SizeName",
    "Swatch",
    "TextDesign",
    "TextSize",
    "ToteDesign",
    "Way",
    "Yarn",
    "blank",
    "design_schema",
    "dump",
    "faults_of",
    "load",
]
