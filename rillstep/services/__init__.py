"""Use cases: what the web, the command line and the demo call."""
