"""Examples that both the core and the browser's formatter must agree on."""

READ = (
    # text, kind, unit where none is typed, value in the base unit, unit as typed
    ("3 7/16", "length", "in", 87.3125, "in"),
    ('3-7/16"', "length", "in", 87.3125, "in"),
    ("3.4375in", "length", "mm", 87.3125, "in"),
    ("87.3 mm", "length", "in", 87.3, "mm"),
    ("1' 4 1/2\"", "length", "in", 419.1, "ft"),
    ("1' 4", "length", "mm", 406.4, "ft"),
    ("2 1/2", "length", "in", 63.5, "in"),
    ("2 1/2", "length", "mm", 2.5, "mm"),
    ("7/8", "length", "in", 22.225, "in"),
    (" 12 cm ", "length", "in", 120.0, "cm"),
    (".5", "length", "in", 12.7, "in"),
    ("-4", "length", "mm", -4.0, "mm"),
    ("−4 mm", "length", "in", -4.0, "mm"),
    ("6”", "length", "mm", 152.4, "in"),
    ("1.5 feet", "length", "mm", 457.2, "ft"),
    ("4.5deg", "angle", "deg", 4.5, "deg"),
    ("4.5°", "angle", "deg", 4.5, "deg"),
    ("265 lb", "mass", "kg", 120.20197805, "lb"),
    ("1.2 t", "mass", "kg", 1200.0, "t"),
    ("13000 lb", "force", "N", 57826.8809983865, "lb"),
    ("900 lbf", "force", "N", 4003.39945373445, "lbf"),
    ("140 lb/in", "rate", "N/mm", 24.517756934506693, "lb/in"),
    ("32", "rate", "N/mm", 32.0, "N/mm"),
    ("180", "rate", "lb/in", 31.522830344365747, "lb/in"),
    ("100 psi", "pressure", "bar", 6.894757293168361, "psi"),
    ("5,5 bar", "pressure", "psi", 5.5, "bar"),
    ("3,25", "length", "in", 82.55, "in"),
    (",5", "length", "in", 12.7, "in"),
    ("12-1/2", "length", "in", 317.5, "in"),
    ("87,3 mm", "length", "in", 87.3, "mm"),
    ("0.5", "number", "", 0.5, ""),
    ("1/3", "number", "", 1 / 3, ""),
)
TAPE = tuple(
    (f'{whole} {over}/{below}"' if whole else f'{over}/{below}"', "length", "mm", 25.4 * (whole + over / below), "in")
    for below in (2, 4, 8, 16, 32, 64)
    for over in range(1, below, 2)
    for whole in (0, 3, 118)
)
"""Every mark of an inch tape, in the first inch and further on: inches of 25.4 mm."""

REFUSED = (
    # text, kind, place of the trouble, a word of the message
    ("", "length", 0, "nothing"),
    ("   ", "length", 3, "nothing"),
    ("abc", "length", 0, "number"),
    ("3 7/0", "length", 4, "fraction"),
    ("12 parsec", "length", 3, "unit"),
    ("3 - 7/16", "length", 2, "number"),
    ("3 deg", "length", 2, "unit"),
    ("3 mm 4 mm", "length", 5, "one quantity"),
    ("1' 2\" 3", "length", 6, "one quantity"),
    ("1e9", "length", 1, "unit"),
    ("nan", "length", 0, "number"),
    ("5 kg", "length", 2, "unit"),
    ("--3", "length", 1, "number"),
    ("4..5", "length", 2, "one quantity"),
    ("1,500", "length", 0, "either"),
    ("5 psi", "rate", 2, "unit"),
    ("1" * 61, "length", 60, "too long"),
)
SHOWN = (
    # mm, style, as shown
    (87.3125, "in16", '3 7/16"'),
    (87.3, "in16", '3 7/16"'),
    (0.0, "in16", '0"'),
    (-63.5, "in16", '-2 1/2"'),
    (-0.2, "in16", '0"'),
    (25.4, "in16", '1"'),
    (12.7, "in16", '1/2"'),
    (1.6, "in32", '1/16"'),
    (0.8, "in32", '1/32"'),
    (63.5, "in", '2.5"'),
    (100.0, "in", '3.937"'),
    (87.34, "mm", "87.3 mm"),
    (60.0, "mm", "60 mm"),
    (-0.01, "mm", "0 mm"),
    (2610.0, "in16", '102 3/4"'),
)
THICKNESS = (
    # mm, style, as shown: an inch fraction only where it is one
    (6.35, "in16", '1/4"'),
    (4.7625, "in16", '3/16"'),
    (5.0, "in16", '0.197"'),
    (4.0, "in16", '0.157"'),
    (6.0, "in32", '0.236"'),
    (6.35, "mm", "6.35 mm"),
    (3.175, "in", '1/8"'),
)
TOLD = (
    # value in the core's unit, kind, style, as told; pounds and feet by their definitions
    (3.4162, "factor", "in16", "3.4"),
    (0.9221, "factor", "mm", "0.92"),
    (12.4, "factor", "mm", "12"),
    (1000.0, "factor", "mm", "1 000"),
    (0.0, "number", "mm", "0"),
    (0.00001, "number", "mm", "0.0000"),
    (0.52207, "ratio", "mm", "0.52"),
    (0.2934, "share", "in16", "29 %"),
    (0.9978, "share", "mm", "99.8 %"),
    (1.0, "share", "mm", "100 %"),
    (1.033, "share", "mm", "103 %"),
    (8000.0, "force", "mm", "8 kN"),
    (8000.0, "force", "in16", "1 798 lbf"),
    (3451324.0, "moment", "mm", "3.45 kN m"),
    (3451324.0, "moment", "in16", "2 546 lbf ft"),
    (248.0, "stress", "mm", "248 MPa"),
    (248.0, "stress", "in16", "36 ksi"),
    (1.8467, "angle", "mm", "1.8 deg"),
    (0.4431, "mass", "mm", "0.443 kg"),
    (0.4431, "mass", "in32", "0.977 lb"),
    (2e6, "cycles", "mm", "2 000 000 cycles"),
    (1234567.0, "cycles", "mm", "1 200 000 cycles"),
    (1e9, "cycles", "mm", "more than 100 million cycles"),
    (15.4, "minutes", "mm", "15 min"),
    (364.257, "stiffness", "mm", "364 N m/deg"),
    (364.257, "stiffness", "in16", "269 lbf ft/deg"),
    (7.0, "count", "mm", "7"),
    (58.7375, "length", "in16", '2 5/16"'),
    (58.7375, "length", "mm", "58.7 mm"),
    (5.0, "thickness", "in16", '0.197"'),
)

FIGURES = [
    # value, unit, style, text; conversions by NIST SP 811 (lbf 4.4482216152605 N, in 25.4 mm, lb 0.45359237 kg)
    (1000.0, "N", "in16", "225 lbf"),
    (1000.0, "N", "mm", "1000 N"),
    (28.0, "N/mm", "in32", "160 lb/in"),
    (1000.0, "N m", "in16", "738 lbf ft"),
    (355.0, "MPa", "in16", "51.5 ksi"),
    (355.0, "MPa", "mm", "355 MPa"),
    (6.89, "bar", "in16", "99.9 psi"),
    (10.0, "kg", "in16", "22 lb"),
    (11.2, "m", "in16", "36.7 ft"),
    (645.16, "mm²", "in16", "1 in²"),
    (1250.0, "mm²", "mm", "12.5 cm²"),
    (1099411.0, "mm⁴", "mm", "110 cm⁴"),
    (4162314.256, "mm⁴", "in16", "10 in⁴"),
    (0.035, "share", "in16", "4 %"),
    (25.4, "mm", "in16", '1"'),
    (1.234567, "", "mm", "1.23"),
]
"""Figures with their units, as the job's unit system has them; the core and the screen both tell these."""
