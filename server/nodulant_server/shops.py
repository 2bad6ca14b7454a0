"""Find a shop by its name, or make it."""

from nodulant_server.models import Workshop

FIRST = "The shop"


def shop_named(name: str = "") -> Workshop:
    """The shop of that name, made where there is none; the first one, or a new one, where no name is given."""
    if not name:
        return Workshop.objects.order_by("pk").first() or Workshop.objects.create(name=FIRST)
    return Workshop.objects.filter(name=name).order_by("pk").first() or Workshop.objects.create(name=name)
