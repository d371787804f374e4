"""The texts of the demo's bags: as their designer typed them, in one size, and as they were graded."""

from importlib.resources import files


def bag_text(name: str) -> str:
    """The text of a bag as it was graded."""
    return (files("rillstep.demo") / "bags" / f"{name}.txt").read_text("utf-8")


def sample_text(name: str) -> str:
    """The text of a bag as it was typed: one size, no names."""
    return (files("rillstep.demo") / "bags" / "samples" / f"{name}.txt").read_text("utf-8")
