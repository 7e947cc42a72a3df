
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('plans', '0001_squashed'),
    ]

    operations = [
        migrations.AlterField(
            model_name='plan',
            name='made_by',
            field=models.PositiveSmallIntegerField(default=3, editable=False),
        ),
    ]
