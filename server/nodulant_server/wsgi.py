"""WSGI entry point."""

import gc

from django.core.wsgi import get_wsgi_application

application = get_wsgi_application()
# what is loaded stays: the collector need not look through it again while a hand drags
gc.collect()
gc.freeze()
