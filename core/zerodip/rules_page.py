"""`docs/rules.md`, made from the rules themselves."""

from collections.abc import Iterable

from .rulebook import RULES
from .rules import Rule

__all__ = ["rules_page"]

_HEAD = """# The rules

Made from `zerodip.rulebook` by `scripts/contract`; do not edit. Every rule gives pass, caution, stop, not applicable, or
*cannot tell* when a reading is missing. In the texts, `{f.name:dimension}` stands for this system's figure in the units
asked for. "From memory" marks a published figure that was not checked against its document.
"""
_SENSES = {"at_most": "at most", "at_least": "at least", "below": "below", "is": "yes"}


def rules_page(rules: Iterable[Rule] = RULES) -> str:
    """The page, in Markdown."""
    return _HEAD + "".join(_section(rule) for rule in rules)


def _section(rule: Rule) -> str:
    limit = f"`{rule.measure}` {_SENSES[rule.sense]}" + (f" `{rule.limit}`" if rule.limit else "")
    tolerable = f"; a caution as far as `{rule.tolerable}`" if rule.tolerable else ""
    lines = [
        f"\n## {rule.title}\n",
        f"- id: `{rule.id}`; for: {', '.join(rule.kinds)}",
        f"- kept when {limit}, else {rule.broken.value}{tolerable}",
        f"- needs: {', '.join(f'`{name}`' for name in rule.needs) or 'nothing that may be missing'}",
        f"- source: {rule.source.line} ({rule.source.kind})",
        f"- broken, it says: **{rule.fails}** {rule.advice}",
        f"- formula: {rule.formula}",
    ]
    return "\n".join(lines) + "\n"
