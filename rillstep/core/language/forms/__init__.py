"""Tables of forms, one subject each."""
