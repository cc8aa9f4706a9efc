import hashlib
import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


def hashes(apps, schema_editor):
    """Of the pictures that were there before; the trigger that keeps them is put again after the migration."""
    with schema_editor.connection.cursor() as cursor:
        on = ' ON "sheets_photo"' if schema_editor.connection.vendor == "postgresql" else ""
        cursor.execute(f'DROP TRIGGER IF EXISTS "sheets_photo_no_update"{on}')
    for photo in apps.get_model("photos", "Photo").objects.filter(sha256="").iterator(chunk_size=20):
        photo.sha256 = hashlib.sha256(bytes(photo.image)).hexdigest()
        photo.save(update_fields=["sha256"])


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        ("crews", "0002_rules_of_a_proof"),
        ("kit", "0003_tester_faults"),
        ("sheets", "0002_photos_have_an_app"),
        ("sites", "0007_protected_by_and_noticed"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="Photo",
                    fields=[
                        ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                        ("image", models.BinaryField()),
                        ("kind", models.CharField(max_length=20)),
                        ("taken_at", models.DateTimeField()),
                        ("by_name", models.CharField(blank=True, max_length=160)),
                        ("crew", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="photos", to="crews.crew")),
                    ],
                    options={"db_table": "sheets_photo"},
                ),
            ],
        ),
        migrations.AddField("photo", "sha256", models.CharField(default="", max_length=64)),
        migrations.RunPython(hashes, migrations.RunPython.noop),
        migrations.CreateModel(
            name="PhotoOn",
            fields=[
                ("recorded_at", models.DateTimeField(auto_now_add=True)),
                ("by_name", models.CharField(blank=True, max_length=160)),
                ("number", models.BigAutoField(primary_key=True, serialize=False)),
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, unique=True)),
                ("at", models.DateTimeField()),
                ("on", models.CharField(max_length=12)),
                ("of", models.UUIDField(db_index=True)),
                ("note", models.CharField(blank=True, max_length=400)),
                ("by", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, to=settings.AUTH_USER_MODEL)),
                ("circuit", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="photos", to="sites.circuit")),
                ("photo", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="hung", to="photos.photo")),
                ("point", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="photos", to="sites.point")),
                ("site", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="photos", to="sites.site")),
                ("tester", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="photos", to="kit.tester")),
            ],
            options={"ordering": ["at", "number"], "abstract": False},
        ),
    ]
