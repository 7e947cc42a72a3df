"""Until now ``after`` in a line of steps replaced what a step needs by itself; from now on it adds
to it, and ``only after`` replaces. What was typed goes on meaning what it meant."""

import re

from django.db import migrations

_AFTER = re.compile(r",(\s*)after\b", re.IGNORECASE)


def _meant(text):
    return _AFTER.sub(r",\1only after", text)


def say_only(apps, schema_editor):
    lines = apps.get_model('projects', 'ProjectLine').objects
    for line in lines.filter(kind='steps', text__icontains='after').iterator():
        line.text = _meant(line.text)
        line.save(update_fields=['text'])
    revisions = apps.get_model('projects', 'ProjectRevision').objects
    for revision in revisions.filter(snapshot__icontains='after').iterator():
        known = revision.snapshot.get('lines', [])
        if not isinstance(known, list):
            continue
        meant = [
            {**one, 'text': _meant(one['text'])} if one.get('kind') == 'steps' else one
            for one in known
        ]
        if meant != known:
            revision.snapshot = {**revision.snapshot, 'lines': meant}
            revision.save(update_fields=['snapshot'])


class Migration(migrations.Migration):

    dependencies = [
        ('projects', '0001_squashed'),
    ]

    operations = [
        migrations.RunPython(say_only, migrations.RunPython.noop),
    ]
