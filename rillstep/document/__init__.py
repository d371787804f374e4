"""The open design file: its schema, reading, writing."""

from rillstep.document.load import BrokenDesign, Fault, dump, faults_of, load
from rillstep.document.schema import Design, Parts, Size, Swatch, Way, Yarn, blank

__all__ = [
    "BrokenDesign",
    "Design",
    "Fault",
    "Parts",
    "Size",
    "Swatch",
    "Way",
    "Yarn",
    "blank",
    "dump",
    "faults_of",
    "load",
]
