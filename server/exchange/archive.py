"""The archive format: a workspace, a site or a system with all that is on record, as one JSON file.
The shapes are here, and docs/archive.schema.json is made of them; what a system's file and a
visit's records may say is the core's to check."""

from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import (
    AwareDatetime,
    Base64Bytes,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    StringConstraints,
)

from calibrations.services import MOST_ENTRIES
from common.schemas import SystemFile, Units
from zerodip.bench.device import BenchDevice, Reference
from zerodip.fileformat.schema import part_schema, practice_schema

__all__ = [
    "FORMAT",
    "VERSION",
    "Archive",
    "GaugeItem",
    "Item",
    "PracticeItem",
    "ReferenceItem",
    "SiteHead",
    "SwitchItem",
    "SystemItem",
    "VisitItem",
    "archive_schema",
]

FORMAT, VERSION = "zerodip-archive", 1
_EARLIEST = datetime(1950, 1, 1, tzinfo=UTC)


def _likely(value: Any) -> Any:
    """A time within living memory and not after tomorrow."""
    if isinstance(value, str):
        try:
            at = datetime.fromisoformat(value)
        except ValueError:
            return value  # refused by the type, with its own words
        if at.tzinfo is not None and not _EARLIEST <= at <= datetime.now(UTC) + timedelta(days=1):
            raise ValueError("must lie between 1950 and tomorrow")
    return value


def _likely_day(value: Any) -> Any:
    """A day within living memory and not after tomorrow."""
    try:
        on = date.fromisoformat(value)
    except (TypeError, ValueError):
        return value  # refused by the type, with its own words
    if not _EARLIEST.date() <= on <= datetime.now(UTC).date() + timedelta(days=1):
        raise ValueError("must lie between 1950 and tomorrow")
    return value


Day = Annotated[date, BeforeValidator(_likely_day)]
Time = Annotated[AwareDatetime, BeforeValidator(_likely)]
Name = Annotated[
    str, StringConstraints(min_length=1, max_length=80, pattern=r"^[^\x00-\x1f\x7f]+$")
]
By = Annotated[str, StringConstraints(max_length=150, pattern=r"^[^\x00-\x1f\x7f]*$")]
Signed = Annotated[str, StringConstraints(max_length=80, pattern=r"^[^\x00-\x1f\x7f]*$")]
Remark = Annotated[str, StringConstraints(max_length=400, pattern=r"^[^\x00]*$")]
Finite = Annotated[float, Field(allow_inf_nan=False)]


class Item(BaseModel):
    """A part of an archive: no field that is not in the format."""

    model_config = ConfigDict(extra="forbid")


class EntryItem(Item):
    """One record of a visit: its slot and value (docs: a visit's records), what it corrects, when
    and by whom."""

    id: UUID
    slot: str = Field(max_length=40)
    value: Any = None
    supersedes: UUID | None = None
    at: Time
    by: By = ""
    by_gauge: str = Field(default="", max_length=40)


class PhotoItem(Item):
    """A photo, its bytes in base 64."""

    id: UUID
    plate: str = Field(max_length=20)
    kind: Literal["image/jpeg", "image/png"]
    at: Time
    data: Base64Bytes


class VisitItem(Item):
    """A visit with its records, oldest first; `file` is the system's file as it was when it was
    closed, `learned` what its tries taught of the nuts (Pa a turn). `slopes` is how that was
    written before it was kept by nut, and is still read."""

    id: UUID
    opened_at: Time
    closed_at: Time | None = None
    by: By = ""
    file: dict[str, Any] | None = None
    learned: list[dict[str, Any]] = Field(default=[], max_length=16)
    slopes: list[Finite] = Field(default=[], max_length=16)
    entries: list[EntryItem] = Field(default=[], max_length=5000)
    photos: list[PhotoItem] = Field(default=[], max_length=100)


class DecisionItem(Item):
    """Settings decided on, with the file as it was then and the figures shown (SI)."""

    id: UUID
    file: dict[str, Any]
    figures: dict[str, Finite | None] = {}
    verdict: str = Field(max_length=16)
    made_at: Time
    by: By = ""


class SystemItem(Item):
    """A system: its file (docs/system.schema.json) and what is on record."""

    id: UUID
    file: dict[str, Any]
    retired_at: Time | None = None
    decisions: list[DecisionItem] = Field(default=[], max_length=5000)
    visits: list[VisitItem] = Field(default=[], max_length=5000)


class CalibrationEntryItem(Item):
    """One entry of a calibration: what was confirmed, read (docs/calibration.schema.json's runs,
    reading by reading) or turned; what it corrects, when and by whom."""

    id: UUID
    value: dict[str, Any]
    supersedes: UUID | None = None
    at: Time
    by: By = ""


class CalibrationItem(Item):
    """A calibration with its entries, oldest first; the switch and the reference as they were, and
    which of the gauges on the wire that is."""

    id: UUID
    switch: dict[str, Any]
    reference: dict[str, Any]
    gauge: UUID | None = None
    on: Day
    opened_at: Time
    by: By = ""
    closed_at: Time | None = None
    signed_by: Signed = ""
    remark: Remark = ""
    entries: list[CalibrationEntryItem] = Field(default=[], max_length=MOST_ENTRIES)


class SwitchItem(Item):
    """A set-point switch with its calibrations."""

    id: UUID
    switch: dict[str, Any]
    retired_at: Time | None = None
    calibrations: list[CalibrationItem] = Field(default=[], max_length=1000)


class SiteHead(Item):
    """A site without its systems and switches."""

    id: UUID
    name: Name
    units: Units = "us"


class SiteItem(SiteHead):
    """A site with its systems and its set-point switches."""

    systems: list[SystemItem] = []
    switches: list[SwitchItem] = []


class GaugeItem(Item):
    """A gauge owned."""

    id: UUID
    gauge: dict[str, Any]
    wire: dict[str, Any] | None = None
    checked_on: date | None = None
    retired: bool = False


class ReferenceItem(Item):
    """A reference gauge of the set-point bench; which of the gauges on the wire it is."""

    id: UUID
    reference: dict[str, Any]
    gauge: UUID | None = None
    retired: bool = False


class PracticeItem(Item):
    """A workspace's practice and the nominal tank sizes it buys (m³)."""

    practice: dict[str, Any]
    sizes_m3: list[Finite] | None = None


class Archive(Item):
    """A Zero Dip archive. Everything is SI, times with their offset (ISO 8601)."""

    format: Literal["zerodip-archive"]
    version: Literal[1]
    made_at: Time | None = None
    scope: Literal["workspaces", "sites", "systems"] = "workspaces"
    practice: PracticeItem | None = None
    gauges: list[GaugeItem] = []
    references: list[ReferenceItem] = []
    sites: list[SiteItem] = []


def archive_schema() -> dict[str, Any]:
    """JSON Schema of an archive, those of the core's own parts within it."""
    made = Archive.model_json_schema()
    definitions = made["$defs"]
    system = SystemFile.model_json_schema()
    definitions["SystemFile"] = system
    for name in ("SystemItem", "DecisionItem"):
        definitions[name]["properties"]["file"] = {"$ref": "#/$defs/SystemFile"}
    definitions["VisitItem"]["properties"]["file"] = {
        "anyOf": [{"$ref": "#/$defs/SystemFile"}, {"type": "null"}]
    }
    definitions["PracticeItem"]["properties"]["practice"] = practice_schema()
    switch, reference = part_schema(BenchDevice, "Switch"), part_schema(Reference, "Reference")
    for part in (switch, reference):
        definitions |= part.pop("$defs")
        del part["$schema"]
    for name in ("SwitchItem", "CalibrationItem"):
        definitions[name]["properties"]["switch"] = switch
    for name in ("ReferenceItem", "CalibrationItem"):
        definitions[name]["properties"]["reference"] = reference
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **made,
        "title": "Zero Dip archive",
    }
