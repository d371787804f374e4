"""Pattern documents for readers: booklet, PDF, plain text, calendar."""
