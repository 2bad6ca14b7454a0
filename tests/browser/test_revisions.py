"""Options renamed and thrown away with undo; an old revision told apart, drawn under the sheet and put back."""

from nodulant_server.models import DesignRevision
from tests.browser.base import Bench


class Revisions(Bench):
    def listed(self):
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="Options and revisions").click()
        panel = self.page.get_by_role("dialog", name="Options and revisions")
        panel.get_by_role("article").first.wait_for()
        return panel

    def test_an_old_revision_is_told_apart_drawn_and_put_back(self):
        self.open("Cut")
        with self.evaluated():
            self.type_in("Depth", "2 1/2")
        self.page.get_by_role("button", name="Save revision").click()
        self.page.get_by_role("status").filter(has_text="revision 2").wait_for()
        panel = self.listed()
        newest, first = panel.get_by_role("article").all()
        newest.get_by_text('Arc notch over the axle, Depth: 2 5/16" → 2 1/2"').wait_for()
        first.get_by_role("button", name="Changed since").click()
        first.get_by_text("From then to the newest").wait_for()
        first.get_by_role("button", name="Draw it under the sheet").click()
        self.page.locator("[data-ghost='Revision 1'] path").first.wait_for()
        self.page.get_by_role("button", name="Leave out").click()
        self.page.locator("[data-ghost]").wait_for(state="detached")
        self.listed().get_by_role("article", name="Revision 1").get_by_role("button", name="Put it back").click()
        self.page.get_by_role("status").filter(has_text="revision 3").wait_for()
        self.assertEqual(self.page.get_by_label("Depth", exact=True).input_value(), '2 5/16"')
        stored = DesignRevision.objects.filter(option__job=self.job).order_by("-number").first()
        self.assertEqual((stored.number, stored.note), (3, "revision 1 put back"))

    def test_an_option_is_renamed_noted_and_thrown_away_with_undo(self):
        self.open("Cut")
        panel = self.listed()
        options = panel.get_by_role("region", name="Options", exact=True)
        options.get_by_label("Name (on the bench)").fill("Arc, bolted coilovers")
        options.get_by_label("Note").first.fill("ask the inspector about the liner")
        options.get_by_role("button", name="Keep").first.click()
        # behind an open panel nothing has a role
        named = self.page.locator("select[aria-label='Option'] option")
        named.filter(has_text="Arc, bolted").wait_for(state="attached")
        before = self.job.live_options().count()
        options.get_by_role("button", name="Delete").first.click()
        options.get_by_text("is in the trash").wait_for()
        self.assertEqual(self.job.live_options().count(), before - 1)
        options.get_by_role("button", name="Undo").click()
        options.get_by_text("is in the trash").wait_for(state="detached")
        self.assertEqual(self.job.live_options().count(), before)
        self.assertEqual(self.job.options.order_by("pk")[0].note, "ask the inspector about the liner")

    def test_a_note_on_an_operation_and_on_the_next_revision(self):
        self.open("Cut")
        self.page.get_by_label("Note", exact=True).fill("match the other side's clip hole")
        self.page.keyboard.press("Enter")
        self.page.get_by_role("status").filter(has_text="kept").wait_for()
        panel = self.listed()
        panel.get_by_label("What the next revision is for").fill("agreed with the owner")
        panel.get_by_role("button", name="Save revision").click()
        panel.get_by_role("article", name="Revision 2").get_by_text("agreed with the owner").wait_for()
        stored = DesignRevision.objects.filter(option__job=self.job).order_by("-number").first()
        self.assertEqual(stored.note, "agreed with the owner")
        self.assertIn("match the other side's clip hole", stored.design().notes.values())
