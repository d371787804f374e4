"""Version 1 of the design file, a tote by fields: its reader, and the text that it stands for.

The solver and the writer of totes are used here alone: they say what an old file means.
"""

from rillstep.document.version1.document import ToteDesign
from rillstep.document.version1.upgrade import upgraded

__all__ = ["ToteDesign", "upgraded"]
