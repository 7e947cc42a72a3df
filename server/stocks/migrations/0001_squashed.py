import django.db.models.deletion
import uuid
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("materials", "0001_initial"),
        ("materials", "0002_rows"),
    ]

    initial = True

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='OwnMaterials',
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
            name='OwnMaterial',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=60)),
                ('form', models.CharField(choices=[('board', 'board'), ('sheet', 'sheet'), ('round', 'round')], default='board', max_length=10)),
                ('thickness', models.CharField(max_length=60)),
                ('width', models.CharField(blank=True, max_length=60)),
                ('density', models.CharField(blank=True, max_length=20)),
                ('kind', models.CharField(choices=[('plain', 'plain'), ('treated', 'treated'), ('durable', 'durable'), ('composite', 'composite'), ('sheet', 'sheet')], default='plain', max_length=10)),
                ('exposure', models.CharField(choices=[('ground contact', 'ground contact'), ('outdoors, off the ground', 'outdoors, off the ground'), ('indoors, or sealed on every face', 'indoors, or sealed on every face')], default='indoors, or sealed on every face', max_length=40)),
                ('caution', models.CharField(blank=True, max_length=200)),
                ('put_away', models.BooleanField(default=False)),
                ('key', models.CharField(editable=False, max_length=60)),
                ('materials', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='rows', to='materials.ownmaterials')),
            ],
            options={
                'ordering': ['key'],
            },
        ),
        migrations.CreateModel(
            name='OwnMaterialsRevision',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('number', models.PositiveIntegerField()),
                ('label', models.CharField(max_length=200)),
                ('snapshot', models.JSONField()),
                ('change_id', models.UUIDField(null=True)),
                ('undo_to', models.PositiveIntegerField(null=True)),
                ('redo_to', models.PositiveIntegerField(null=True)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('subject', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='revisions', to='materials.ownmaterials')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
            },
        ),
        migrations.AddConstraint(
            model_name='ownmaterials',
            constraint=models.UniqueConstraint(fields=('owner',), name='one_list_of_materials_a_builder'),
        ),
        migrations.AddConstraint(
            model_name='ownmaterial',
            constraint=models.UniqueConstraint(fields=('materials', 'key'), name='one_material_of_a_name'),
        ),
        migrations.AddIndex(
            model_name='ownmaterialsrevision',
            index=models.Index(fields=['subject', 'change_id'], name='ownmaterialsrevision_change'),
        ),
        migrations.AddConstraint(
            model_name='ownmaterialsrevision',
            constraint=models.UniqueConstraint(fields=('subject', 'number'), name='one_materials_revision_a_version'),
        ),
    ]
