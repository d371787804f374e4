"""The open design file: its schema, reading, writing."""

from rillstep.document.changes import ChangedLines, Changes, with_changes
from rillstep.document.design import ALLOWANCE_MM, Carried, Design, Size, SizeName
from rillstep.document.load import AnyDesign, BrokenDesign, Fault, design_schema, dump, faults_of, load
from rillstep.document.schema import Parts, Swatch, Weighing, Yarn

__all__ = [
    "ALLOWANCE_MM",
    "AnyDesign",
    "BrokenDesign",
    "Carried",
    "ChangedLines",
    "Changes",
    "Design",
    "Fault",
    "Parts",
    "Size",
    "SizeName",
    "Swatch",
    "Weighing",
    "Yarn",
    "design_schema",
    "dump",
    "faults_of",
    "load",
    "with_changes",
]
