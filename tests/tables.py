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
    ("0.5", "number", "", 0.5, ""),
    ("1/3", "number", "", 1 / 3, ""),
)
REFUSED = (
    # text, kind, place of the trouble, a word of the message
    ("", "length", 0, "nothing"),
    ("   ", "length", 3, "nothing"),
    ("abc", "length", 0, "number"),
    ("3 7/0", "length", 4, "fraction"),
    ("12 parsec", "length", 3, "unit"),
    ("3 deg", "length", 2, "unit"),
    ("3 mm 4 mm", "length", 5, "one quantity"),
    ("1' 2\" 3", "length", 6, "one quantity"),
    ("1e9", "length", 1, "unit"),
    ("nan", "length", 0, "number"),
    ("5 kg", "length", 2, "unit"),
    ("--3", "length", 1, "number"),
    ("4..5", "length", 2, "one quantity"),
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
    (5.0, "in16", "5 mm"),
    (4.0, "in16", "4 mm"),
    (6.0, "in32", "6 mm"),
    (6.35, "mm", "6.35 mm"),
    (3.175, "in", '1/8"'),
)
