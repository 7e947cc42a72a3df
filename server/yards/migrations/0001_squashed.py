import django.core.validators
import django.db.models.deletion
import uuid
from decimal import Decimal
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [
        ("yards", "0001_initial"),
        ("yards", "0002_price_history"),
        ("yards", "0003_price_service"),
        ("yards", "0004_hardware"),
        ("yards", "0005_yard_walk"),
        ("yards", "0006_names_spelled_one_way"),
        ("yards", "0007_rows"),
    ]

    initial = True

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='Yard',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=100)),
                ('version', models.PositiveIntegerField(default=1)),
                ('created', models.DateTimeField(auto_now_add=True)),
                ('updated', models.DateTimeField(auto_now=True)),
                ('unit', models.CharField(choices=[('in', 'inches'), ('mm', 'millimetres')], default='in', max_length=2)),
                ('currency', models.CharField(default='USD', max_length=3)),
                ('tax_rate', models.DecimalField(decimal_places=4, default=Decimal('0'), max_digits=6, validators=[django.core.validators.MinValueValidator(0), django.core.validators.MaxValueValidator(50)])),
                ('prices_include_tax', models.BooleanField(default=False)),
                ('board_foot_rounding', models.CharField(choices=[('each', 'width and length to whole inches'), ('total', 'fractions kept')], default='total', max_length=5)),
                ('price_age_days', models.PositiveIntegerField(default=90, validators=[django.core.validators.MinValueValidator(1), django.core.validators.MaxValueValidator(3650)])),
                ('price_service', models.CharField(blank=True, max_length=100)),
                ('service_code', models.CharField(blank=True, max_length=60)),
                ('walk', models.CharField(blank=True, max_length=200)),
                ('owner', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'ordering': ['name'],
            },
        ),
        migrations.CreateModel(
            name='PricePoint',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('stock_key', models.CharField(max_length=100)),
                ('length_ticks', models.PositiveBigIntegerField()),
                ('price', models.CharField(blank=True, max_length=20)),
                ('per', models.CharField(blank=True, max_length=10)),
                ('date', models.CharField(blank=True, max_length=20)),
                ('entered', models.DateTimeField(auto_now_add=True)),
                ('yard', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='price_points', to='yards.yard')),
            ],
            options={
                'ordering': ['-entered', '-id'],
            },
        ),
        migrations.CreateModel(
            name='PriceLine',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('stock', models.CharField(blank=True, default='', max_length=100)),
                ('length', models.CharField(blank=True, default='', max_length=60)),
                ('price', models.CharField(blank=True, default='', max_length=20)),
                ('per', models.CharField(blank=True, default='', max_length=10)),
                ('available', models.CharField(blank=True, default='', max_length=10)),
                ('actual', models.CharField(blank=True, default='', max_length=60)),
                ('date', models.CharField(blank=True, default='', max_length=20)),
                ('thickness', models.CharField(blank=True, default='', max_length=60)),
                ('width', models.CharField(blank=True, default='', max_length=60)),
                ('position', models.PositiveIntegerField(default=0)),
                ('stock_key', models.CharField(editable=False, max_length=100)),
                ('length_ticks', models.PositiveBigIntegerField(editable=False)),
                ('yard', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='lines', to='yards.yard')),
            ],
            options={
                'ordering': ['position'],
            },
        ),
        migrations.CreateModel(
            name='PackLine',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('position', models.PositiveIntegerField()),
                ('text', models.CharField(blank=True, max_length=2000)),
                ('yard', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='pack_lines', to='yards.yard')),
            ],
            options={
                'ordering': ['position'],
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='YardRevision',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('number', models.PositiveIntegerField()),
                ('label', models.CharField(max_length=200)),
                ('snapshot', models.JSONField()),
                ('change_id', models.UUIDField(null=True)),
                ('undo_to', models.PositiveIntegerField(null=True)),
                ('redo_to', models.PositiveIntegerField(null=True)),
                ('made', models.DateTimeField(auto_now_add=True)),
                ('subject', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='revisions', to='yards.yard')),
            ],
            options={
                'ordering': ['number'],
                'abstract': False,
            },
        ),
        migrations.AddConstraint(
            model_name='yard',
            constraint=models.UniqueConstraint(fields=('owner', 'name'), name='one_yard_of_a_name', violation_error_message='you have a yard of this name'),
        ),
        migrations.AddIndex(
            model_name='pricepoint',
            index=models.Index(fields=['yard', 'stock_key', 'length_ticks'], name='yards_price_yard_id_0d2430_idx'),
        ),
        migrations.AddConstraint(
            model_name='priceline',
            constraint=models.UniqueConstraint(fields=('yard', 'stock_key', 'length_ticks'), name='one_price_a_stock_and_length', violation_error_message='this stock and length has a price line already'),
        ),
        migrations.AddIndex(
            model_name='yardrevision',
            index=models.Index(fields=['subject', 'change_id'], name='yardrevision_change'),
        ),
        migrations.AddConstraint(
            model_name='yardrevision',
            constraint=models.UniqueConstraint(fields=('subject', 'number'), name='one_yard_revision_a_version'),
        ),
    ]
