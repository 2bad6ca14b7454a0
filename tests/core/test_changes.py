"""What changed between two designs is told in words, each figure before and after, in the reader's unit."""

from django.test import SimpleTestCase

from nodulant.job.changes import design_changes, survey_changes
from nodulant.units.inline import told
from tests import fixtures as f


def words(changes):
    return [(c.about, c.field, told(c.before, "in16"), told(c.after, "in16")) for c in changes]


class Changes(SimpleTestCase):
    def setUp(self):
        self.job = f.demo("arc")
        self.box, self.notch, *_ = self.job.design.operations

    def changed(self, **update):
        return f.with_operations(self.job, self.box, self.notch.model_copy(update=update)).design

    def test_the_same_design_has_no_change(self):
        self.assertEqual(design_changes(self.job.design, self.job.design), ())

    def test_a_figure_is_told_before_and_after_by_its_label(self):
        self.assertEqual(
            words(design_changes(self.job.design, self.changed(depth_mm=63.5))),
            [(self.notch.name, "Depth", '2 5/16"', '2 1/2"')],
        )

    def test_how_it_was_typed_is_no_change(self):
        typed = self.job.design.model_copy(update={"typed": {}})
        self.assertEqual(design_changes(self.job.design, typed), ())

    def test_a_pieces_field_is_told_by_its_own_label(self):
        plate = self.notch.outer_plate.model_copy(update={"thickness_mm": 6.35})
        (row,) = words(design_changes(self.job.design, self.changed(outer_plate=plate)))
        self.assertEqual(row[1:], ("Thickness", '0.157"', '1/4"'))

    def test_what_came_and_what_went(self):
        without = f.with_operations(self.job, self.notch).design
        self.assertEqual(words(design_changes(self.job.design, without)), [(self.box.name, "", "in the plan", "")])
        self.assertEqual(words(design_changes(without, self.job.design)), [(self.box.name, "", "", "in the plan")])
        bare = self.changed(outer_plate=None)
        (row,) = words(design_changes(self.job.design, bare))
        self.assertEqual((row[2], row[3]), ("given", ""))

    def test_targets_and_readings_are_told_by_their_place(self):
        targets = self.job.design.targets.model_copy(update={"bump_mm": 100.0})
        design = self.job.design.model_copy(update={"targets": targets})
        (row,) = words(design_changes(self.job.design, design))
        self.assertEqual((row[0], row[1], row[3]), ("targets", "bump", '3 15/16"'))
        survey = self.job.survey.model_copy(update={"wheelbase_mm": 2600.0})
        told_of = words(survey_changes(self.job.survey, survey))
        self.assertIn(("wheelbase", "", '102 3/4"', '102 3/8"'), told_of)
