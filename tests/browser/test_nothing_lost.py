"""What was typed is never lost without a word: reloads, other tablets, other people, no network, a full browser."""

import json

from nodulant_server.actions.save import save_design, save_survey
from nodulant_server.models import DesignRevision, Draft
from nodulant_server.roles import acting_as
from tests.browser.base import Bench

DEPTH = "Depth"


class NothingLost(Bench):
    def depth(self, page=None):
        return (page or self.page).get_by_label(DEPTH, exact=True).input_value().rstrip('"')

    def kept(self, page=None):
        (page or self.page).get_by_role("status").filter(has_text="kept").wait_for()
        (page or self.page).wait_for_timeout(1600)

    def option(self):
        return self.job.live_options()[0]

    def someone_saves(self):
        option = self.option()
        head = option.head()
        design = head.design()
        notch = next(i for i, op in enumerate(design.operations) if op.kind == "notch")
        ops = list(design.operations)
        ops[notch] = ops[notch].model_copy(update={"name": "Saved by another"})
        save_design(
            acting_as(self.job.owner),
            option,
            head.number,
            design.model_copy(update={"operations": tuple(ops)}),
            "theirs",
            "elsewhere",
        )

    def offline(self):
        self.context.route("**/api/**", lambda route: route.abort())

    def online(self):
        self.context.unroute("**/api/**")

    def test_work_is_there_after_a_reload_before_it_was_sent(self):
        self.open("Cut")
        self.type_in(DEPTH, "2 7/16")
        self.page.reload()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.assertEqual(self.depth(), "2 7/16")

    def test_what_others_measured_meanwhile_is_not_overwritten_after_a_reload(self):
        """The draft knows the survey it was typed on: the save is told apart, and both readings stay."""
        self.open("Survey")
        self.type_in("Wheelbase, hub to hub", "104")
        self.kept()
        survey = self.job.survey_head().survey()
        tyre = survey.rear.model_copy(update={"tyre": "205/70R15"})
        save_survey(
            acting_as(self.job.owner), self.job, self.job.survey_head().number, survey.model_copy(update={"rear": tyre})
        )
        self.page.reload()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.page.get_by_role("button", name="Save revision").click()
        self.page.get_by_role("status").filter(has_text="their readings and yours are both here").wait_for()
        self.page.get_by_role("button", name="Save revision").click()
        self.page.get_by_role("status").filter(has_text="kept: revision").wait_for()
        saved = self.job.survey_head().survey()
        self.assertEqual(saved.rear.tyre, "205/70R15")
        self.assertAlmostEqual(saved.wheelbase_mm, 104 * 25.4, places=3)

    def test_a_new_tab_goes_on_where_the_closed_one_stopped(self):
        self.open("Cut")
        self.type_in(DEPTH, "2 7/16")
        self.kept()
        self.page.close()
        page = self.watch(self.context.new_page())
        self.open("Cut", page)
        self.assertEqual(self.depth(page), "2 7/16")
        self.assertEqual(page.get_by_role("alert").filter(has_text="nsaved work").count(), 0)
        page.wait_for_timeout(2000)
        self.assertEqual(Draft.objects.filter(option=self.option()).count(), 1, "taken over, not doubled")

    def test_two_tabs_keep_their_own_work(self):
        self.open("Cut")
        self.type_in(DEPTH, "2 7/16")
        self.kept()
        page = self.watch(self.context.new_page())
        self.open("Cut", page)
        self.type_in(DEPTH, "2 1/2", page)
        self.kept(page)
        self.assertEqual((self.depth(), self.depth(page)), ("2 7/16", "2 1/2"))
        self.assertEqual(Draft.objects.filter(option=self.option()).count(), 2)

    def test_one_sign_in_on_two_tablets(self):
        self.open("Cut")
        self.type_in(DEPTH, "2 7/16")
        self.kept()
        other = self.context.browser.new_context(viewport=self.size)
        self.addCleanup(other.close)
        page = self.watch(other.new_page())
        self.open("Cut", page)
        found = page.get_by_role("alert").filter(has_text="Your unsaved work, not of this tab")
        found.wait_for()
        self.type_in(DEPTH, "2 1/2", page)
        self.kept(page)
        self.assertEqual(Draft.objects.filter(option=self.option()).count(), 2)
        found.get_by_role("button", name="Keep it as an option").click()
        page.get_by_role("combobox", name="Option").locator("option").filter(has_text=", ada").wait_for(
            state="attached"
        )
        page.wait_for_timeout(500)
        self.assertEqual(self.depth(page), "2 7/16")

    def test_offline_work_is_offered_when_somebody_saved_meanwhile(self):
        self.open("Cut")
        self.offline()
        self.type_in(DEPTH, "2 7/16")
        self.page.get_by_role("status").filter(has_text="not kept").wait_for()
        self.page.goto("about:blank")
        self.online()
        self.someone_saves()
        self.open("Cut")
        self.page.get_by_text("Saved by another").first.wait_for()
        offer = self.page.get_by_role("alert").filter(has_text="nsaved work")
        offer.get_by_text("made on revision 1: someone saved since").wait_for()
        offer.get_by_role("button", name="Keep it as an option").click()
        offer.wait_for(state="detached")
        self.page.wait_for_timeout(800)
        self.assertEqual(self.depth(), "2 7/16")
        self.assertEqual(self.option().head().number, 2)
        names = [o.name for o in self.job.live_options()]
        self.assertTrue(any(n.startswith(f"{self.option().name}, ") for n in names), names)

    def test_what_is_offered_outlives_new_work_and_a_reload(self):
        """Left unanswered, the offer is still there after this tab has typed and saved something else."""
        self.open("Cut")
        self.offline()
        self.type_in(DEPTH, "2 7/16")
        self.page.get_by_role("status").filter(has_text="not kept").wait_for()
        self.page.goto("about:blank")
        self.online()
        self.someone_saves()
        self.open("Cut")
        self.type_in(DEPTH, "2 3/8")
        self.kept()
        self.page.get_by_role("button", name="Save revision").click()
        self.page.get_by_role("status").filter(has_text="revision 3").wait_for()
        self.page.reload()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        offer = self.page.get_by_role("alert").filter(has_text="made on revision 1")
        before = self.job.live_options().count()
        offer.get_by_role("button", name="Keep it as an option").first.click()
        self.page.wait_for_timeout(2000)
        self.assertEqual((self.depth(), self.job.live_options().count()), ("2 7/16", before + 1))

    def test_it_is_sent_again_by_itself_when_the_server_is_back(self):
        self.open("Cut")
        self.offline()
        self.type_in(DEPTH, "2 7/16")
        self.page.get_by_role("status").filter(has_text="not kept").wait_for()
        self.online()
        self.page.get_by_role("status").filter(has_text="kept").filter(has_not_text="not kept").wait_for()
        draft = Draft.objects.get(option=self.option())
        notch = next(op for op in draft.document["operations"] if op["kind"] == "notch")
        self.assertAlmostEqual(notch["depth_mm"], 2.4375 * 25.4, places=3)

    def test_one_tablet_two_people(self):
        """Work that one typed is never saved as another's."""
        self.open("Cut")
        self.offline()
        self.type_in(DEPTH, "2 7/16")
        self.page.get_by_role("status").filter(has_text="not kept").wait_for()
        self.page.goto("about:blank")
        self.online()
        self.page.goto(self.live_server_url)
        self.page.get_by_role("heading", name="Nodulant").wait_for()
        self.page.evaluate(
            """() => fetch('/api/session/switch', {method: 'POST', body: JSON.stringify({name: 'bram'}),
            headers: {'Content-Type': 'application/json', 'X-CSRFToken': document.cookie.match(/csrftoken=([^;]+)/)[1]}})"""
        )
        self.open("Cut")
        self.assertEqual(self.depth(), "2 5/16")
        self.assertEqual(DesignRevision.objects.filter(by="bram").count(), 0)

    def test_what_cannot_be_read_in_the_browser_stops_nothing(self):
        self.open("Cut")
        self.page.evaluate(
            '(id) => localStorage.setItem(`nodulant-kept/ada/${id}/x.y`, \'{"base": 1, "draft\')', self.option().pk
        )
        self.page.reload()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.assertEqual(self.depth(), "2 5/16")

    def test_a_full_browser_is_said_and_the_server_has_the_work(self):
        self.open("Cut")
        self.page.evaluate(
            "() => { Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError') } }"
        )
        self.type_in(DEPTH, "2 7/16")
        self.page.get_by_role("status").filter(has_text="storage is full or shut").wait_for()
        self.page.wait_for_timeout(1800)
        draft = Draft.objects.get(option=self.option())
        self.assertIn("2 7/16", json.dumps(draft.document["typed"]))

    def test_the_last_word_is_sent_as_the_page_goes(self):
        self.open("Cut")
        self.type_in(DEPTH, "2 7/16")
        self.page.goto("about:blank")
        self.page.wait_for_timeout(1500)
        self.assertTrue(Draft.objects.filter(option=self.option()).exists())
