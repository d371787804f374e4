"""A design with all that follows from it: the only source of what is shown, printed, sent to phones and said by the
command line."""

from rillstep.design.facts import Facts, facts_of
from rillstep.design.proving import allowance_of, proved

__all__ = ["Facts", "allowance_of", "facts_of", "proved"]
