"""Lists of words and of phrases, written as they are read."""


def word_list(text: str) -> tuple[str, ...]:
    """The words of a text, parted by spaces."""
    return tuple(text.split())


def phrase_list(text: str) -> tuple[str, ...]:
    """The phrases of a text, parted by bars: "to join | to close | to close round"."""
    return tuple(phrase.strip() for phrase in text.split("|"))
