"""The glossary: every survey and cut field is explained, by one term, with a drawing that shows from where to where."""

import typing

from django.test import SimpleTestCase
from pydantic import BaseModel

from nodulant.frame.ops.form import form_of
from nodulant.frame.ops.union import operation_kinds
from nodulant.glossary.terms import TERMS, term_for
from nodulant.survey.vehicle import Survey

NO_FIELD = {"id", "pair_id", "typed", "assumed", "text", "unit", "notes"}
"""What no person fills in, and words of one's own."""


def models_of(annotation):
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        yield annotation
    for inner in typing.get_args(annotation):
        yield from models_of(inner)


def leaves(model, parent, seen):
    """Path of two names of every field below a model that holds no further model."""
    if model in seen:
        return
    seen.add(model)
    for name, info in model.model_fields.items():
        inner = list(models_of(info.annotation))
        for below in inner:
            yield from leaves(below, name, seen)
        if not inner and name not in NO_FIELD and not (name == "kind" and info.default is not None):
            yield f"{parent}.{name}"


class Glossary(SimpleTestCase):
    def test_every_field_of_the_survey_has_a_term(self):
        asked = sorted(leaves(Survey, "survey", set()))
        self.assertGreater(len(asked), 150)
        self.assertEqual([at for at in asked if term_for("", at) is None], [])

    def test_every_field_of_every_cut_has_a_term(self):
        asked = []
        for kind in operation_kinds():
            form = form_of(kind)
            asked += [(form.kind, f.at) for f in form.fields]
            asked += [(form.kind, f"{p.at}.{f.at}" if p.many else f.at) for p in form.parts for f in p.fields]
        self.assertGreater(len(asked), 200)
        self.assertEqual([row for row in asked if term_for(*row) is None], [])

    def test_the_nearest_name_wins(self):
        for kind, at, expected in (
            ("notch", "depth_mm", "notch-depth"),
            ("raise", "depth_mm", "pocket"),
            ("spring-pocket", "depth_mm", "spring-pocket"),
            ("notch", "outer_plate.end", "plate-end"),
            ("boxing", "end", "place"),
            ("", "wheel.offset_mm", "wheel-offset"),
            ("notch", "offset_mm", "place"),
            ("", "arch.hub_z_mm", "arch"),
            ("", "suspensions.hub_z_mm", "hub-height"),
            ("hole", "diameter_mm", "hole-size"),
        ):
            with self.subTest(f"{kind} {at}"):
                self.assertEqual(term_for(kind, at).id, expected)

    def test_terms_are_sixty_and_more_each_said_once_and_briefly(self):
        self.assertGreaterEqual(len(TERMS), 60)
        self.assertEqual(len({t.id for t in TERMS}), len(TERMS))
        self.assertEqual(len({t.name for t in TERMS}), len(TERMS))
        for t in TERMS:
            with self.subTest(t.id):
                self.assertTrue(40 < len(t.says) < 260, len(t.says))
                self.assertTrue(t.says.endswith("."))

    def test_most_terms_show_from_where_to_where_inside_their_drawing(self):
        drawn = [t for t in TERMS if t.arrows]
        self.assertGreaterEqual(len(drawn), 45)
        for t in drawn:
            for x0, y0, x1, y1 in ((a.x0, a.y0, a.x1, a.y1) for a in t.arrows):
                with self.subTest(t.id):
                    self.assertTrue(0 <= min(x0, x1) <= max(x0, x1) <= 120 and 0 <= min(y0, y1) <= max(y0, y1) <= 72)
                    self.assertGreater(abs(x1 - x0) + abs(y1 - y0), 3)

    def test_no_field_is_claimed_by_two_terms(self):
        claimed = [field for t in TERMS for field in t.fields]
        self.assertEqual(sorted({f for f in claimed if claimed.count(f) > 1}), [])
