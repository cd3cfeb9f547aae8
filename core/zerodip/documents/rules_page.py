"""`docs/rules.md`, made from the rules themselves."""

from collections.abc import Mapping
from typing import Any

from zerodip.kinds.registry import KINDS, AnyKind
from zerodip.rules.engine import Rule

__all__ = ["rules_page"]

_HEAD = """# The rules

Made from the kinds of system (`zerodip.kinds`) by `scripts/contract`; do not edit. Every rule
gives pass, caution, stop, not applicable, or *cannot tell* when a reading is missing. In the texts,
`{name:dimension}` stands for this system's figure in the units asked for. "From memory" marks a
published figure that was not checked against its document.
"""
_SENSES = {
    "at_most": "at most",
    "at_least": "at least",
    "below": "below",
    "above": "above",
    "is": "yes",
}


def rules_page(kinds: Mapping[str, AnyKind] = KINDS) -> str:
    """The page, in Markdown: every rule once, with the kinds that it is for."""
    used: dict[str, tuple[Rule[Any], list[str]]] = {}
    for kind in kinds.values():
        for rule in kind.rules:
            used.setdefault(rule.id, (rule, []))[1].append(kind.id)
    return _HEAD + "".join(_section(rule, ids) for rule, ids in used.values())


def _section(rule: Rule[Any], kinds: list[str]) -> str:
    limit = f"`{rule.measure.name}` {_SENSES[rule.sense]}" + (
        f" `{rule.limit.name}`" if rule.limit else ""
    )
    tolerable = f"; a caution as far as `{rule.tolerable.name}`" if rule.tolerable else ""
    needs = ", ".join(f"`{need.name}`" for need in rule.needs)
    lines = [
        f"\n## {rule.title}\n",
        f"- id: `{rule.id}`; for: {', '.join(kinds)}",
        f"- kept when {limit}, else {rule.broken.value}{tolerable}",
        f"- needs: {needs or 'nothing that may be missing'}",
        f"- source: {rule.source.line} ({rule.source.kind})",
        f"- broken, it says: **{rule.fails}** {rule.means}",
        f"- formula: {rule.formula}",
    ]
    return "\n".join(lines) + "\n"
