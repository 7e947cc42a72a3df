
from django.db import migrations, models


def claim_nothing_without_a_proof(apps, schema_editor):
    apps.get_model('plans', 'Plan').objects.filter(proven=True).update(proven=False)


class Migration(migrations.Migration):

    dependencies = [
        ('plans', '0003_whether_it_is_proven'),
    ]

    operations = [
        migrations.AlterField(
            model_name='plan',
            name='made_by',
            field=models.PositiveSmallIntegerField(default=4, editable=False),
        ),
        migrations.RunPython(claim_nothing_without_a_proof, migrations.RunPython.noop),
    ]
