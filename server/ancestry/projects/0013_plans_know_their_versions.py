from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [
        ("plans", "0006_rows"),
        ("projects", "0012_rows"),
    ]

    operations = [
        migrations.RemoveField(
            model_name='projectrevision',
            name='plan',
        ),
    ]
