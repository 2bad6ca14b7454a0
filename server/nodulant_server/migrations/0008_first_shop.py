"""Everybody and every job of before is of one shop."""

from django.db import migrations

ORDER = ("owner", "helper", "reader")


def into_one_shop(apps, schema_editor):
    User = apps.get_model("auth", "User")
    Job = apps.get_model("nodulant_server", "Job")
    Member = apps.get_model("nodulant_server", "Member")
    Workshop = apps.get_model("nodulant_server", "Workshop")
    if not Job.objects.exists() and not User.objects.exists():
        return
    shop = Workshop.objects.create(name="The shop")
    for user in User.objects.order_by("pk"):
        groups = set(user.groups.values_list("name", flat=True))
        role = next((name for name in ORDER if name in groups), "reader")
        Member.objects.create(workshop=shop, user=user, role=role)
    Job.objects.update(workshop=shop)


class Migration(migrations.Migration):
    dependencies = [
        ("nodulant_server", "0007_shops_and_people"),
        ("auth", "0012_alter_user_first_name_max_length"),
    ]
    operations = [migrations.RunPython(into_one_shop, migrations.RunPython.noop)]
