"""The API: every route needs sign-in unless it says otherwise."""

from ninja.security import django_auth

from nodulant_server.api import choices, compute, files, finders, jobs, options, problems, session, sweep, work

api = problems.Api(title="Nodulant", version="1", auth=django_auth, docs_url=None, parser=problems.Texts())
api.add_router("/session", session.router)
api.add_router("", jobs.router)
api.add_router("", options.router)
api.add_router("", choices.router)
api.add_router("", compute.router)
api.add_router("", files.router)
api.add_router("", finders.router)
api.add_router("", sweep.router)
api.add_router("", work.router)
problems.install(api)
