from tests.browser.base import Bench
from tests import fixtures as f
from nodulant.formats.jobfile import load_job
from nodulant_server.models import Job
import json
class Look(Bench):
    def test_look(self):
        d = json.loads(f.DEMO.read_bytes())
        for s in d["surveys"]:
            for side in ("left","right"):
                r = s["survey"]["rails"][side]; r["kind"]="round-tube"; r["inside_radius_mm"]=0
                for st in r["stations"]: st["width_mm"]=st["height_mm"]
        json.dump(d, open("/tmp/tube.nodulant.json","w"))
        self.page.goto(self.live_server_url)
        self.page.wait_for_timeout(800)
        with self.page.expect_file_chooser() as fc:
            self.page.get_by_text("Bring in", exact=False).first.click()
        fc.value.set_files("/tmp/tube.nodulant.json")
        self.page.wait_for_timeout(3000)
        self.page.screenshot(path="/tmp/a.png")
        print(self.page.url)
