"""The language, described once: what may stand where, as tables of forms, and one matcher for all of them.

A form says over words and other forms what may stand there, what it builds, and gives an example that it reads; the
examples are its test.
"""
