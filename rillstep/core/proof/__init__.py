"""The proof: what is wrong with a text, where, in which size, and what would make it true."""

from rillstep.core.proof.advice import Hand, advice
from rillstep.core.proof.marks import MarkCounts, counts_of, kept_places
from rillstep.core.proof.prove import UNCHECKED, LineProof, Mark, Proof, prove, prove_as_read, prove_text
from rillstep.core.proof.questions import Question, questions
from rillstep.core.proof.reprint import Reprint, reader_text, reprint

__all__ = [
    "UNCHECKED",
    "LineProof",
    "Mark",
    "MarkCounts",
    "counts_of",
    "kept_places",
    "Proof",
    "Question",
    "Hand",
    "Reprint",
    "advice",
    "prove",
    "prove_as_read",
    "prove_text",
    "questions",
    "reader_text",
    "reprint",
]
