"""Clauses of one line: what is worked, where, how often, and what is stated of it."""
