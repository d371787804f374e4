"""Rillstep: grades a crochet bag into sizes, proves every number, writes the instructions."""

__version__ = "0.2.0"
