"""Lines read by the forms of the language."""
