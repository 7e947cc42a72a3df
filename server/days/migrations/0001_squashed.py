import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("days", "0001_initial"),
    ]

    initial = True

    dependencies = [
        ('projects', '0001_squashed'),
    ]

    operations = [
        migrations.CreateModel(
            name='Progress',
            fields=[
                ('project', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, primary_key=True, related_name='progress', serialize=False, to='projects.project')),
            ],
        ),
        migrations.CreateModel(
            name='StepEvent',
            fields=[
                ('id', models.UUIDField(primary_key=True, serialize=False)),
                ('number', models.PositiveIntegerField()),
                ('kind', models.CharField(max_length=10)),
                ('typed', models.JSONField(blank=True, default=dict)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('progress', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='events', to='days.progress')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
                'constraints': [models.UniqueConstraint(fields=('progress', 'number'), name='one_step_event_of_a_number')],
            },
        ),
    ]
