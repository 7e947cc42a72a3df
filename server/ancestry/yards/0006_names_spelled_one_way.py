"""Stock names are spelled one way: ``2x4 pt`` is ``2x4 treated``."""

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

from carpentry.language import CarpentryError
from carpentry.lumber import lexicon_in, read_stock


def spell(apps: Apps, editor: BaseDatabaseSchemaEditor) -> None:
    model = apps.get_model("yards", "PriceLine")
    for line in model.objects.filter(stock_key__contains=" "):
        try:
            key = str(read_stock(line.stock, lexicon_in(line.yard.unit)).stock)
        except CarpentryError:
            continue  # a material of the builder's own
        if key == line.stock_key:
            continue
        twins = model.objects.filter(yard=line.yard, stock_key=key, length_ticks=line.length_ticks)
        if twins.exists():
            continue  # both lines stay; this one keeps the name that it had
        model.objects.filter(pk=line.pk).update(stock_key=key)


class Migration(migrations.Migration):
    dependencies = [("yards", "0005_yard_walk")]
    operations = [migrations.RunPython(spell, migrations.RunPython.noop)]
