
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('plans', '0002_parts_of_the_same_boards_together'),
    ]

    operations = [
        migrations.AddField(
            model_name='plan',
            name='proven',
            field=models.BooleanField(default=False, editable=False),
        ),
    ]
