"""Files of other programs, each written by a library and taken as text again."""
