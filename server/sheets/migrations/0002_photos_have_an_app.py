from django.db import migrations


class Migration(migrations.Migration):
    """The pictures' table stays where it is, and is the app `photos`'s from now on."""

    dependencies = [("sheets", "0001_sheets")]

    operations = [
        migrations.SeparateDatabaseAndState(state_operations=[migrations.DeleteModel("Photo")]),
    ]
