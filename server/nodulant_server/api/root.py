"""The API: every route needs sign-in unless it says otherwise."""

from nodulant_server.api import (
    choices,
    compute,
    files,
    finders,
    floor,
    instruments,
    jobs,
    options,
    outside,
    people,
    practice,
    problems,
    prove,
    schedule,
    server,
    session,
    sweep,
    work,
)
from nodulant_server.api.access import Signed

api = problems.Api(title="Nodulant", version="1", auth=Signed(), docs_url=None, parser=problems.Texts())
api.add_router("/session", session.router)
api.add_router("", people.router)
api.add_router("", server.router)
api.add_router("", jobs.router)
api.add_router("", options.router)
api.add_router("", choices.router)
api.add_router("", compute.router)
api.add_router("", files.router)
api.add_router("", finders.router)
api.add_router("", outside.router)
api.add_router("", sweep.router)
api.add_router("", work.router)
api.add_router("", floor.router)
api.add_router("", schedule.router)
api.add_router("", prove.router)
api.add_router("", practice.router)
api.add_router("", instruments.router)
problems.install(api)
