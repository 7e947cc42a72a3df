import django.db.models.deletion
import uuid
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("rack", "0001_rack"),
        ("rack", "0002_cut"),
        ("rack", "0003_names_spelled_one_way"),
        ("rack", "0004_rows"),
    ]

    initial = True

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='Rack',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=100)),
                ('version', models.PositiveIntegerField(default=1)),
                ('created', models.DateTimeField(auto_now_add=True)),
                ('updated', models.DateTimeField(auto_now=True)),
                ('next_number', models.PositiveIntegerField(default=1)),
                ('cut_plans', models.JSONField(blank=True, default=list)),
                ('owner', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.CreateModel(
            name='RackBoard',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('stock', models.CharField(blank=True, default='', max_length=100)),
                ('length', models.CharField(blank=True, default='', max_length=60)),
                ('thickness', models.CharField(blank=True, default='', max_length=60)),
                ('width', models.CharField(blank=True, default='', max_length=60)),
                ('width_middle', models.CharField(blank=True, default='', max_length=60)),
                ('width_end', models.CharField(blank=True, default='', max_length=60)),
                ('crook', models.CharField(blank=True, default='', max_length=60)),
                ('bow', models.CharField(blank=True, default='', max_length=60)),
                ('cup', models.CharField(blank=True, default='', max_length=60)),
                ('twist', models.CharField(blank=True, default='', max_length=10)),
                ('flaws', models.CharField(blank=True, default='', max_length=200)),
                ('place', models.CharField(blank=True, default='', max_length=200)),
                ('note', models.CharField(blank=True, default='', max_length=200)),
                ('number', models.PositiveIntegerField()),
                ('stock_key', models.CharField(editable=False, max_length=100)),
                ('length_ticks', models.PositiveBigIntegerField(editable=False)),
                ('rack', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='boards', to='rack.rack')),
            ],
            options={
                'ordering': ['number'],
            },
        ),
        migrations.CreateModel(
            name='RackRevision',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('number', models.PositiveIntegerField()),
                ('label', models.CharField(max_length=200)),
                ('snapshot', models.JSONField()),
                ('change_id', models.UUIDField(null=True)),
                ('undo_to', models.PositiveIntegerField(null=True)),
                ('redo_to', models.PositiveIntegerField(null=True)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('subject', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='revisions', to='rack.rack')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
            },
        ),
        migrations.AddConstraint(
            model_name='rack',
            constraint=models.UniqueConstraint(fields=('owner',), name='one_rack_a_builder'),
        ),
        migrations.AddConstraint(
            model_name='rackboard',
            constraint=models.UniqueConstraint(fields=('rack', 'number'), name='one_rack_board_of_a_number'),
        ),
        migrations.AddIndex(
            model_name='rackrevision',
            index=models.Index(fields=['subject', 'change_id'], name='rackrevision_change'),
        ),
        migrations.AddConstraint(
            model_name='rackrevision',
            constraint=models.UniqueConstraint(fields=('subject', 'number'), name='one_rack_revision_a_version'),
        ),
    ]
