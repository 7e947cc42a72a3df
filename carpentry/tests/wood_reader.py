"""Whether steps can be built in any order that they allow, read as somebody who knows nothing but
wood: what is used is there, what is coated is dry, what is hidden was sealed, what is glued held.

It knows the project as it was typed and the steps as they are shown, and nothing of how they are
made."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from carpentry.language import Json

_COAT = re.compile(
    r"(?P<name>.+?) on (?P<on>all|[A-Z](?: [A-Z])*?)(?P<sides>(?: faces| edges| ends| and)*), "
    r"(?P<coats>\d) coats(?P<closing>, before closing)?"
)
_WAY = re.compile(r"(\d+) ([A-Z])(?: (face|edge|end))? to ([A-Z])(?: (face|edge|end))?, (.+)")
_NEVER_SEALED = ("stain", "wax")  # that hide nothing which has to be sealed first
_USED = ("join", "assemble", "glue", "fit")


@dataclass(frozen=True)
class Coat:
    name: str
    marks: frozenset[str]
    sides: frozenset[str]
    closing: bool

    def meets(self, other: "Coat") -> bool:
        return bool(self.marks & other.marks and self.sides & other.sides)


@dataclass(frozen=True)
class Joined:
    line: str
    surfaces: tuple[tuple[str, str], ...]
    glued: bool


class Reader:
    def __init__(self, project: Json, steps: list[Json]) -> None:
        self.project, self.steps = project, {one["id"]: one for one in steps}
        self.groups = {one["mark"]: one["group"] for one in project["parts"]}
        self.coats = [self._coat(line) for line in project["finishes"]]
        self.joints = [_joint(line) for line in project["joints"]]

    def _coat(self, line: str) -> Coat:
        found = _COAT.fullmatch(line)
        assert found, line
        marks = set(self.groups) if found["on"] == "all" else set(found["on"].split())
        sides = set(re.findall(r"face|edge|end", found["sides"])) or {"face", "edge", "end"}
        return Coat(found["name"], frozenset(marks), frozenset(sides), bool(found["closing"]))

    @cached_property
    def earlier(self) -> dict[str, set[str]]:
        """Of each step, all that come before it."""
        found: dict[str, set[str]] = {}

        def of(key: str) -> set[str]:
            if key not in found:
                after = self.steps[key]["after"]
                found[key] = set(after).union(*(of(one) for one in after))
            return found[key]

        for key in self.steps:
            of(key)
        return found

    def sorts(self, *sorts: str) -> list[Json]:
        return [one for one in self.steps.values() if one["sort"] in sorts]

    def faults(self) -> Iterator[str]:
        yield from self._not_there()
        yield from self._not_cut()
        yield from self._wet()
        yield from self._sealed_too_late()
        yield from self._out_of_order()
        yield from self._typed()

    def _not_there(self) -> Iterator[str]:
        for step in self.steps.values():
            for key in step["after"]:
                if key not in self.steps:
                    yield f"{step['id']} comes after {key}, which is no step"

    def _cut_of(self, mark: str) -> list[str]:
        return [one["id"] for one in self.sorts("cut", "measure") if mark in one["parts"]]

    def _not_cut(self) -> Iterator[str]:
        for step in self.sorts(*_USED, "sand", "finish", "early finish", "preserve", "try"):
            if step["id"] in self._own:
                continue
            for mark in step["parts"]:
                if not any(key in self.earlier[step["id"]] for key in self._cut_of(mark)):
                    yield f"{step['id']} uses {mark} before it is cut"

    @property
    def _own(self) -> set[str]:
        return {key for key, one in self.steps.items() if one["sort"] == "own"}

    def _steps_of(self, coat: Coat) -> list[Json]:
        """What puts a finish on: steps that begin with its name and are about its parts."""
        return [
            one
            for one in self.sorts("finish", "early finish")
            if one["name"].startswith(coat.name) and set(one["parts"]) <= coat.marks
        ]

    def _ordered(self, one: str, other: str) -> bool:
        return one in self.earlier[other] or other in self.earlier[one]

    def _wet(self) -> Iterator[str]:
        """Nothing goes on what is wet: coats on one surface wait for one another, and what joins a
        part waits for what was put on it before."""
        for n, first in enumerate(self.coats):
            for second in self.coats[n + 1 :]:
                if not first.meets(second):
                    continue
                for one in self._steps_of(first):
                    for other in self._steps_of(second):
                        shared = set(one["parts"]) & set(other["parts"])
                        if one is other or not shared:
                            continue
                        if not self._ordered(one["id"], other["id"]):
                            yield f"{other['id']} may go on while {one['id']} is wet"
                        late = other["sort"] == one["sort"] == "finish"
                        if late and other["id"] in self.earlier[one["id"]]:
                            yield f"{other['id']} goes on before {one['id']}"
        for step in self.sorts("finish", "early finish"):
            if step["wait"] == "0 h":
                yield f"{step['id']} waits for nothing"
            for other in self.sorts(*_USED):
                meets = set(step["parts"]) & set(other["parts"])
                if meets and not self._ordered(step["id"], other["id"]):
                    yield f"{other['id']} may take up what {step['id']} left wet"
        for sand in self.sorts("sand"):
            for other in self.sorts("finish", "early finish"):
                meets = set(sand["parts"]) & set(other["parts"])
                on_ends = any(
                    c.sides == {"end"} and other["name"].startswith(c.name) for c in self.coats
                )
                is_first = on_ends or sand["id"] in self.earlier[other["id"]]
                if meets and not is_first and not self._is_bare_at(sand, other):
                    yield f"{sand['id']} sands what {other['id']} has coated"

    def _is_bare_at(self, sand: Json, coat: Json) -> bool:
        """Whether what is sanded there has not got that coat: other faces of it may have."""
        sanded = [c for c in self.coats if sand["name"].startswith(f"sand for the {c.name}")]
        coated = [c for c in self.coats if coat["name"].startswith(c.name)]
        return not any(one.meets(other) for one in sanded for other in coated)

    def _sealed_too_late(self) -> Iterator[str]:
        """What two pieces hide where they meet is sealed first, unless it is glued."""
        for n, coat in enumerate(self.coats):
            if any(word in coat.name.split() and "deck" not in coat.name for word in _NEVER_SEALED):
                continue
            # What is under it has to go on first, and does when it stands.
            under = {(m, s) for one in self.coats[:n] for m in one.marks for s in one.sides}
            for joint in self.joints:
                if joint.glued:
                    continue
                for mark, side in joint.surfaces:
                    is_bare = (mark, side) not in under
                    if is_bare and mark in coat.marks and side in coat.sides:
                        yield from self._not_sealed(coat, joint, mark)

    def _not_sealed(self, coat: Coat, joint: Joined, mark: str) -> Iterator[str]:
        on = [one["id"] for one in self._steps_of(coat) if mark in one["parts"]]
        for step in self.sorts("join", "assemble"):
            is_sealed = any(key in self.earlier[step["id"]] for key in on)
            if joint.line in step["joints"] and not is_sealed:
                yield f"{coat.name} on {mark} comes after {step['id']} has hidden it"

    def _where(self, joint: Joined) -> set[str]:
        return {
            one["id"]
            for one in self.steps.values()
            if any(
                joint.line == text or text.endswith(f" of {joint.line}") for text in one["joints"]
            )
        }

    def _out_of_order(self) -> Iterator[str]:
        """Joints of a group in the order of their lines: what is glued is held by what was there
        before. Groups are put together before they meet."""
        for n, first in enumerate(self.joints):
            if not self._where(first):
                yield f"“{first.line}” is never made"
            for second in self.joints[n + 1 :]:
                groups = [
                    {self.groups[mark] for mark, _ in one.surfaces} for one in (first, second)
                ]
                together = groups[0] == groups[1] or (len(groups[0]) > 1 and len(groups[1]) > 1)
                for one in self._where(first):
                    for other in self._where(second):
                        if together and one != other and one not in self.earlier[other]:
                            yield f"{other} is made before {one}, which its line comes after"
                        inner = len(groups[0]) == 1 < len(groups[1]) and groups[0] <= groups[1]
                        outer = len(groups[1]) == 1 < len(groups[0]) and groups[1] <= groups[0]
                        if inner and one not in self.earlier[other]:
                            yield f"{other} joins a group before {one}"
                        if outer and other not in self.earlier[one]:
                            yield f"{one} joins a group before {other}"
        for step in self.sorts("glue", "join", "assemble"):
            glued = any(joint.glued and step["id"] in self._where(joint) for joint in self.joints)
            if glued and step["wait"] == "0 h":
                yield f"{step['id']} does not wait for its glue"

    def _typed(self) -> Iterator[str]:
        for line in self.project["steps"]:
            name = line.split(",")[0]
            found = [
                key for key in self.steps if key.startswith(name.removesuffix(" before closing"))
            ]
            if not found:
                yield f"“{line}” is no step"
                continue
            group = next((g for g in sorted(self.groups.values(), key=len) if g in name), "")
            marks = {mark for mark, own in self.groups.items() if own == group}
            if name.startswith(("hang", "clean", "paint")):
                for mark in marks:
                    for key in found:
                        if not any(one in self.earlier[key] for one in self._cut_of(mark)):
                            yield f"{key} comes before {mark} is cut"
            if name.startswith("hang"):
                for step in self.sorts(*_USED):
                    if set(step["parts"]) & marks and step["id"] not in self.earlier[found[0]]:
                        yield f"{found[0]} comes before {step['id']}"
            if name.endswith("before closing"):
                for step in self.sorts(*_USED):
                    if set(step["parts"]) & marks and found[-1] not in self.earlier[step["id"]]:
                        yield f"{step['id']} closes what {found[-1]} has not coated"
            if name == "deliver":
                for key, step in self.steps.items():
                    last = key == "deliver" or step["sort"] == "set up"
                    if not last and key not in self.earlier["deliver"]:
                        yield f"delivered before {key}"
        for step in self.sorts("set up"):
            for key in self.steps:
                if key != step["id"] and key not in self.earlier[step["id"]]:
                    yield f"{step['id']} comes before {key}"


def _joint(line: str) -> Joined:
    found = _WAY.fullmatch(line)
    assert found, line
    surfaces = (found[2], found[3] or "face"), (found[4], found[5] or "face")
    return Joined(line, surfaces, "glue" in found[6])
