"""What a project's saws could do becomes the tools of its builder; plans that were cut, and trips,
keep what they were made with."""

from django.db import migrations

INCHES = {"crosscut": "12", "rip_depth": "3", "rip_width": "", "resaw_depth": "3", "tilt": "45", "miter": ""}
MILLIMETRES = INCHES | {"crosscut": "305", "rip_depth": "76", "resaw_depth": "76"}


def limits_of(project):
    return {name: getattr(project, f"saw_{name}").strip() for name in INCHES}


def tools_of(limits, unit):
    """The saws that can do what a project said, in inches or as it said it."""

    def length(name):
        text = limits[name]
        return text if not text or unit == "in" or text.endswith(("mm", "cm", "m")) else f"{text} mm"

    saws = [
        ("miter saw", {"crosscut": length("crosscut"), "tilt": limits["tilt"], "miter": limits["miter"]}),
        ("table saw", {"depth": length("rip_depth"), "rip": length("rip_width"), "resaw": length("resaw_depth"), "tilt": limits["tilt"]}),
    ]
    if not limits["miter"]:
        saws.append(("circular saw", {}))
    return [(kind, {name: text for name, text in typed.items() if text}) for kind, typed in saws]


def move_over(apps, schema_editor):
    from carpentry.language import Unit
    from carpentry.project.settings import SAW_ANGLES, SAW_LENGTHS
    from carpentry.cutting import read_saw_angle
    from carpentry.language import read_length

    Project = apps.get_model("projects", "Project")
    Toolbox = apps.get_model("tools", "Toolbox")
    OwnedTool = apps.get_model("tools", "OwnedTool")
    Revision = apps.get_model("tools", "ToolboxRevision")
    Plan = apps.get_model("plans", "Plan")
    Trip = apps.get_model("trips", "Trip")

    done = set()
    for project in Project.objects.order_by("-updated"):
        if project.owner_id in done:
            continue
        limits = limits_of(project)
        if limits in (INCHES, MILLIMETRES):
            continue
        done.add(project.owner_id)
        toolbox = Toolbox.objects.create(owner_id=project.owner_id, name="Tools")
        tools = [
            OwnedTool.objects.create(toolbox=toolbox, position=n, kind=kind, limits=typed)
            for n, (kind, typed) in enumerate(tools_of(limits, project.unit), start=1)
        ]
        Revision.objects.create(
            subject=toolbox,
            number=1,
            label=f"as {project.name} said"[:200],
            snapshot={
                "tools": [
                    {"id": str(one.id), "position": one.position, "kind": one.kind, "name": "", "limits": one.limits}
                    for one in tools
                ]
            },
        )

    def saw(project):
        unit = Unit(project.unit)
        found = {}
        for name in SAW_LENGTHS:
            text = getattr(project, name).strip()
            found[name[4:]] = read_length(text, unit).ticks if text else None
        for name in SAW_ANGLES:
            text = getattr(project, name).strip()
            found[name[4:]] = f"{read_saw_angle(text):f}" if text else None
        return found

    for model in (Plan, Trip):
        for row in model.objects.exclude(basis={}).select_related("project"):
            if row.basis and "saw" not in row.basis:
                row.basis["saw"] = saw(row.project)
                row.save(update_fields=["basis"])


class Migration(migrations.Migration):

    dependencies = [
        ("tools", "0001_initial"),
        ("projects", "0018_together"),
        ("plans", "0007_beside"),
        ("trips", "0002_rows"),
    ]

    operations = [migrations.RunPython(move_over, migrations.RunPython.noop)]
