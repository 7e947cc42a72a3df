"""Boards keep all their offcuts; plans know which version of planning made them."""

from django.db import migrations, models


def take_leftovers_over(apps, schema_editor):
    """The one leftover that a board had becomes the first of its offcuts."""
    boards = apps.get_model("plans", "Board")
    changed = []
    for board in boards.objects.exclude(leftover_start=None).exclude(leftover_end=None):
        length = board.leftover_end - board.leftover_start
        board.offcuts = [{"length": length, "thickness": board.thickness, "width": board.width}]
        changed.append(board)
    boards.objects.bulk_update(changed, ["offcuts"], batch_size=500)


class Migration(migrations.Migration):

    dependencies = [
        ("plans", "0004_cut"),
    ]

    operations = [
        migrations.AddField(
            model_name="board",
            name="offcuts",
            field=models.JSONField(blank=True, default=list),
        ),
        migrations.RunPython(take_leftovers_over, migrations.RunPython.noop),
        migrations.RemoveField(model_name="board", name="leftover_end"),
        migrations.RemoveField(model_name="board", name="leftover_start"),
        migrations.AddField(
            model_name="plan",
            name="made_by",
            field=models.PositiveSmallIntegerField(default=1, editable=False),
        ),
        migrations.AlterField(
            model_name="plan",
            name="made_by",
            field=models.PositiveSmallIntegerField(default=2, editable=False),
        ),
    ]
