"""Words of a diagnosis that several kinds share, as one kind says them."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Any

from zerodip.diagnosis.parts import Cause, Item

__all__ = ["causes_in_words", "items_in_words"]

_OF_ITEMS = ("title", "asks", "how", "tools", "caution", "stop")


def items_in_words(items: Iterable[Item], words: Mapping[str, str]) -> tuple[Item, ...]:
    """Items with their texts as a kind of system says them.

    Args:
        items: The items.
        words: What stands for what, in that order.

    Returns:
        The items, each as it was but for its texts.
    """
    return tuple(replace(each, **_texts(each, words)) for each in items)


def _texts(item: Item, words: Mapping[str, str]) -> dict[str, Any]:
    return {name: _said(getattr(item, name), words) for name in _OF_ITEMS}


def causes_in_words(
    causes: Iterable[Cause[Any]], words: Mapping[str, str]
) -> tuple[Cause[Any], ...]:
    """Causes with their texts, and their remedies', as a kind of system says them.

    Args:
        causes: The causes.
        words: What stands for what, in that order.

    Returns:
        The causes, each as it was but for its texts.
    """
    return tuple(
        replace(
            each,
            title=_said(each.title, words),
            danger=_said(each.danger, words),
            if_left=_said(each.if_left, words),
            remedy=replace(each.remedy, says=_said(each.remedy.says, words)),
        )
        for each in causes
    )


def _said(text: str, words: Mapping[str, str]) -> str:
    for usual, here in words.items():
        text = text.replace(usual, here)
    return text
