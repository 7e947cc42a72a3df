import django.db.models.deletion
import uuid
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("tools", "0001_initial"),
        ("tools", "0002_from_settings"),
    ]

    initial = True

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='Toolbox',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=100)),
                ('version', models.PositiveIntegerField(default=1)),
                ('created', models.DateTimeField(auto_now_add=True)),
                ('updated', models.DateTimeField(auto_now=True)),
                ('owner', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.CreateModel(
            name='OwnedTool',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('position', models.PositiveIntegerField()),
                ('kind', models.CharField(choices=[('miter saw', 'miter saw'), ('table saw', 'table saw'), ('circular saw', 'circular saw'), ('band saw', 'band saw'), ('jig saw', 'jig saw'), ('sled', 'sled'), ('wedge', 'wedge'), ('straight edge', 'straight edge'), ('planer', 'planer'), ('jointer', 'jointer'), ('router', 'router'), ('router table', 'router table'), ('drill', 'drill'), ('drill press', 'drill press'), ('clamps', 'clamps'), ('plug cutters', 'plug cutters'), ('packers', 'packers'), ('outfeed', 'outfeed'), ('helper', 'helper')], max_length=20)),
                ('name', models.CharField(blank=True, max_length=60)),
                ('limits', models.JSONField(blank=True, default=dict)),
                ('toolbox', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='tools', to='tools.toolbox')),
            ],
            options={
                'ordering': ['position'],
            },
        ),
        migrations.CreateModel(
            name='ToolboxRevision',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('number', models.PositiveIntegerField()),
                ('label', models.CharField(max_length=200)),
                ('snapshot', models.JSONField()),
                ('change_id', models.UUIDField(null=True)),
                ('undo_to', models.PositiveIntegerField(null=True)),
                ('redo_to', models.PositiveIntegerField(null=True)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('subject', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='revisions', to='tools.toolbox')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
            },
        ),
        migrations.AddConstraint(
            model_name='toolbox',
            constraint=models.UniqueConstraint(fields=('owner',), name='one_toolbox_a_builder'),
        ),
        migrations.AddIndex(
            model_name='toolboxrevision',
            index=models.Index(fields=['subject', 'change_id'], name='toolboxrevision_change'),
        ),
        migrations.AddConstraint(
            model_name='toolboxrevision',
            constraint=models.UniqueConstraint(fields=('subject', 'number'), name='one_toolbox_revision_a_version'),
        ),
    ]
