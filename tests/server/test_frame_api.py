"""Options side by side and drawn rails over HTTP."""

from tests.server.base import Shop

TUBE = "<svg><polygon points='0,0 70,0 70,-120 0,-120'/><polygon points='4,-4 66,-4 66,-116 4,-116'/></svg>"
LIKE = {"x_mm": -400.0, "underside_z_mm": 0, "height_mm": 120, "width_mm": 70, "wall_mm": 4}


class Compare(Shop):
    """What a person decides by must come from the newest revisions of this very job."""

    def ask(self, ids, job=None):
        return self.send("post", "/compare", {"job_id": job or self.job.pk, "option_ids": ids})

    def test_two_options_in_one_table(self):
        ids = [o.pk for o in self.job.options.order_by("id")][:2]
        response, data = self.ask(ids)
        self.assertEqual(response.status_code, 200)
        self.assertEqual([o["id"] for o in data["options"]], [str(i) for i in ids])
        row = next(r for r in data["rows"] if r["key"] == "modulus-bottom")
        self.assertGreater(row["values"][1], row["values"][0], "the straight-sided cut keeps more of its bottom")

    def test_one_option_or_five_is_refused(self):
        ids = [o.pk for o in self.job.options.order_by("id")]
        for wrong in (ids[:1], ids * 3):
            self.assertEqual(self.ask(wrong)[0].status_code, 422)

    def test_an_option_of_another_job_is_not_there(self):
        mine = self.job.options.order_by("id")[0].pk
        other = self.send("post", "/jobs", {"name": "other", "start": {"vehicle": "cart"}})[1]
        self.assertEqual(self.ask([mine, other["options"][0]["id"]])[0].status_code, 404)

    def test_a_reader_may_look_and_nobody_else(self):
        ids = [o.pk for o in self.job.options.order_by("id")][:2]
        self.become("inspector")
        self.assertEqual(self.ask(ids)[0].status_code, 200)
        self.client.logout()
        self.assertEqual(self.ask(ids)[0].status_code, 401)

    def test_cost_appears_with_the_shop_s_rates(self):
        job = self.send("get", f"/jobs/{self.job.pk}")[1]
        rates = {"currency": "EUR", "hour": 60, "plate_kg": 2, "weld_m": 4}
        shop = {"base": job["shop_number"], "shop": {**job["shop"], "rates": rates}}
        self.assertEqual(self.send("put", f"/jobs/{self.job.pk}/shop", shop)[0].status_code, 200)
        ids = [o.pk for o in self.job.options.order_by("id")][:2]
        cost = next(r for r in self.ask(ids)[1]["rows"] if r["key"] == "cost")
        self.assertEqual(cost["unit"], "EUR")
        self.assertTrue(all(v > 0 for v in cost["values"]))


class Drawn(Shop):
    """A drawing that cannot be read is told; the rail stays as it was."""

    def test_a_section(self):
        response, data = self.send("post", "/rail/section", {"text": TUBE})
        self.assertEqual(response.status_code, 200)
        self.assertEqual((data["kind"], data["height_mm"], data["wall_mm"]), ("rect-tube", 120.0, 4.0))

    def test_an_outline(self):
        text = "<svg><polygon points='0,0 2000,0 3000,-60 3000,-180 0,-120'/></svg>"
        body = {"text": text, "front_x_mm": -400.0, "like": LIKE}
        response, data = self.send("post", "/rail/outline", body)
        self.assertEqual(response.status_code, 200)
        self.assertEqual([s["x_mm"] for s in data], [-400.0, 1600.0, 2600.0])
        self.assertAlmostEqual(data[-1]["underside_z_mm"], 60.0, delta=0.1)

    def test_nonsense_is_a_problem_and_never_a_500(self):
        for text in (
            "",
            "solid",
            "<svg",
            "<svg><path d='M z z'/></svg>",
            "<svg><circle r='-1'/></svg>",
            "0\nSECTION\n",
        ):
            for path, body in (("/rail/section", {}), ("/rail/outline", {"like": LIKE})):
                with self.subTest(f"{path} {text!r}"):
                    response, data = self.send("post", path, {"text": text, **body})
                    self.assertEqual(response.status_code, 422)
                    self.assertTrue(data["title"])


class Catalogue(Shop):
    def test_bolts_and_cases_to_choose_from(self):
        data = self.send("get", "/catalogue")[1]
        self.assertIn("M12", data["bolt_sizes"])
        self.assertIn("grade 8", data["bolt_grades"])
        self.assertEqual(
            [c["id"] for c in data["cases"]],
            [
                *("static", "bump", "twist", "brake", "corner", "launch", "jack", "jack-front", "stop", "stop-front"),
                *("kerb", "kerb-front", "bump-beside", "bump-brake", "brake-corner"),
            ],
        )


class FreshWork(Shop):
    """Every kind begins by one press, and wrong asking is told."""

    def ask(self, path, **body):
        return self.send("post", f"/operations/{path}", {"job_id": self.job.pk, "design": self.design(), **body})

    def test_every_form_that_is_offered_begins(self):
        forms = self.send("get", "/catalogue")[1]["forms"]
        self.assertGreaterEqual(len(forms), 20)
        for form in forms:
            response, op = self.ask("fresh", kind=form["kind"])
            self.assertEqual((response.status_code, op["kind"]), (200, form["kind"]))
            design = {**self.design(), "operations": [op]}
            self.assertEqual(
                self.send("post", "/evaluate", {"job_id": self.job.pk, "design": design})[0].status_code, 200, form
            )

    def test_a_part_begins_from_the_shop_s_plate(self):
        response, part = self.ask("part", operation_id="axle-notch", at="outer_plate")
        self.assertEqual((response.status_code, part["thickness_mm"]), (200, 5.0))
        _, shape = self.ask("part", operation_id="axle-notch", at="shape", choice="trapezoid")
        self.assertEqual(shape["kind"], "trapezoid")

    def test_what_is_not_there_is_told_at_its_field(self):
        for path, body, word in (
            ("fresh", {"kind": "wings"}, "wings"),
            ("part", {"operation_id": "nobody", "at": "liner"}, "nobody"),
            ("part", {"operation_id": "axle-notch", "at": "depth_mm"}, "depth_mm"),
        ):
            response, data = self.ask(path, **body)
            self.assertEqual(response.status_code, 422)
            self.assertEqual(data["problems"][0]["found"], word)


class EveryOperation(Shop):
    """Wrong values of every operation are a 422 at their field."""

    def test_at_the_field(self):
        place = {"anchor_id": "rear-axle", "offset_mm": -900.0}
        base = {"id": "it", "name": "it"}
        span = {"start": place, "end": {"anchor_id": "rear-axle", "offset_mm": -700.0}}
        rows = (
            ({"kind": "z-step", "place": place, "rise_mm": -5}, "rise_mm"),
            ({"kind": "z-step", "place": place, "rise_mm": 20, "method": "set-on"}, "rise_mm"),
            ({"kind": "z-step", "place": {**place, "anchor_id": "gone"}, "rise_mm": 20}, "place/anchor_id"),
            ({"kind": "raise", "place": place, "length_mm": 100, "depth_mm": 149}, "depth_mm"),
            ({"kind": "narrow", **span, "inward_mm": 9000}, "inward_mm"),
            ({"kind": "stretch", "place": place, "length_mm": 0}, "length_mm"),
            ({"kind": "plate", **span, "thickness_mm": 0}, "thickness_mm"),
            ({"kind": "plate", "start": span["end"], "end": place, "thickness_mm": 5}, "end/offset_mm"),
            ({"kind": "hole", "place": place, "height_mm": 10, "diameter_mm": "wide"}, "diameter_mm"),
            ({"kind": "crossmember", "place": place, "act": "move"}, "target_id"),
            ({"kind": "crossmember", "place": place, "wall_mm": 35}, "wall_mm"),
            ({"kind": "access-cut", **span, "height_mm": -1}, "height_mm"),
            ({"kind": "repair", **span, "thickness_mm": 99}, "thickness_mm"),
            ({"kind": "bracket", "place": place, "height_mm": 70, "along_n": 1e9}, "along_n"),
            ({"kind": "pirouette", "place": place}, ""),
        )
        for fields, field in rows:
            with self.subTest(str(fields)):
                design = {**self.design(), "operations": [{**base, **fields}]}
                response, data = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": design})
                self.assertEqual(response.status_code, 422, data)
                pointers = [p["pointer"] for p in data["problems"]]
                self.assertTrue(
                    any(p.startswith("/design/operations/0") and p.endswith(field) for p in pointers), pointers
                )
                self.assertTrue(all(p["message"] for p in data["problems"]))
