"""Routes: the API, and the built front end for everything else."""

from django.urls import path, re_path

from nodulant_server.api.root import api
from nodulant_server.front import look, page

handler500 = "nodulant_server.api.problems.broken"
urlpatterns = [path("api/", api.urls), path("look/<str:token>", look), re_path(r"^(?!api/|assets/).*$", page)]
