"""Drawings of a bag to scale, from its worked rounds."""

from rillstep.core.drawings.outlines import Drawing, Length, Outline, Point, silhouette
from rillstep.core.drawings.views import drawings_of

__all__ = ["Drawing", "Outline", "Point", "Length", "drawings_of", "silhouette"]
