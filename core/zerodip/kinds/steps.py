"""Steps and checks of a visit that several kinds of system share."""

from zerodip.kinds.visit_parts import CheckSpec, StepSpec
from zerodip.visit.slots import (
    BRIDGED,
    CONTACTS_BURNT,
    CORROSION,
    EARTH_MISSING,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_GAUGE,
    FOUND_RUN,
    GAUGE_ERROR,
    GAUGE_LOW,
    GAUGE_STUCK,
    GAUGE_USED,
    LEAKS_SEEN,
    NIPPLE_CLOGGED,
    RATING,
    RATING_LOW,
    SWAPPED,
    Slot,
    confirmation,
)

__all__ = [
    "AREA",
    "AT_SWITCH",
    "BYSTANDERS",
    "CELLAR",
    "COVER",
    "GAUGE_AT_ZERO",
    "HAND_OVER",
    "ISOLATED",
    "LABELLED",
    "OUTDOORS",
    "PIT",
    "POWER_OFF",
    "POWER_UP",
    "PROVED_DEAD",
    "READ",
    "SEEN_EARLIER",
    "TOLD",
    "WATCHED",
    "check",
]

POWER_OFF = StepSpec(
    "power_off",
    "Breaker off, both poles of 240 V; lock or tag it.",
    "A machine's own switch is not enough: its line terminals stay live.",
)
PROVED_DEAD = StepSpec(
    "proved_dead",
    "Prove it dead at the switch, meter tried on something live before and after.",
    after="power_off",
)
BYSTANDERS = StepSpec("bystanders", "Children, pets and bystanders away.")
PIT = StepSpec(
    "pit",
    "A well pit: aired, dry, somebody outside; otherwise stay out.",
    "A confined space that can flood, with no safe disconnect in it.",
    places=("unsaid", "pit"),
)
CELLAR = StepSpec(
    "cellar",
    "Cellar floor dry where you stand, good light, the drain free.",
    "Never touch a switch or a breaker from a wet floor.",
    places=("cellar",),
)
OUTDOORS = StepSpec(
    "outdoors",
    "No rain or snow on the open switch; frozen parts thawed first.",
    "Ice in the nipple or the tank makes every reading wrong.",
    places=("outdoors",),
)
POWER_UP = StepSpec(
    "power_up",
    "Cover back on, bystanders away; then power on, a hand on the switch for the first fill.",
    "Mains stands at open terminals. Stay at the gauge after any increase.",
)
# The way on where a drained tank reads as the gauge did before: by chance, or it is not drained.
GAUGE_AT_ZERO = StepSpec(
    "gauge_at_zero",
    "Drained, the gauge at zero, and the air valve still shows this.",
    "A stuck gauge or a shut valve may hide pressure: crack a fitting slowly.",
    "drained",
)
# What needs power was read before it was taken off.
SEEN_EARLIER = StepSpec("seen_earlier", "Seen earlier, with power on.")
# A switch with two set-points stands on a process line.
AREA = StepSpec(
    "area",
    "Ask whether the area is classed as hazardous.",
    "There no energised enclosure is ever opened: leave it to a licensed person.",
)
ISOLATED = StepSpec(
    "isolated",
    "Shut the switch off from its line, and vent it slowly to zero.",
    "A process line may hold hot, toxic or gas-filled pressure: its owner’s permit first.",
    "proved_dead",
)


def check(id: str, does: str, slot: Slot[bool] | None = None) -> CheckSpec:
    """A check before leaving, confirmed in a slot of its own unless an earlier step has one.

    Args:
        id: Its id.
        does: What to see to, in words.
        slot: The slot of an earlier step; one of its own if None.

    Returns:
        The check.
    """
    return CheckSpec(id, does, slot or confirmation(id, "hand_over"))


COVER = check("cover", "Cover on.")
LABELLED = check("label", "Label on the switch: cut-in, cut-out, pre-charge, date.")
TOLD = check(
    "customer_told", "Told what to watch for: clicking often, a dip at the taps, a wet switch."
)
HAND_OVER = (COVER, LABELLED, TOLD)

WATCHED: tuple[str, ...] = tuple(
    slot.name
    for slot in (
        GAUGE_USED,
        GAUGE_ERROR,
        GAUGE_LOW,
        FOUND_GAUGE,
        FOUND_CUT_IN,
        FOUND_CUT_OUT,
        FOUND_RUN,
    )
)
AT_SWITCH: tuple[str, ...] = tuple(
    slot.name
    for slot in (
        RATING,
        EARTH_MISSING,
        SWAPPED,
        BRIDGED,
        RATING_LOW,
        CONTACTS_BURNT,
        NIPPLE_CLOGGED,
        CORROSION,
    )
)
READ: tuple[str, ...] = (GAUGE_STUCK.name, *AT_SWITCH, LEAKS_SEEN.name)
