import django.db.models.deletion
import uuid
from decimal import Decimal
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("plans", "0001_initial"),
        ("plans", "0002_initial"),
        ("plans", "0003_rack"),
        ("plans", "0004_cut"),
        ("plans", "0005_saw_limits_and_cuts"),
        ("plans", "0006_rows"),
        ("plans", "0007_beside"),
    ]

    initial = True

    dependencies = [
        ('projects', '0001_squashed'),
    ]

    operations = [
        migrations.CreateModel(
            name='Plan',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('digest', models.CharField(editable=False, max_length=64)),
                ('made_by', models.PositiveSmallIntegerField(default=2, editable=False)),
                ('status', models.CharField(choices=[('queued', 'Queued'), ('running', 'Running'), ('done', 'Done'), ('stopped', 'Stopped'), ('failed', 'Failed')], default='queued', max_length=8)),
                ('stage', models.CharField(choices=[('draft', 'Draft'), ('chosen', 'Chosen'), ('bought', 'Bought'), ('cut', 'Cut')], default='draft', max_length=6)),
                ('asked', models.DateTimeField(auto_now_add=True)),
                ('seconds', models.FloatField(null=True)),
                ('basis', models.JSONField(blank=True, default=dict, editable=False)),
                ('problems', models.JSONField(blank=True, default=list, editable=False)),
                ('outcome', models.JSONField(blank=True, default=list)),
                ('boards_count', models.PositiveIntegerField(default=0)),
                ('subtotal', models.DecimalField(decimal_places=2, default=Decimal('0'), max_digits=12)),
                ('unplaced_count', models.PositiveIntegerField(default=0)),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='plans', to='projects.project')),
            ],
            options={
                'ordering': ['-asked'],
            },
        ),
        migrations.CreateModel(
            name='Board',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('number', models.PositiveIntegerField()),
                ('layout', models.PositiveIntegerField()),
                ('stock', models.CharField(max_length=100)),
                ('thickness', models.PositiveBigIntegerField(null=True)),
                ('width', models.PositiveBigIntegerField(null=True)),
                ('length', models.PositiveBigIntegerField()),
                ('real_length', models.PositiveBigIntegerField()),
                ('price', models.DecimalField(decimal_places=2, max_digits=12, null=True)),
                ('rack_board', models.UUIDField(null=True)),
                ('rack_number', models.PositiveIntegerField(null=True)),
                ('offcuts', models.JSONField(blank=True, default=list)),
                ('plan', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='boards', to='plans.plan')),
            ],
            options={
                'ordering': ['number'],
            },
        ),
        migrations.CreateModel(
            name='PlanOfVersion',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('number', models.PositiveIntegerField()),
                ('beside', models.JSONField(blank=True, default=dict, editable=False)),
                ('plan', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='versions', to='plans.plan')),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='planned_versions', to='projects.project')),
            ],
        ),
        migrations.CreateModel(
            name='Piece',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('part', models.UUIDField()),
                ('label', models.CharField(max_length=12)),
                ('start', models.PositiveBigIntegerField()),
                ('end', models.PositiveBigIntegerField()),
                ('board', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='pieces', to='plans.board')),
            ],
            options={
                'ordering': ['start'],
                'constraints': [models.CheckConstraint(condition=models.Q(('end__gt', models.F('start'))), name='piece_has_length')],
            },
        ),
        migrations.AddIndex(
            model_name='plan',
            index=models.Index(fields=['project', 'digest'], name='plans_plan_project_442e4f_idx'),
        ),
        migrations.AddConstraint(
            model_name='board',
            constraint=models.UniqueConstraint(fields=('plan', 'number'), name='one_board_of_a_number'),
        ),
        migrations.AddConstraint(
            model_name='planofversion',
            constraint=models.UniqueConstraint(fields=('project', 'number'), name='one_plan_of_a_version'),
        ),
    ]
