"""Stock names are spelled one way: ``2x4 pt`` is ``2x4 treated``."""

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

from carpentry.language import CarpentryError
from carpentry.lumber import INCHES, read_stock


def spell(apps: Apps, editor: BaseDatabaseSchemaEditor) -> None:
    model = apps.get_model("rack", "RackBoard")
    for line in model.objects.filter(stock_key__contains=" "):
        try:
            key = str(read_stock(line.stock, INCHES).stock)
        except CarpentryError:
            continue  # a material of the builder's own
        if key == line.stock_key:
            continue
        model.objects.filter(pk=line.pk).update(stock_key=key)


class Migration(migrations.Migration):
    dependencies = [("rack", "0002_cut")]
    operations = [migrations.RunPython(spell, migrations.RunPython.noop)]
