"""Words of one line: its tokens, what they stand for, and the cursor with the ledger of what was read."""
