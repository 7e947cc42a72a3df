"""Random projects of days: groups of steps with glue-ups, as builders have them."""

from random import Random
from typing import Any

from carpentry.language import Json

ZONES = ("America/Denver", "Europe/Berlin", "Australia/Adelaide")


def random_days(seed: int, count: int, *, wanted: bool = False) -> Json:
    """A project of so many steps: chains of a few groups that meet at the end; glue-ups hold
    clamps, some steps are slower when humid, some stay."""
    random = Random(seed)
    steps: list[dict[str, Any]] = []
    groups = max(1, round(count / random.choice([4, 5, 6])))
    last: list[str] = []
    for group in range(groups):
        size = max(1, (count - 1 - len(steps)) // (groups - group))
        before = ""
        for n in range(min(size, count - 1 - len(steps)) if count > 1 else 0):
            name = f"{'abcdefghijklmnopqrstuvwxyz'[group]}{n}"
            step: dict[str, Any] = {
                "id": name,
                "minutes": random.choice([10, 15, 20, 30, 45, 60, 90, 120]),
            }
            if before:
                step["after"] = [before]
            kind = random.random()
            if kind < 0.3:
                step |= {
                    "wait": random.choice(["10 h", "12 h", "3 h"]),
                    "clamps": random.randint(1, 4),
                }
            elif kind < 0.55:
                step |= {"wait": random.choice(["4 h", "6 h", "16 h", "24 h"])}
                if random.random() < 0.5:
                    step["slower when humid"] = True
            elif kind < 0.65:
                step |= {"wait": random.choice(["10 min", "15 min"]), "stay": True}
            elif kind < 0.72:
                step |= {"may be split": True, "minutes": random.choice([150, 240, 300])}
            steps.append(step)
            before = name
        if before:
            last.append(before)
    steps.append({"id": "end", "minutes": 30, "after": last})
    if groups > 2 and random.random() < 0.5:  # one group needs what another made
        chosen = [s for s in steps if s["id"][0] == "b"]
        chosen[-1].setdefault("after", []).append("a0")
    day = random.randint(1, 28)
    month, hour = random.randint(1, 12), random.choice(["08:00", "18:00", "19:30"])
    found: Json = {
        "zone": random.choice(ZONES),
        "from": f"2027-{month:02}-{day:02}T{hour}",
        "weather": {"humidity": random.choice([50, 76]), "celsius": 20},
        "clamps": random.choice([4, 5, 6, 8]),
        "steps": steps,
    }
    if wanted:
        found["wanted"] = f"{found['from'][:8]}{min(28, day + 4):02}T20:00"
    return found
