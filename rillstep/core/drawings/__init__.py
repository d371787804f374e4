"""Drawings of a bag to scale, from its worked rounds."""

from rillstep.core.drawings.outlines import Drawing, Outline, Point, Span, silhouette
from rillstep.core.drawings.views import drawings_of

__all__ = ["Drawing", "Outline", "Point", "Span", "drawings_of", "silhouette"]
