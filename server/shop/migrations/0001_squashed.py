import django.db.models.deletion
import uuid
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("shop", "0001_initial"),
    ]

    initial = True

    dependencies = [
        ('plans', '0001_squashed'),
        ('projects', '0001_squashed'),
    ]

    operations = [
        migrations.CreateModel(
            name='Cutting',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('begun', models.DateTimeField(auto_now_add=True)),
                ('finished', models.DateTimeField(blank=True, null=True)),
                ('project_version', models.PositiveIntegerField()),
                ('unit', models.CharField(choices=[('in', 'in'), ('mm', 'mm')], max_length=2)),
                ('notation', models.CharField(choices=[('1/16', '1/16'), ('1/32', '1/32'), ('1/64', '1/64'), ('decimal', 'decimal'), ('feet', 'feet'), ('mm', 'mm')], max_length=8)),
                ('digest', models.CharField(editable=False, max_length=64)),
                ('basis', models.JSONField(editable=False)),
                ('boards', models.JSONField(editable=False)),
                ('parts', models.JSONField(editable=False)),
                ('supply', models.JSONField(editable=False)),
                ('not_yet', models.JSONField(blank=True, default=list, editable=False)),
                ('plan', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='cuttings', to='plans.plan')),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='cuttings', to='projects.project')),
            ],
            options={
                'ordering': ['-begun'],
            },
        ),
        migrations.CreateModel(
            name='CuttingEvent',
            fields=[
                ('id', models.UUIDField(primary_key=True, serialize=False)),
                ('number', models.PositiveIntegerField()),
                ('kind', models.CharField(max_length=10)),
                ('typed', models.JSONField(blank=True, default=dict)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('came_to', models.JSONField(blank=True, editable=False, null=True)),
                ('cutting', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='events', to='shop.cutting')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
            },
        ),
        migrations.AddConstraint(
            model_name='cutting',
            constraint=models.UniqueConstraint(condition=models.Q(('finished', None)), fields=('project',), name='one_open_cutting_a_project'),
        ),
        migrations.AddConstraint(
            model_name='cuttingevent',
            constraint=models.UniqueConstraint(fields=('cutting', 'number'), name='one_cutting_event_of_a_number'),
        ),
    ]
