"""The demo: a database of its own, made-up data, and a running server."""
