"""Prints the catalogue as a page: `python -m rillstep.core.proof.catalogue`."""

from rillstep.core.proof.catalogue import as_markdown

print(as_markdown(), end="")
