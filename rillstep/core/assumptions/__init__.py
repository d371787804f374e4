"""Words that are not understood, assumed to mean what comes out by working the text, and asked about."""

from rillstep.core.assumptions.asked import Asked, UnknownWords, ask
from rillstep.core.assumptions.missing_numbers import MissingNumber
from rillstep.core.assumptions.tried_meanings import TriedMeaning

__all__ = ["Asked", "MissingNumber", "TriedMeaning", "UnknownWords", "ask"]
