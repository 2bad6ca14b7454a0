"""Help inside: the word of a field, the words, how-to pages, keys, find and do, and the look round."""

from nodulant.glossary.terms import TERMS
from tests.browser.base import Bench
from tests.browser.test_axe import AXE, RUN


class Help(Bench):
    def by_key(self, keys):
        self.page.locator("body").press(keys)

    def test_a_field_tells_its_word_and_from_where_to_where(self):
        self.open("Cut")
        self.page.get_by_label("Depth", exact=True).click()
        beside = self.page.get_by_label("What is asked: Notch depth")
        beside.get_by_role("img").wait_for()
        self.page.get_by_label("Cut from", exact=True).focus()
        beside.wait_for()
        self.stage("Survey")
        self.page.get_by_label("Wheelbase, hub to hub").click()
        self.page.get_by_label("What is asked: Wheelbase").wait_for()
        self.page.get_by_role("button", name="Not here").click()
        self.page.get_by_label("Loaded radius", exact=True).first.click()
        self.page.get_by_label("What is asked: Loaded radius").wait_for(state="detached")

    def test_words_are_searched_and_how_to_pages_are_inside(self):
        self.open("Cut")
        self.by_key("?")
        panel = self.page.get_by_role("dialog", name="Help")
        panel.locator("dt").first.wait_for()
        self.assertEqual(panel.locator("dt").count(), len(TERMS))
        panel.get_by_label("Search words").fill("backspac")
        panel.get_by_text("No word has 'backspac'").wait_for()
        panel.get_by_label("Search words").fill("back spacing")
        panel.locator("dt").filter(has_text="Back spacing").wait_for()
        panel.get_by_role("tab", name="How to").click()
        panel.get_by_role("navigation").get_by_role("button").filter(has_text="notch").click()
        panel.get_by_role("heading", level=1).filter(has_text="notch").wait_for()
        self.page.evaluate(f"() => {{ {AXE.read_text()}; }}")
        self.assertEqual(self.page.evaluate(RUN), [])

    def test_find_and_do_goes_to_a_field_a_stage_and_an_act(self):
        self.open("Survey")
        self.by_key("Control+k")
        self.page.get_by_placeholder("a stage, a field").fill("depth arc notch")
        self.page.get_by_role("option").filter(has_text="Depth").first.click()
        self.page.wait_for_function("() => document.activeElement?.dataset.field?.endsWith('/depth_mm')")
        self.by_key("Control+k")
        self.page.get_by_placeholder("a stage, a field").fill("steering")
        self.page.keyboard.press("Enter")
        self.page.get_by_role("region", name="Steering", exact=True).wait_for()
        self.by_key("Control+k")
        self.page.get_by_placeholder("a stage, a field").fill("zzzz")
        self.page.get_by_text("Nothing has that in its name").wait_for()

    def test_the_look_round_shows_one_thing_at_a_time(self):
        self.open("Cut")
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="Look round").click()
        card = self.page.get_by_role("dialog", name="Look round")
        card.wait_for()
        for k in range(10):
            card.get_by_text(f"{k + 1} of 10").wait_for()
            self.page.wait_for_function("() => document.querySelectorAll('.looked-at').length === 1")
            card.get_by_role("button").last.click()
        card.wait_for(state="detached")
        self.assertEqual(self.page.locator(".looked-at").count(), 0)

    def test_letters_can_be_kept_from_acting_by_themselves(self):
        self.open("Cut")
        self.by_key("?")
        self.page.get_by_role("tab", name="Keys").click()
        self.page.get_by_role("button", name="Letters and digits act by themselves").click()
        self.page.get_by_role("button", name="Close").click()
        self.by_key("1")
        self.page.wait_for_timeout(300)
        self.page.get_by_role("region", name="Cut", exact=True).wait_for()
        self.by_key("Control+k")
        self.page.get_by_placeholder("a stage, a field").wait_for()
