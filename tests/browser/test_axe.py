"""Every stage in both lights by axe-core's rules (WCAG 2.2 A and AA, best practice): no finding above minor."""

from tests.browser.base import Bench
from tests.fixtures import ROOT

AXE = ROOT / "web/node_modules/axe-core/axe.min.js"
RUN = """
async () => {
  const found = await axe.run(document, { resultTypes: ['violations'] });
  return found.violations
    .filter((v) => v.impact !== 'minor')
    .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 140)} ${n.failureSummary?.slice(0, 160)}`));
}
"""
STAGES = ("Survey", "Target", "Cut", "Travel", "Steering", "Clearance", "Patterns", "Build", "Prove")


class Axe(Bench):
    """In daylight."""

    maxDiff = None

    def found_on(self, name):
        self.page.evaluate(f"() => {{ {AXE.read_text()}; }}")  # the page's own policy lets no foreign script in
        rows = self.page.evaluate(RUN)
        return {name: sorted(set(rows))} if rows else {}

    def test_no_serious_finding_on_any_stage(self):
        self.open("Cut")
        found = {}
        for stage in STAGES:
            self.stage(stage)
            self.page.wait_for_timeout(700)
            found |= self.found_on(stage)
        self.assertEqual(found, {})

    def test_no_serious_finding_on_the_jobs_page_and_beside_it(self):
        self.page.goto(self.live_server_url)
        self.page.get_by_role("link", name="Wherry").wait_for()
        found = self.found_on("jobs")
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/compare")
        self.page.get_by_role("heading", level=1).wait_for()
        found |= self.found_on("compare")
        self.page.goto(f"{self.live_server_url}/shop")
        for tab in ("People", "You", "What happened", "Server and backups"):
            self.page.get_by_role("tab", name=tab).click()
            self.page.get_by_role("tabpanel").locator("*").first.wait_for()
            self.page.wait_for_timeout(400)
            found |= self.found_on(tab)
        self.assertEqual(found, {})


class AxeAtNight(Axe):
    """With the dark scheme."""

    scheme = "dark"
