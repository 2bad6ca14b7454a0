"""Suspensions built from nothing, moved and dragged on the bench."""

import re

from playwright.sync_api import expect

from tests.browser.base import Bench

LAYOUTS = (
    "Triangulated four-link",
    "Parallel four-link",
    "Two arms and an upper link",
    "Ladder bars",
    "Torque arm",
    "Leaf springs",
    "Trailing or semi-trailing arm",
    "Five rods a wheel",
    "Double wishbone",
    "Strut and lower arm",
)


class Begun(Bench):
    """A suspension from nothing."""

    def begin(self, layout):
        self.open("Travel")
        with self.evaluated():
            self.page.get_by_role("group", name="Layouts").get_by_role("button").filter(has_text=layout).first.click()
        self.page.get_by_label("Suspension: side view, plan and end view").wait_for()


class Travel(Begun):
    """What the van stands on, by what the screen says."""

    def curve(self, name):
        return self.page.get_by_role("img", name=f"{name} through travel")

    def test_a_triangulated_four_link_on_coilovers_from_nothing(self):
        self.begin("Triangulated four-link")
        with self.evaluated():
            self.page.get_by_label("Spring", exact=True).select_option("coilover")
        stop = self.page.get_by_role("region", name="Bump stop")
        with self.evaluated():
            stop.get_by_role("button", name="Add it").click()
        with self.evaluated():
            self.type_in("Unsprung mass", "145 kg")
        self.page.get_by_label("Checks of").select_option("travel")
        expect(self.page.get_by_label("Margins").get_by_text("0 fail")).to_be_visible()
        self.page.get_by_role("table", name="Forces in the links").get_by_text("lower link, right").wait_for()
        self.margin("Anti-squat, least").filter(has_text="holds").wait_for()
        stands = self.page.get_by_role("table", name="Where the axle stands as loaded")
        stands.get_by_role("row").filter(has_text="driver").get_by_role("button", name="Go").click()
        self.assertNotEqual(self.page.get_by_label("Wheel travel").input_value(), "0")
        with self.evaluated():
            self.page.get_by_role("button", name="Put brackets and mounts into the plan").click()
        self.page.get_by_role("button", name="Bring brackets and mounts up to date").wait_for()
        self.kept()
        self.stage("Cut")
        self.page.get_by_role("button", name="Bracket of the rear lower link").wait_for()

    def test_every_layout_moves_as_it_comes(self):
        self.begin(LAYOUTS[0])
        for name in LAYOUTS:
            with self.subTest(name), self.evaluated():
                self.page.get_by_label("Layout", exact=True).select_option(label=name)
            self.curve("Roll centre above ground").wait_for()
            expect(self.page.get_by_role("alert").filter(has_text="does not move")).to_have_count(0)

    def test_a_point_is_dragged_and_the_figures_follow(self):
        self.begin("Triangulated four-link")
        before = self.margin("Anti-squat, least").inner_text()
        point = self.page.locator('[data-point="suspensions.0.layout.lower.frame@side"]')
        box = point.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        field = self.page.locator('[data-field="/design/suspensions/0/layout/lower/frame/z_mm"]')
        old = field.input_value()
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x, y - 12, steps=4)
        with self.evaluated():
            self.page.mouse.up()
        self.assertNotEqual(field.input_value(), old)
        self.assertNotEqual(self.margin("Anti-squat, least").inner_text(), before)
        point.focus()
        with self.evaluated():
            self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("Enter")
        expect(self.page.locator('[data-field="/design/suspensions/0/layout/lower/frame/x_mm"]')).to_be_focused()

    def test_an_end_swings_about_the_other_when_the_length_is_held(self):
        self.begin("Triangulated four-link")
        told = self.page.get_by_role("region", name="Lower link, right").get_by_text("from joint to joint")
        before = told.inner_text()
        self.page.get_by_role("button", name="Dragging changes a link's length").click()
        point = self.page.locator('[data-point="suspensions.0.layout.lower.frame@side"]')
        back = self.page.locator('[data-field="/design/suspensions/0/layout/lower/frame/x_mm"]')
        up = self.page.locator('[data-field="/design/suspensions/0/layout/lower/frame/z_mm"]')
        was = (back.input_value(), up.input_value())
        point.focus()
        for _ in range(8):
            with self.evaluated():
                self.page.keyboard.press("Shift+ArrowUp")
        self.assertNotEqual(up.input_value(), was[1])
        self.assertNotEqual(told.inner_text(), before, "its slope has changed")
        self.assertEqual(told.inner_text().split(" from joint")[0], before.split(" from joint")[0])

    def test_while_a_hand_drags_drawing_and_figures_follow_and_at_rest_it_is_judged(self):
        self.begin("Triangulated four-link")
        point = self.page.locator('[data-point="suspensions.0.layout.lower.frame@side"]')
        box = point.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        field = self.page.locator('[data-field="/design/suspensions/0/layout/lower/frame/z_mm"]')
        curve, old = self.curve("Anti-squat").locator('polyline[stroke-width="1.8"]'), field.input_value()
        before, margin = curve.get_attribute("points"), self.margin("Anti-squat, least").inner_text()
        rolls = self.page.get_by_label("Roll", exact=True)
        expect(rolls).to_be_visible()
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        with self.page.expect_response("**/api/travel") as glance:
            self.page.mouse.move(x, y - 12)
        self.assertTrue(glance.value.request.post_data_json["glance"])
        expect(field).not_to_have_value(old)
        expect(curve).not_to_have_attribute("points", before)
        expect(rolls).to_be_visible()
        # the hand still holds it: at rest the margins are its own
        expect(self.margin("Anti-squat, least")).not_to_have_text(margin, use_inner_text=True)
        expect(self.page.locator(".margins-list")).to_have_attribute("data-stale", "false")
        self.page.keyboard.press("Escape")
        self.page.mouse.up()

    def test_a_kerb_strike_is_a_case_of_the_whole_frame(self):
        self.begin("Triangulated four-link")
        with self.evaluated():
            self.page.get_by_label("Spring", exact=True).select_option("coilover")
        self.stage("Cut")
        with self.evaluated():
            self.page.get_by_label("Load case").select_option("kerb")
        row = self.margin("kerb strike")
        row.filter(has_text="of yield").click()
        self.page.get_by_text("met by the masses' own inertia").first.wait_for()
        self.page.get_by_role("button", name="Bent shape").click()
        self.page.get_by_label("Margins").get_by_text("in the case 'Kerb strike").first.wait_for()

    def test_every_hole_is_tried_and_the_best_used(self):
        self.begin("Triangulated four-link")
        finder = self.page.get_by_role("region", name="Which holes?")
        finder.get_by_role("button", name="Try every hole").click()
        self.page.get_by_role("table", name="Map of the frame's holes").wait_for(timeout=60_000)
        self.assertIn("256 combinations", finder.inner_text())
        fields = [
            self.page.locator(f'[data-field="/design/suspensions/0/layout/{link}/{end}/z_mm"]')
            for link in ("upper", "lower")
            for end in ("frame", "axle")
        ]
        before = [field.input_value() for field in fields]
        with self.evaluated():
            finder.get_by_role("button", name="Use these holes").click()
        self.assertNotEqual([field.input_value() for field in fields], before)

    def test_travel_and_roll_move_every_view(self):
        self.begin("Two arms and an upper link")
        link = self.page.locator('[data-view="end"] [data-member="track bar"] line').first
        rest = self.ends(link)
        self.page.get_by_label("Wheel travel").fill("60")
        moved = self.ends(link)
        self.assertNotEqual(rest, moved)
        self.page.get_by_label("Roll", exact=True).fill("4")
        self.assertNotEqual(moved, self.ends(link))
        self.page.get_by_role("button", name="Ride", exact=True).click()
        self.assertEqual(rest, self.ends(link))

    def ends(self, line):
        """Both ends of a line on the screen, px."""
        return [float(line.get_attribute(name)) for name in ("x1", "y1", "x2", "y2")]

    def test_links_that_lie_on_one_point_say_so(self):
        self.begin("Triangulated four-link")
        for key, value in (("x_mm", "2610 mm"), ("y_mm", "365 mm")):
            field = self.page.locator(f'[data-field="/design/suspensions/0/layout/lower/frame/{key}"]')
            field.fill(value)
            field.press("Enter")
        lower = self.page.locator('[data-field="/design/suspensions/0/layout/lower/axle/z_mm"]')
        lower.fill("20 mm")
        lower.press("Enter")
        self.page.get_by_role("alert").filter(has_text="both ends of lower link").wait_for()
        self.page.get_by_label("Margins").get_by_role("button").filter(has_text="not computed and").first.wait_for()

    def test_a_locked_link_is_named_and_curves_end_there(self):
        self.begin("Two arms and an upper link")
        field = self.page.locator('[data-field="/design/suspensions/0/layout/lower/frame/x_mm"]')
        field.fill("2560 mm")
        with self.evaluated():
            field.press("Enter")
        row = self.margin("Linkage reaches its travel").filter(has_text="fails")
        row.wait_for()
        row.click()
        self.page.get_by_text("cannot reach").or_(self.page.get_by_text("dead point")).first.wait_for()

    def test_a_parallel_four_link_binds_in_roll_by_name(self):
        self.begin("Parallel four-link")
        self.margin("Links bind in 3 degrees of roll").wait_for()

    def test_a_shaft_is_added_and_judged(self):
        self.begin("Triangulated four-link")
        shaft = self.page.get_by_role("region", name="Propeller shaft")
        with self.evaluated():
            shaft.get_by_role("button", name="Add it").click()
        angles = self.margin(re.compile("Shaft('s unevenness| joint)"))
        angles.wait_for()
        self.curve("Shaft's unevenness left").wait_for()
        with self.evaluated():
            shaft.get_by_role("button", name="Two pieces with a bearing").click()
        angles.click()
        self.page.get_by_label("Margins").get_by_text("bearing").first.wait_for()
        with self.evaluated():
            shaft.get_by_role("button", name="Something near the shaft").click()
        self.margin("Shaft's tube clears").wait_for()

    def test_a_coilover_is_fitted_to_a_wish(self):
        self.begin("Triangulated four-link")
        with self.evaluated():
            self.page.get_by_label("Spring", exact=True).select_option("coilover")
        fit = self.page.get_by_role("region", name="Fit the coilover")
        fit.get_by_label("Ride frequency, Hz").fill("1.6")
        fit.get_by_label("Ride frequency, Hz").press("Enter")
        fit.get_by_role("button", name="Fit it").click()
        fit.get_by_role("status").filter(has_text="N/mm").wait_for()
        with self.evaluated():
            fit.get_by_role("button", name="Use it").click()
        self.margin("Ride frequency, least").filter(has_text=re.compile(r"1\.(5[5-9]|6[0-5])")).wait_for()

    def test_a_press_means_what_was_typed_just_before_it(self):
        self.begin("Triangulated four-link")
        with self.evaluated():
            self.page.get_by_label("Spring", exact=True).select_option("coilover")
        fit = self.page.get_by_role("region", name="Fit the coilover")
        with self.page.expect_request("**/api/find/coilover") as asked:
            fit.get_by_label("Ride frequency, Hz").fill("1.6")
            fit.get_by_role("button", name="Fit it").click()
        self.assertEqual(asked.value.post_data_json["wish"]["frequency_hz"], 1.6)

    def test_what_was_there_before_is_drawn_behind_it(self):
        self.begin("Triangulated four-link")
        self.page.get_by_text("dashed: as it was").wait_for()
        self.page.get_by_role("button", name="As it was").click()
        self.page.get_by_label("Layout", exact=True).wait_for()
        self.assertEqual(self.page.get_by_label("Layout", exact=True).input_value(), "leaf")
        with self.evaluated():
            self.page.get_by_role("button", name="Take this suspension out").click()
        expect(self.page.get_by_text("dashed: as it was")).to_have_count(0)
        with self.evaluated():
            self.page.get_by_role("group", name="Layouts").get_by_role("button").filter(has_text="Leaf springs").click()
        self.page.get_by_text("dashed: as it was").wait_for()

    def test_the_table_has_every_curve(self):
        self.begin("Triangulated four-link")
        self.page.get_by_role("button", name="Table").click()
        table = self.page.get_by_role("table", name="Figures through travel")
        self.assertGreaterEqual(table.get_by_role("row").count(), 9)


class Mounts(Begun):
    """What holds the suspension, on rails and axle; which link goes where; what ends the travel."""

    def test_mounts_are_asked_for_judged_and_cut(self):
        self.begin("Triangulated four-link")
        with self.evaluated():
            self.page.get_by_label("Spring", exact=True).select_option("coilover")
        with self.evaluated():
            self.page.get_by_label("Middle of the axle").select_option("cast")
        with self.evaluated():
            self.type_in("Its tube begins at", "190 mm")
        with self.evaluated():
            self.page.get_by_role("button", name="Put brackets and mounts into the plan").click()
        self.page.locator('[data-solid="Truss on the rear axle"]').first.wait_for()
        self.margin("Weld clear of a cast housing").filter(has_text="holds").wait_for()
        with self.evaluated():
            self.type_in("Its tube begins at", "215 mm")
        with self.evaluated():
            self.page.get_by_role("button", name="Bring brackets and mounts up to date").click()
        self.margin("Weld clear of a cast housing").filter(has_text="fails").wait_for()
        self.stage("Cut")
        with self.evaluated():
            self.page.get_by_role("button", name="Truss on the rear axle").first.click()
            self.type_in("Feet begin at", "270 mm")
        self.margin("Weld clear of a cast housing").filter(has_text="holds").wait_for()
        self.stage("Patterns")
        self.page.get_by_text("Truss plate, two of it").first.wait_for()
        self.stage("Build")
        self.page.get_by_text("Weld the truss to the tubes").first.wait_for()

    def test_where_a_link_goes_and_how_long_it_is(self):
        self.begin("Triangulated four-link")
        box = self.page.get_by_role("region", name="Where does a link go, and how long?")
        self.type_in("Fore and aft by", "40 mm")
        self.type_in("Up and down by", "40 mm")
        self.type_in("In steps of", "20 mm")
        box.get_by_role("button", name="Try every place").click()
        box.get_by_role("status").filter(has_text="25 places tried").wait_for(timeout=30_000)
        with self.evaluated():
            box.get_by_role("button", name="Put it there").last.click()
        self.type_in("Link at most", "50 mm")
        box.get_by_role("button", name="Try every place").click()
        box.get_by_text("no place in this window gives a link of that length").wait_for(timeout=30_000)

    def test_what_comes_first_and_a_strap(self):
        self.begin("Two arms and an upper link")
        with self.evaluated():
            self.page.get_by_label("Spring", exact=True).select_option("air")
        for title in ("Damper of its own", "Limit strap", "Bump stop"):
            with self.evaluated():
                self.page.get_by_role("region", name=title).get_by_role("button", name="Add it").click()
        table = self.page.get_by_role("table", name="What comes first in bump and in droop")
        table.get_by_role("row").filter(has_text="limit strap taut").wait_for()
        row = table.get_by_role("row").filter(has_text="bump stop touches")
        row.get_by_role("button", name="Go").click()
        self.assertNotEqual(self.page.get_by_label("Wheel travel").input_value(), "0")
        with self.evaluated():
            self.type_in("Length, taut", "400 mm")
        self.margin("Limit strap before anything else").filter(has_text="fails").wait_for()
        self.type_in("Open, eye to eye", "100 mm")
        self.page.get_by_role("alert").filter(has_text="longer open than closed").first.wait_for()

    def test_single_wheels_roll_as_a_pair(self):
        self.begin("Double wishbone")
        wheels = self.page.locator('[data-view="end"] polygon[stroke-dasharray="14 5"]')
        level = [wheels.nth(i).bounding_box()["y"] for i in (0, 1)]
        roll = self.page.get_by_label("Roll", exact=True)
        roll.focus()
        for _ in range(4):
            roll.press("ArrowRight")
        self.page.wait_for_timeout(200)
        rolled = [wheels.nth(i).bounding_box()["y"] for i in (0, 1)]
        self.assertAlmostEqual(level[0], level[1], delta=1)
        self.assertGreater(abs(rolled[0] - rolled[1]), 4)

    def test_the_place_before_the_last_change_stays_to_be_seen(self):
        self.begin("Triangulated four-link")
        ghost = self.page.get_by_text("upper link, right, before the last change")
        expect(ghost).to_have_count(0)
        field = self.page.locator('[data-field="/design/suspensions/0/layout/upper/frame/z_mm"]')
        field.fill("90 mm")
        with self.evaluated():
            field.press("Enter")
        expect(ghost.first).to_be_attached()
