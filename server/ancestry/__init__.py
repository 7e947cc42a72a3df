"""The steps that databases of earlier versions go through before the first migration of today.

Each app's ``0001_squashed`` makes in one step what these made in many, and names them in its
``replaces``. A new database never meets them; one that has been through a part of them goes through
the rest, in the order in which they were written, when ``manage.py migrate`` finds it.
"""

APPS = (
    "accounts",
    "materials",
    "yards",
    "rack",
    "tools",
    "projects",
    "plans",
    "trips",
    "shop",
    "days",
)
MODULES = {app: f"{__name__}.{app}" for app in APPS}
