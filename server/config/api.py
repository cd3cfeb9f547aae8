"""The API: closed by default, each operation with its permission."""

from typing import Any

from ninja import NinjaAPI

from accounts.account_api import router as account
from accounts.api import router as session
from accounts.auth import SignedIn
from accounts.members_api import router as members
from calibrations.api import router as calibrations
from common.errors import install
from common.incoming import Checked
from device.api import router as device
from documents.api import router as documents
from exchange.api import router as exchange
from gauges.api import router as gauges
from live.api import router as live
from live.bench_api import router as live_bench
from practice.api import router as practice
from recordings.api import router as recordings
from sites.api import router as sites
from sites.decide_api import router as decide
from visits.api import router as visits
from visits.trouble_api import router as trouble

from .openapi import describe_refusals, name_the_types

__all__ = ["api"]

ROUTERS = (
    session,
    account,
    sites,
    decide,
    practice,
    members,
    gauges,
    visits,
    trouble,
    documents,
    device,
    exchange,
    recordings,
    live,
    live_bench,
    calibrations,
)


class _Api(NinjaAPI):
    def get_openapi_schema(self, **options: Any) -> Any:
        """The description, with the refusals and the slots named."""
        return name_the_types(describe_refusals(super().get_openapi_schema(**options)))


api = _Api(
    title="Zero Dip",
    version="1",
    auth=SignedIn(),
    docs_url=None,
    openapi_url=None,
    urls_namespace="api",
    parser=Checked(),
)
install(api)
for router in ROUTERS:
    api.add_router("", router)
