import uuid

from carpentry.design import mark_number, mark_of, read_lines
from carpentry.lumber import INCHES
from server.history.models import KEPT_REVISIONS, Conflict
from server.projects.models import Part, Project
from server.tests.base import ApiTestCase


class HistoryTest(ApiTestCase):
    def project(self) -> Project:
        project = Project.objects.create(owner=self.user, name="Firewood rack")
        project.begin_history("new project")
        return project

    def rename(self, project: Project, name: str, change_id: uuid.UUID | None = None) -> None:
        def make(project: Project) -> str:
            project.name = name
            return f"named {name}"

        project.change(project.version, change_id or uuid.uuid4(), "named", make)

    def test_versions_count_up_and_labels_are_kept(self) -> None:
        project = self.project()
        self.rename(project, "a")
        self.rename(project, "b")
        labels = list(project.revisions.values_list("number", "label"))
        self.assertEqual(labels, [(1, "new project"), (2, "named a"), (3, "named b")])
        self.assertEqual(project.labels.undo, "named b")
        self.assertIsNone(project.labels.redo)

    def test_undo_twice_then_redo_twice(self) -> None:
        project = self.project()
        for name in ("a", "b"):
            self.rename(project, name)
        names = []
        for way in ("undo", "undo", "undo", "redo", "redo", "redo"):
            getattr(project, way)(project.version, uuid.uuid4())
            names.append(project.name)
        rack = "Firewood rack"
        self.assertEqual(names, ["a", rack, rack, "a", "b", "b"])
        self.assertEqual(project.version, 7)

    def test_a_change_after_undo_forgets_what_could_be_redone(self) -> None:
        project = self.project()
        self.rename(project, "a")
        project.undo(project.version, uuid.uuid4())
        self.assertEqual(project.labels.redo, "named a")
        self.rename(project, "c")
        self.assertIsNone(project.labels.redo)
        project.undo(project.version, uuid.uuid4())
        self.assertEqual(project.name, "Firewood rack")

    def test_the_same_change_twice_is_one(self) -> None:
        project = self.project()
        once = uuid.uuid4()
        self.rename(project, "a", once)
        self.rename(project, "b", once)
        self.assertEqual((project.name, project.version), ("a", 2))
        step = uuid.uuid4()
        project.undo(2, step)
        project.undo(2, step)
        self.assertEqual(project.version, 3)

    def test_a_conflict_names_what_was_seen(self) -> None:
        project = self.project()
        self.rename(project, "a")
        with self.assertRaises(Conflict) as caught:
            project.change(1, uuid.uuid4(), "late", lambda p: None)
        self.assertEqual(caught.exception.seen_version, 1)
        with self.assertRaises(Conflict):
            project.undo(1, uuid.uuid4())

    def test_a_failed_change_leaves_nothing(self) -> None:
        project = self.project()

        def make(project: Project) -> str:
            project.add_parts(read_lines("1 a 2x4 20", INCHES))
            raise ValueError("half way")

        with self.assertRaises(ValueError):
            project.change(1, uuid.uuid4(), "x", make)
        self.assertEqual(Part.objects.count(), 0)
        self.assertEqual(Project.objects.get().version, 1)

    def test_old_revisions_go(self) -> None:
        project = self.project()
        project.version = KEPT_REVISIONS + 5
        project.save()
        self.rename(project, "a")
        self.assertFalse(project.revisions.filter(number=1).exists())


class MarksTest(ApiTestCase):
    def test_letters_like_columns(self) -> None:
        for number, mark in ((1, "A"), (26, "Z"), (27, "AA"), (52, "AZ"), (53, "BA"), (702, "ZZ")):
            self.assertEqual(mark_of(number), mark)
            self.assertEqual(mark_number(mark), number)
        self.assertEqual(mark_number("a1"), 0)

    def test_given_marks_are_kept_and_new_ones_follow(self) -> None:
        project = Project.objects.create(owner=self.user, name="x")
        parts = read_lines("1 a 2x4 20\n1 b 2x4 21\n1 c 2x4 22", INCHES)
        rows = project.add_parts(parts, ["C", "", ""])
        self.assertEqual([row.mark for row in rows], ["C", "D", "E"])
