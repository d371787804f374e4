"""The open design file: its schema, reading, writing."""

from rillstep.document.design import Carried, Design, Size, SizeName
from rillstep.document.load import AnyDesign, BrokenDesign, Fault, design_schema, dump, faults_of, load
from rillstep.document.schema import Parts, Swatch, Yarn
from rillstep.document.upgrade import ALLOWANCE_MM

__all__ = [
    "ALLOWANCE_MM",
    "AnyDesign",
    "BrokenDesign",
    "Carried",
    "Design",
    "Fault",
    "Parts",
    "Size",
    "SizeName",
    "Swatch",
    "Yarn",
    "design_schema",
    "dump",
    "faults_of",
    "load",
]
