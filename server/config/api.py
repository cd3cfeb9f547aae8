"""The API: closed by default, each operation with its permission."""

from ninja import NinjaAPI
from papers.api import router as papers
from visits.api import router as visits

from people.api import router as people
from people.auth import SignedIn
from plants.api import router as plants

from .problems import install

api = NinjaAPI(title="Zero Dip", version="1", auth=SignedIn(), docs_url=None, openapi_url=None, urls_namespace="api")
install(api)
api.add_router("", people)
api.add_router("", plants)
api.add_router("", visits)
api.add_router("", papers)
