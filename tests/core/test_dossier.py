"""The dossier: bookmarks, language, page x of y, reading order, both sides, what is open; the inspector's four pages; the archive."""

import hashlib
import io
import re
import subprocess
import tempfile
import zipfile
from functools import cache
from itertools import pairwise

from django.test import SimpleTestCase
from PIL import Image

from nodulant.asbuilt.floor import PhotoEntry
from nodulant.asbuilt.record import InspectionEntry, OnTheRoadEntry, WeldEntry
from nodulant.assembly.sheet import assembly_sheets
from nodulant.formats.dossier import dossier_pdf
from nodulant.formats.dossier.archive import dossier_zip
from nodulant.formats.jobfile import load_job
from nodulant.job.document import AsBuilt
from nodulant.parts.limit import LimitChange
from tests import fixtures as f
from tests.core.test_springs_beside import on_coils

CHAPTERS = (
    "Summary", "Survey", "Targets and drop stack", "Drawings of the frame", "Sections, stock and planned",
    "Suspension and steering", "Loads and assumptions", "Checks", "Clearance through travel, roll and lock",
    "Hand-check sheet", "Patterns and parts", "Weld, bolt and paint record", "Steps and signatures", "As built",
    "After the first drive", "Cautions", "Signatures",
)  # fmt: skip
WHEN = {"at": "2026-11-20T10:00:00+00:00", "by": "bram"}


def tool(*words, data):
    with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
        file.write(data)
        file.flush()
        told = [file.name if w == "@" else w for w in words]
        return subprocess.run(told, check=True, capture_output=True).stdout


def text(data):
    return tool("pdftotext", "@", "-", data=data).decode()


def of_the_demo(**more):
    inputs = load_job(f.DEMO.read_bytes()).inputs("step")
    return f.dossier_of(inputs, "Wherry <low>", "Step, revision 3", address="https://shop.local/jobs/1", **more)


@cache
def wherry():
    return dossier_pdf(of_the_demo())


class Whole(SimpleTestCase):
    def test_it_is_short_enough_to_be_read(self):
        pages = int(re.search(r"Pages:\s+(\d+)", tool("pdfinfo", "@", data=wherry()).decode())[1])
        self.assertTrue(12 <= pages <= 20, pages)
        for n in range(1, pages + 1):
            self.assertIn(
                f"page {n} of {pages}", tool("pdftotext", "-f", str(n), "-l", str(n), "@", "-", data=wherry()).decode()
            )

    def test_title_language_and_bookmarks(self):
        told = tool("pdfinfo", "@", data=wherry()).decode()
        self.assertIn("Wherry <low>: dossier", told)
        self.assertIn("ada", told)
        self.assertIn(b"/Lang (en)", wherry())
        self.assertGreaterEqual(len(re.findall(rb"/Title \(", wherry())), len(CHAPTERS) - 1)

    def test_chapters_come_in_the_order_they_are_read(self):
        found = text(wherry())
        at, last = [], 0
        for name in CHAPTERS:
            last = re.compile(rf"(?:^|\f){re.escape(name)}", re.M).search(found, last).end()
            at.append(last)
        for (one, a), (other, b) in pairwise(zip(CHAPTERS, at, strict=True)):
            self.assertLess(a, b, f"{one} before {other}")

    def test_every_letter_is_in_its_font(self):
        self.assertNotIn("\u25a0", text(wherry()))

    def test_the_answers_an_inspector_looks_for(self):
        found = " ".join(text(wherry()).split())
        inputs = of_the_demo().inputs
        for words in (
            inputs.survey.vehicle, inputs.content_hash(), "Step, revision 3", "by ada", "2026-12-01",
            "Left rail, front to the left", "Right rail, front to the left", "Both rails from above",
            "about 7/16\" wrong", "119 of 134 build steps are not signed", "Clearances were not swept",
            "licensed engineer", "built by", "looked at by", "Kerb strike, rear wheel", "From the right side and from above",
            "What the worst place hangs on", "cannot tell",
        ):  # fmt: skip
            self.assertIn(words, found, words)

    def test_steering_is_drawn_at_both_locks_and_every_seam_has_its_flag(self):
        told = text(wherry())
        for words in ("Steering, front, from above", "Full left.", "Straight ahead.", "Full right.", "Weld map"):
            self.assertIn(words, told)
        flags = told[told.index("Weld map") : told.index("Steps and signatures")]
        for sheet in assembly_sheets(load_job(f.DEMO.read_bytes()).inputs("step")):
            for weld in sheet.view.welds:
                self.assertIn(f"W{weld.number}", flags, sheet.name)

    def test_nothing_that_steers_draws_no_steering(self):
        inputs = f.job("ostrand").inputs("watts")
        told = text(dossier_pdf(f.dossier_of(inputs, "Ostrand", "Watts, revision 1")))
        self.assertNotIn("from above: front", told)

    def test_a_bar_of_four_inches_is_four_inches(self):
        """Rasterised at 254 dots an inch the bar is the longest run of black on its page: 1016 of them."""
        page = next(
            n
            for n in range(1, 8)
            if "on paper: measure" in tool("pdftotext", "-f", str(n), "-l", str(n), "@", "-", data=wherry()).decode()
        )
        png = tool("pdftoppm", "-r", "254", "-f", str(page), "-l", str(page), "-gray", "-png", "@", data=wherry())
        image = Image.open(io.BytesIO(png)).convert("L")
        wide, high = image.size
        pixels = image.load()
        runs = set()
        for y in range(high):
            run = 0
            for x in range(wide):
                run = run + 1 if pixels[x, y] < 120 else 0
                runs.add(run)
        self.assertTrue(any(abs(r - 1016) <= 3 for r in runs), sorted(runs)[-5:])


class Beside(SimpleTestCase):
    def test_the_inspector_s_is_four_pages(self):
        short = dossier_pdf(of_the_demo(), short=True)
        self.assertIn("Pages:           4", tool("pdfinfo", "@", data=short).decode())
        self.assertIn("Signatures", text(short))

    def test_it_is_four_pages_however_much_does_not_hold(self):
        inputs = load_job(f.DEMO.read_bytes()).inputs("step")
        strict = {"axle-weld": LimitChange(value=0.1, reason="a welder of little practice")}
        design = inputs.design.model_copy(update={"limits": strict})
        strained = f.dossier_of(inputs.model_copy(update={"design": design}))
        more = sum(g.verdict != "holds" for g in strained.result.groups)
        self.assertGreater(more, sum(g.verdict != "holds" for g in of_the_demo().result.groups) + 5)
        self.assertRegex(tool("pdfinfo", "@", data=dossier_pdf(strained, short=True)).decode(), r"Pages:\s+4\b")

    def test_a_bump_on_springs_beside_the_rails_is_a_case_where_it_was_asked(self):
        case = "with what springs beside the rails twist them by"
        self.assertNotIn(case, " ".join(text(wherry()).split()))
        self.assertIn(case, " ".join(text(dossier_pdf(f.dossier_of(on_coils(500.0)))).split()))

    def test_a_limit_that_no_check_has_is_told_as_that(self):
        """A document of another hand, or of a time when a limit had another name."""
        inputs = f.demo("arc")
        design = inputs.design.model_copy(update={"limits": {"of-old": LimitChange(value=8.0, reason="as agreed")}})
        said = " ".join(text(dossier_pdf(f.dossier_of(inputs.model_copy(update={"design": design})))).split())
        self.assertIn("no check has this limit", said)

    def test_what_was_written_stands_in_it(self):
        inputs = f.demo("arc")
        changed = inputs.design.model_copy(
            update={"limits": {"metal-clearance": LimitChange(value=8.0, reason="rubber stop fitted")}}
        )
        picture = io.BytesIO()
        Image.new("RGB", (60, 40), "red").save(picture, "JPEG")
        sha = hashlib.sha256(picture.getvalue()).hexdigest()
        entries = (
            WeldEntry(**WHEN, number=1, joint="axle-notch/weld-1/left", operator="bram", wire="solid 0.8", dye="marks"),
            PhotoEntry(**WHEN, number=2, step="axle-notch/weld/left", sha256=sha, text="root from inside"),
            OnTheRoadEntry(**WHEN, number=3, first="2026-12-01", km_week=250.0),
            InspectionEntry(**WHEN, number=4, km=100, what="axle-notch/welds", ok=False, found="rust line"),
        )
        own = inputs.model_copy(update={"design": changed, "as_built": AsBuilt(entries=entries)})
        found = " ".join(text(dossier_pdf(f.dossier_of(own, photos={sha: picture.getvalue()}))).split())
        for words in (
            "rubber stop fitted",
            "solid 0.8",
            "dye: marks",
            "1 welds to repair",
            "root from inside",
            "due 2026-12-04",
            "rust line",
            "not well",
        ):
            self.assertIn(words, found, words)

    def test_the_archive_holds_what_it_lists(self):
        job = f.DEMO.read_bytes()
        made = dossier_zip(f.dossier_of(f.demo("arc"), photos={"0" * 64: b"\xff\xd8"}), job)
        with zipfile.ZipFile(io.BytesIO(made)) as file:
            names = set(file.namelist())
            self.assertEqual(
                names, {"contents.csv", "dossier.pdf", "inspection.pdf", "job.nodulant.json", f"photos/{'0' * 64}.jpg"}
            )
            rows = [row.split(",") for row in file.read("contents.csv").decode("utf-8-sig").split("\r\n")[1:] if row]
            for name, size, sha in rows:
                self.assertEqual((int(size), sha), (len(file.read(name)), hashlib.sha256(file.read(name)).hexdigest()))

    def test_the_same_job_gives_the_same_paper(self):
        one, other = (dossier_pdf(f.dossier_of(f.demo("arc"))) for _ in range(2))
        self.assertEqual(one, other)
