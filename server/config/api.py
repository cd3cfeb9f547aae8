"""The API: closed by default, each operation with its permission."""

from exchange.api import router as exchange
from ninja import NinjaAPI
from papers.api import router as papers
from visits.api import router as visits

from people.api import router as people
from people.auth import SignedIn
from people.members_api import router as members
from plants.api import router as plants
from plants.gauges_api import router as gauges

from .problems import install

api = NinjaAPI(title="Zero Dip", version="1", auth=SignedIn(), docs_url=None, openapi_url=None, urls_namespace="api")
install(api)
api.add_router("", people)
api.add_router("", plants)
api.add_router("", members)
api.add_router("", gauges)
api.add_router("", visits)
api.add_router("", papers)
api.add_router("", exchange)
