import django.db.models.deletion
import uuid
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("trips", "0001_initial"),
        ("trips", "0002_rows"),
    ]

    initial = True

    dependencies = [
        ('plans', '0001_squashed'),
        ('projects', '0001_squashed'),
        ('yards', '0001_squashed'),
    ]

    operations = [
        migrations.CreateModel(
            name='Trip',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('yard_name', models.CharField(max_length=100)),
                ('begun', models.DateTimeField(auto_now_add=True)),
                ('finished', models.DateTimeField(blank=True, null=True)),
                ('project_version', models.PositiveIntegerField()),
                ('unit', models.CharField(choices=[('in', 'in'), ('mm', 'mm')], max_length=2)),
                ('basis', models.JSONField(editable=False)),
                ('planned', models.JSONField(blank=True, default=dict, editable=False)),
                ('wanted', models.JSONField(blank=True, default=list, editable=False)),
                ('left_out', models.JSONField(blank=True, default=list, editable=False)),
                ('packs', models.JSONField(blank=True, default=list, editable=False)),
                ('short', models.JSONField(blank=True, default=list, editable=False)),
                ('unplanned', models.BooleanField(default=False, editable=False)),
                ('said', models.CharField(blank=True, max_length=500)),
                ('said_by', models.CharField(blank=True, max_length=36)),
                ('paid', models.JSONField(blank=True, default=dict, editable=False)),
                ('laid', models.JSONField(blank=True, default=list, editable=False)),
                ('put_away', models.JSONField(blank=True, default=list, editable=False)),
                ('plan', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='trips', to='plans.plan')),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='trips', to='projects.project')),
                ('yard', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='trips', to='yards.yard')),
            ],
            options={
                'ordering': ['-begun'],
            },
        ),
        migrations.CreateModel(
            name='TripEvent',
            fields=[
                ('id', models.UUIDField(primary_key=True, serialize=False)),
                ('number', models.PositiveIntegerField()),
                ('kind', models.CharField(max_length=10)),
                ('typed', models.JSONField(blank=True, default=dict)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('trip', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='events', to='trips.trip')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
            },
        ),
        migrations.AddConstraint(
            model_name='trip',
            constraint=models.UniqueConstraint(condition=models.Q(('finished', None)), fields=('project',), name='one_open_trip_a_project'),
        ),
        migrations.AddConstraint(
            model_name='tripevent',
            constraint=models.UniqueConstraint(fields=('trip', 'number'), name='one_event_of_a_number'),
        ),
    ]
