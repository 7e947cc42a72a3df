/** Made from the definitions of the fields: make schema. */
export const PART_FIELDS = [
  {
    "name": "quantity",
    "heading": "Count",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "name",
    "heading": "Name",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "stock",
    "heading": "Stock",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "length",
    "heading": "Length",
    "help": "",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "thickness",
    "heading": "Thickness",
    "help": "where it is not the stock’s own",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "width",
    "heading": "Width",
    "help": "where it is not the stock’s own",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "ends",
    "heading": "End angles",
    "help": "20 -20; 45 stub 3/8, 0; point 45, 0",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "edges",
    "heading": "Bevelled edges",
    "help": "left and right, such as 45 45",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "notches",
    "heading": "Notches",
    "help": "1 1/8 x 2 at top right; 1 x 3 at bottom, 12 from left",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "outline",
    "heading": "Outline",
    "help": "corners from left and bottom: 0 0, 30 0, 30 5, 0 9.25",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "measured",
    "heading": "Measured",
    "help": "long-long, edge, short-short, centre",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "grain",
    "heading": "Grain",
    "help": "length or any (sheets)",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "clear",
    "heading": "Clear",
    "help": "no: a flaw may lie on it",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "show",
    "heading": "Seen",
    "help": "yes: the best boards are for it",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "rip",
    "heading": "Ripped",
    "help": "yes or no: where it differs from the project",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "resaw",
    "heading": "Sawn thinner",
    "help": "yes or no: where it differs",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "own_stock",
    "heading": "Own stock only",
    "help": "yes or no: where it differs",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "extra_length",
    "heading": "Extra length",
    "help": "trimmed later: where it is not the project’s",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "extra_width",
    "heading": "Extra width",
    "help": "planed off a sawn face",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "extra_thickness",
    "heading": "Extra thickness",
    "help": "planed off a sawn face",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "held",
    "heading": "Cut after measuring",
    "help": "yes: bought now, cut once it was measured",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "taped",
    "heading": "Tape said",
    "help": "its length as measured; it holds instead",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "taped_on",
    "heading": "Measured on",
    "help": "such as 2026-05-31",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "boards",
    "heading": "Rack boards",
    "help": "from these only: 12 14; or not 12",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "together",
    "heading": "Kept together",
    "help": "a name: cut from one board with all of it, in order",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "group",
    "heading": "Group",
    "help": "frame, boarding …",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "note",
    "heading": "Note",
    "help": "for yourself",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  }
] as const
export const RUN_FIELDS = [
  {
    "name": "name",
    "heading": "Name",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "along",
    "heading": "Along",
    "help": "the length it fills: 72, or opening",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "item",
    "heading": "Item",
    "help": "how wide one is: 3 1/2, or width of B",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "way",
    "heading": "Asked for by",
    "help": "",
    "kind": "choice",
    "isLength": false,
    "group": "",
    "choices": [
      {
        "value": "count",
        "title": "how many"
      },
      {
        "value": "gap",
        "title": "gap, about"
      },
      {
        "value": "gap_at_most",
        "title": "gap, at most"
      },
      {
        "value": "centres",
        "title": "centre to centre"
      },
      {
        "value": "exposure",
        "title": "exposure (siding)"
      },
      {
        "value": "lap",
        "title": "lap (siding)"
      }
    ]
  },
  {
    "name": "figure",
    "heading": "Figure",
    "help": "of what it is asked for by; for bays their number + 1",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "gap",
    "heading": "Gap",
    "help": "between boards (siding), or beside a count",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "first",
    "heading": "First end",
    "help": "or a distance",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "last",
    "heading": "Last end",
    "help": "or a distance",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "marks",
    "heading": "Marks",
    "help": "",
    "kind": "choice",
    "isLength": false,
    "group": "",
    "choices": [
      {
        "value": "near",
        "title": "near edges"
      },
      {
        "value": "far",
        "title": "far edges"
      },
      {
        "value": "centre",
        "title": "centres"
      }
    ]
  },
  {
    "name": "rounding",
    "heading": "Marks rounded to",
    "help": "1/16, 1/32, 1, 0.5",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "packers",
    "heading": "Packers",
    "help": "each one owned: 18 18 3 3 3 1",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "least",
    "heading": "Least width",
    "help": "of a ripped row (siding)",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "left_out",
    "heading": "Left out",
    "help": "by number: 3 7",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "loose",
    "heading": "Loose",
    "help": "the last so many are fixed on the site",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "part",
    "heading": "Lays part",
    "help": "its letter",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "note",
    "heading": "Note",
    "help": "for yourself",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  }
] as const
export const SETTINGS = [
  {
    "name": "copies",
    "heading": "Build how many",
    "help": "",
    "kind": "whole",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "spare",
    "heading": "Spare boards of each size",
    "help": "against culls: 1, or 10 %",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "budget",
    "heading": "Budget for all of it",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "sells_for",
    "heading": "One could sell for",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "rack",
    "heading": "Boards from the rack",
    "help": "",
    "kind": "choice",
    "isLength": false,
    "group": "",
    "choices": [
      {
        "value": "never",
        "title": "leave them alone"
      },
      {
        "value": "saving",
        "title": "use them when that saves buying"
      },
      {
        "value": "always",
        "title": "use them first, always"
      }
    ]
  },
  {
    "name": "keep_from",
    "heading": "Keep leftovers from",
    "help": "",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "keep_width",
    "heading": "Keep strips, wide from",
    "help": "",
    "kind": "text",
    "isLength": true,
    "group": "",
    "choices": []
  },
  {
    "name": "keep_from_of",
    "heading": "Of some stock from",
    "help": "such as 1x4 cedar 36, 2x2 8",
    "kind": "text",
    "isLength": false,
    "group": "",
    "choices": []
  },
  {
    "name": "kerf",
    "heading": "Kerf",
    "help": "",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "trim_start",
    "heading": "Trim, first end",
    "help": "",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "trim_end",
    "heading": "Trim, last end",
    "help": "",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "share_angled_cuts",
    "heading": "Neighbours with the same end angle share one cut",
    "help": "",
    "kind": "flag",
    "isLength": false,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "extra_length",
    "heading": "Add to every length",
    "help": "trimmed after machining, or on site",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "rip",
    "heading": "Parts may be ripped from other sizes",
    "help": "",
    "kind": "flag",
    "isLength": false,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "resaw",
    "heading": "… and sawn thinner",
    "help": "",
    "kind": "flag",
    "isLength": false,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "own_stock",
    "heading": "… but only from the stock they name",
    "help": "",
    "kind": "flag",
    "isLength": false,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "order",
    "heading": "Order of work on a board",
    "help": "",
    "kind": "choice",
    "isLength": false,
    "group": "At the saw",
    "choices": [
      {
        "value": "rip-first",
        "title": "rip first, full length"
      },
      {
        "value": "crosscut-first",
        "title": "crosscut first, then rip"
      },
      {
        "value": "either",
        "title": "whichever wastes least"
      }
    ]
  },
  {
    "name": "extra_width",
    "heading": "Add to a sawn width",
    "help": "planed off",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "extra_thickness",
    "heading": "Add to a sawn thickness",
    "help": "planed off",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "eased",
    "heading": "Rip off rounded edges",
    "help": "each edge, kerf included",
    "kind": "text",
    "isLength": true,
    "group": "At the saw",
    "choices": []
  },
  {
    "name": "unit",
    "heading": "Bare numbers are",
    "help": "",
    "kind": "choice",
    "isLength": false,
    "group": "On paper and screen",
    "choices": [
      {
        "value": "in",
        "title": "inches"
      },
      {
        "value": "mm",
        "title": "millimetres"
      }
    ]
  },
  {
    "name": "notation",
    "heading": "Lengths shown as",
    "help": "",
    "kind": "choice",
    "isLength": false,
    "group": "On paper and screen",
    "choices": [
      {
        "value": "1/16",
        "title": "fractions to 1/16"
      },
      {
        "value": "1/32",
        "title": "fractions to 1/32"
      },
      {
        "value": "1/64",
        "title": "fractions to 1/64"
      },
      {
        "value": "decimal",
        "title": "decimal inches"
      },
      {
        "value": "feet",
        "title": "feet and inches"
      },
      {
        "value": "mm",
        "title": "millimetres"
      }
    ]
  },
  {
    "name": "days_wanted",
    "heading": "Wanted by",
    "help": "such as 2027-06-10 20:00; a day alone is its end",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_begin",
    "heading": "Not before",
    "help": "such as 2027-06-07",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_hours",
    "heading": "Free hours",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_off",
    "heading": "Days off",
    "help": "2027-06-09, 2027-07-01 to 2027-07-14",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_more",
    "heading": "Days with other hours",
    "help": "2027-06-09 8:00-12:00, 2027-06-11 17:00-22:00",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_zone",
    "heading": "Time zone",
    "help": "such as America/Denver; else that of the screen",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_clamps",
    "heading": "Clamps you own",
    "help": "nothing: those in Tools",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_helper",
    "heading": "Hours of a helper",
    "help": "sat 9:00-12:00; else when you are there",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_daylight",
    "heading": "Daylight",
    "help": "",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  },
  {
    "name": "days_pace",
    "heading": "Your pace",
    "help": "150 %: half as long again as is usual",
    "kind": "text",
    "isLength": false,
    "group": "Days",
    "choices": []
  }
] as const
export const QUESTIONS = [
  {
    "name": "half",
    "title": "Half of a board, less trims and kerf",
    "asks": [
      {
        "name": "board",
        "heading": "Board, such as 8 ft",
        "usual": ""
      }
    ]
  },
  {
    "name": "equal",
    "title": "Equal pieces of a board, as long as can be",
    "asks": [
      {
        "name": "board",
        "heading": "Board, such as 10 ft",
        "usual": ""
      },
      {
        "name": "pieces",
        "heading": "How many",
        "usual": "2"
      }
    ]
  },
  {
    "name": "middle",
    "title": "Half or centre of a size",
    "asks": [
      {
        "name": "size",
        "heading": "Size or name",
        "usual": ""
      }
    ]
  },
  {
    "name": "round",
    "title": "Round something: its size and a gap on both sides",
    "asks": [
      {
        "name": "size",
        "heading": "Measured size or name",
        "usual": ""
      },
      {
        "name": "gap",
        "heading": "Gap on each side",
        "usual": ""
      }
    ]
  },
  {
    "name": "within",
    "title": "Into an opening, with a gap on both sides",
    "asks": [
      {
        "name": "opening",
        "heading": "Opening or name",
        "usual": ""
      },
      {
        "name": "gap",
        "heading": "Gap on each side",
        "usual": "1/8 in"
      }
    ]
  },
  {
    "name": "panel",
    "title": "A loose panel in two grooves",
    "asks": [
      {
        "name": "inside",
        "heading": "Inside, between the frames",
        "usual": ""
      },
      {
        "name": "groove",
        "heading": "Depth of the groove",
        "usual": "3/8 in"
      },
      {
        "name": "clearance",
        "heading": "Left free in all, for the wood to move",
        "usual": "1/8 in"
      }
    ]
  },
  {
    "name": "door",
    "title": "A door, or one of its leaves, in an opening",
    "asks": [
      {
        "name": "opening",
        "heading": "Opening or name",
        "usual": ""
      },
      {
        "name": "gap",
        "heading": "Gap all round",
        "usual": "1/8 in"
      },
      {
        "name": "leaves",
        "heading": "Leaves",
        "usual": "1"
      },
      {
        "name": "between",
        "heading": "Gap between leaves",
        "usual": "1/8 in"
      }
    ]
  }
] as const
