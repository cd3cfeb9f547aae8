"""Systems as a device holds them."""

from collections import defaultdict
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from django.utils import timezone

from accounts.models import Workspace, shown
from accounts.permissions import Actor
from common.schemas import SystemFile
from gauges.selectors import gauges_for_actor
from gauges.serializers import GaugeOut, gauge_out
from practice.selectors import practices_for_actor
from practice.serializers import practice_out
from sites.models import System
from sites.schemas import SiteOut
from sites.selectors import decisions_of, workspaces_for_actor
from sites.serializers import decision_out
from visits.experience import met_by_kind, met_in
from visits.models import Photo, Visit
from visits.next_checks import past_of
from visits.schemas import EntryOut
from visits.selectors import asked_of, learned_on, record_of
from visits.serializers import photo_out
from visits.timeline import logged_moments
from zerodip.fileformat.document import plain
from zerodip.trends.history import Past

from .schemas import DeviceOut, HeldStamp, HeldSystemOut, HeldVisitOut, HeldWorkspaceOut
from .selectors import held_visits, stamps, wanted_systems

__all__ = ["DAYS", "device_out", "held_systems"]

DAYS = 30  # without contact: then a device lets go of what it holds
_DECISIONS_HELD = 5


def device_out(actor: Actor) -> DeviceOut:
    """Whose device it is, and what there is to hold."""
    gauges: dict[UUID, list[GaugeOut]] = defaultdict(list)
    for gauge in gauges_for_actor(actor):
        gauges[gauge.workspace_id].append(gauge_out(gauge))
    practices = {each.workspace_id: each for each in practices_for_actor(actor)}
    return DeviceOut.model_construct(
        person=actor.user.pk,
        name=actor.user.shown,
        at=timezone.now(),
        days=DAYS,
        workspaces=[
            _workspace(actor, each, practices[each.pk], gauges[each.pk])
            for each in workspaces_for_actor(actor)
        ],
        systems=[HeldStamp(id=id, stamp=stamp) for id, stamp in stamps(actor).items()],
    )


def _workspace(
    actor: Actor, workspace: Workspace, practice: Any, gauges: list[GaugeOut]
) -> HeldWorkspaceOut:
    return HeldWorkspaceOut(
        id=workspace.pk,
        name=workspace.name,
        may_add=actor.may("systems.add", workspace.pk),
        may_change=actor.may("visits.change", workspace.pk),
        practice=practice_out(actor, practice),
        gauges=gauges,
        met=met_by_kind(workspace.pk),
    )


def held_systems(actor: Actor, ids: Sequence[UUID]) -> list[HeldSystemOut]:
    """Those of the systems that the actor may see, whole."""
    systems = wanted_systems(actor, ids)
    words, visits = stamps(actor), held_visits(systems)
    past = past_of(each.pk for each in systems)
    return [
        _held(actor, each, words.get(each.pk, ""), visits[each.pk], past.get(each.pk, []))
        for each in systems
    ]


def _held(
    actor: Actor, system: System, stamp: str, visits: Sequence[Visit], past: Sequence[Past]
) -> HeldSystemOut:
    held = {str(visit.pk) for visit in visits}
    earlier = [each for each in past if each.visit not in held]
    workspace = system.site.workspace_id
    return HeldSystemOut.model_construct(
        id=system.pk,
        stamp=stamp,
        name=system.name,
        site=SiteOut.from_orm(system.site),
        workspace=workspace,
        version=system.version,
        changed_at=system.changed_at,
        retired=system.retired_at is not None,
        may_change=actor.may("decisions.save", workspace),
        may_visit=actor.may("visits.change", workspace),
        document=SystemFile(system.document),
        decisions=[decision_out(each) for each in decisions_of(system, _DECISIONS_HELD)],
        moments=logged_moments(system),
        earlier=earlier,
        learned=_learned_earlier(system, visits) if earlier else [],
        left=asked_of(visits[-1]).last if earlier and visits else {},
        visits=[_visit(system, each) for each in visits],
    )


def _learned_earlier(system: System, held: Sequence[Visit]) -> list[dict[str, Any]]:
    """What the visits before those held taught of the nuts."""
    before = Visit.objects.filter(system=system).exclude(pk__in=[each.pk for each in held])
    return [plain(slope) for slope in learned_on(before)]


def _visit(system: System, visit: Visit) -> HeldVisitOut:
    closed, kind = visit.closed_at, system.summary["kind"]
    photos = Photo.objects.filter(visit=visit).only("id", "plate", "visit_id")
    records = map(record_of, visit.entries.all())
    return HeldVisitOut.model_construct(
        id=visit.pk,
        opened_at=visit.opened_at,
        opened_by=shown(visit.opened_by, visit.by),
        closed_at=visit.closed_at,
        document=None if visit.document is None else SystemFile(visit.document),
        learned=visit.learned,
        met=met_in(system.site.workspace_id, kind, closed) if closed else None,
        entries=[EntryOut.model_validate(vars(record)) for record in records],
        photos=[photo_out(photo) for photo in photos],
    )
