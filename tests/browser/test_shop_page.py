"""The shop's page: somebody is invited and joins, a reader looks by a link, what happened is read."""

import re

from playwright.sync_api import expect

from tests.browser.base import Bench, browser

WORD = "a-word-nobody-guesses"


class ShopPage(Bench):
    def open_shop(self, tab="People"):
        self.page.goto(self.live_server_url)
        self.page.get_by_role("link", name="The shop and its people").click()
        self.page.get_by_role("tab", name=tab).click()

    def other(self):
        """Another browser, where nobody is signed in."""
        context = browser().new_context(viewport={"width": 390, "height": 844})
        self.addCleanup(context.close)
        return self.watch(context.new_page())

    def link(self):
        text = self.page.get_by_role("status").filter(has_text="shown this once").inner_text()
        return re.search(r"http\S+", text).group(0)

    def test_somebody_is_invited_and_joins_with_a_password_of_their_own(self):
        self.open_shop()
        self.page.get_by_role("button", name="Make an invitation").click()
        self.page.get_by_text("Links that are out").wait_for()
        page = self.other()
        page.goto(self.link())
        page.get_by_role("heading", name="Join 'Demo shop' as helper").wait_for()
        page.get_by_label("Your name here").fill("nell")
        page.get_by_label("Password, eight or more").fill("short")
        page.get_by_role("button", name="Join").click()
        page.get_by_role("alert").filter(has_text="too short").wait_for()
        page.get_by_label("Password, eight or more").fill(WORD)
        page.get_by_role("button", name="Join").click()
        page.get_by_text("nell, helper").wait_for()
        page.goto(self.link())  # once only
        page.get_by_text("does not hold any more").wait_for()
        self.page.reload()
        self.page.get_by_label("nell may do").select_option("reader")
        page.goto(self.live_server_url)
        page.get_by_text("nell, reader").wait_for()
        self.page.get_by_role("button", name="Shut out").last.click()
        self.page.get_by_text("shut out;").wait_for()
        page.reload()
        page.get_by_text("ada, owner").wait_for()  # nell is nobody here any more: the demo takes its owner
        self.assertEqual([e for e in self.errors if "status of 40" not in e], [])

    def test_a_reader_looks_by_a_link_until_it_is_taken_back(self):
        self.open()
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="Reader's link").click()
        self.page.get_by_label("For whom").fill("the inspector")
        self.page.get_by_role("button", name="Make a link").click()
        page = self.other()
        page.goto(self.link())
        page.get_by_label("Sheet: side elevation above plan").wait_for()
        page.get_by_text("to look at").first.wait_for()
        self.page.get_by_role("button", name="Take back").click()
        self.page.get_by_text("the inspector, until").wait_for(state="hidden")
        page.reload()
        page.get_by_label("Person").wait_for()
        expect(page.get_by_label("Person")).to_have_value("ada")  # the demo's owner came in the reader's place

    def test_what_happened_is_read_and_a_copy_is_told(self):
        self.open_shop("What happened")
        expect(self.page.get_by_role("table", name="What happened").get_by_text("job imported")).to_have_count(3)
        self.page.get_by_role("tab", name="You").click()
        self.page.get_by_text("This browser").wait_for()
        self.page.get_by_role("tab", name="Server and backups").click()
        self.page.get_by_text("revisions are stored").wait_for()
