"""Words that begin a line, as they stand within a sentence."""

__all__ = ["within"]


def within(words: str) -> str:
    """Words with a small first letter.

    Args:
        words: Words that may stand at the beginning.

    Returns:
        The same within a sentence.
    """
    return words[:1].lower() + words[1:]
