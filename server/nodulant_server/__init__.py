"""The Django project: stores jobs, signs people in, serves the API and the built front end."""
