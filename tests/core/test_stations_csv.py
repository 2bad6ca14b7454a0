"""Rail stations from CSV: any order of columns, units in head or value, errors by line."""

from django.test import SimpleTestCase

from nodulant.formats.stations_csv import StationsRefused, read_stations

GOOD = "x mm,underside mm,height mm,width mm,wall mm\n0,0,150,60,5\n1000,0,150,60,5\n"


class Reading(SimpleTestCase):
    def test_plain(self):
        first, second = read_stations(GOOD)
        self.assertEqual((first.x_mm, second.x_mm, second.height_mm, second.wall_mm), (0, 1000, 150, 5))

    def test_inches_and_fractions_and_another_order(self):
        rows = read_stations('wall;x;height;width;z\n3/16";0;5 7/8;2 3/8;0\n3/16";39 3/8;5 7/8;2 3/8;1/8\n', "in")
        self.assertAlmostEqual(rows[1].x_mm, 39.375 * 25.4)
        self.assertAlmostEqual(rows[0].wall_mm, 4.7625)

    def test_an_unmeasured_wall_stays_unmeasured(self):
        self.assertIsNone(read_stations(GOOD.replace("1000,0,150,60,5", "1000,0,150,60,"))[1].wall_mm)

    def test_blank_lines_are_no_stations(self):
        self.assertEqual(len(read_stations(GOOD + "\n,,,,\n")), 2)


class Refusing(SimpleTestCase):
    ROWS = (
        ("", "/line/1", "empty"),
        ("a,b,c\n1,2,3\n", "/line/1", "no known head"),
        ("x,height,width\n0,150,60\n", "/line/1", "column is missing"),
        (GOOD.replace("1000,0", "long,0"), "/line/3", "number"),
        (GOOD.replace("1000,0", "0,0"), "/line/3", "behind"),
        (GOOD.replace("1000,0", "nan,0"), "/line/3", "number"),
        (GOOD.replace("150,60,5\n1000", "-150,60,5\n1000"), "/line/2", "too small"),
        (GOOD.replace("1000,0,150", "1000,0,9000"), "/line/3", "too large"),
        (GOOD.replace("1000,0,150,60,5", "1000,0,150,60,30"), "/line/3", "too thick"),
        (GOOD.replace("1000,0", "1000 parsec,0"), "/line/3", "unit"),
        ("x,underside,height,width,wall\n0,0,150,60,5\n", "/line/1", "1 stations"),
        (GOOD + "2000,0\n", "/line/4", "left out"),
    )

    def test_each_line_is_named(self):
        for text, pointer, word in self.ROWS:
            with self.subTest(word), self.assertRaises(StationsRefused) as caught:
                read_stations(text)
            first = caught.exception.problems[0]
            self.assertEqual(first.pointer, pointer, first)
            self.assertIn(word, first.message)

    def test_all_bad_lines_at_once(self):
        with self.assertRaises(StationsRefused) as caught:
            read_stations(GOOD + "x,0,150,60,5\ny,0,150,60,5\n")
        self.assertEqual([p.pointer for p in caught.exception.problems], ["/line/4", "/line/5"])
