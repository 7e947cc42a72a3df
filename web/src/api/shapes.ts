/** Made from the definitions of the fields: make schema. */
export const SHAPES = [
  {
    "name": "frame",
    "heading": "Frame",
    "help": "posts and rails, and middles between them",
    "caution": "",
    "asks": [
      {
        "name": "width",
        "kind": "length",
        "heading": "Width, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "height",
        "kind": "length",
        "heading": "Height, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "corners",
        "kind": "choice",
        "heading": "Corners",
        "usual": "rails between",
        "choices": [
          "rails between",
          "posts between",
          "mitered",
          "half-lapped"
        ],
        "open": false
      },
      {
        "name": "middles",
        "kind": "count",
        "heading": "Middles",
        "usual": "0",
        "choices": [],
        "open": false
      },
      {
        "name": "middles run",
        "kind": "choice",
        "heading": "Middles run",
        "usual": "upright",
        "choices": [
          "upright",
          "level"
        ],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "row",
    "heading": "Boards in a row",
    "help": "boards with equal gaps, on rails",
    "caution": "",
    "asks": [
      {
        "name": "along",
        "kind": "length",
        "heading": "Along",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "gap",
        "kind": "length",
        "heading": "Gap, about",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "count",
        "kind": "count",
        "heading": "How many",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "ends",
        "kind": "choice",
        "heading": "At the ends",
        "usual": "gap",
        "choices": [
          "item",
          "gap",
          "half-gap",
          "half-item"
        ],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock of the boards",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "length",
        "kind": "length",
        "heading": "Length of a board",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "rails",
        "kind": "count",
        "heading": "Rails",
        "usual": "2",
        "choices": [],
        "open": false
      },
      {
        "name": "rail stock",
        "kind": "stock",
        "heading": "Stock of the rails",
        "usual": "2x4",
        "choices": [],
        "open": false
      },
      {
        "name": "held",
        "kind": "choice",
        "heading": "Boards are",
        "usual": "nailed",
        "choices": [
          "nailed",
          "loose",
          "in a groove"
        ],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "wall",
    "heading": "Wall",
    "help": "rows of siding, the last one ripped",
    "caution": "",
    "asks": [
      {
        "name": "width",
        "kind": "length",
        "heading": "Width of the wall",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "height",
        "kind": "length",
        "heading": "Height of the wall",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "joint",
        "kind": "choice",
        "heading": "Joint",
        "usual": "butt",
        "choices": [
          "butt",
          "lap",
          "shiplap"
        ],
        "open": false
      },
      {
        "name": "lap",
        "kind": "length",
        "heading": "Lap",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "gap",
        "kind": "length",
        "heading": "Gap to move",
        "usual": "1/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "over left",
        "kind": "length",
        "heading": "Over the left end",
        "usual": "0 in",
        "choices": [],
        "open": false
      },
      {
        "name": "over right",
        "kind": "length",
        "heading": "Over the right end",
        "usual": "0 in",
        "choices": [],
        "open": false
      },
      {
        "name": "least",
        "kind": "length",
        "heading": "Narrowest row",
        "usual": "1 in",
        "choices": [],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "box",
    "heading": "Box",
    "help": "sides, ends and a bottom",
    "caution": "",
    "asks": [
      {
        "name": "length",
        "kind": "length",
        "heading": "Length, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "width",
        "kind": "length",
        "heading": "Width, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "height",
        "kind": "length",
        "heading": "Height, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "corners",
        "kind": "choice",
        "heading": "Corners",
        "usual": "butt",
        "choices": [
          "butt",
          "rabbeted",
          "mitered"
        ],
        "open": false
      },
      {
        "name": "rabbet",
        "kind": "length",
        "heading": "Depth of the rabbet",
        "usual": "3/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "over",
        "kind": "choice",
        "heading": "What runs full",
        "usual": "ends",
        "choices": [
          "ends",
          "sides"
        ],
        "open": false
      },
      {
        "name": "lean sides",
        "kind": "angle",
        "heading": "Sides lean out by",
        "usual": "0",
        "choices": [],
        "open": false
      },
      {
        "name": "lean ends",
        "kind": "angle",
        "heading": "Ends lean out by",
        "usual": "0",
        "choices": [],
        "open": false
      },
      {
        "name": "from",
        "kind": "choice",
        "heading": "Length and width are",
        "usual": "over all",
        "choices": [
          "over all",
          "at the bottom",
          "inside the bottom"
        ],
        "open": false
      },
      {
        "name": "bottom",
        "kind": "choice",
        "heading": "Bottom",
        "usual": "none",
        "choices": [
          "none",
          "under",
          "between",
          "groove"
        ],
        "open": false
      },
      {
        "name": "bottom stock",
        "kind": "stock",
        "heading": "Stock of the bottom",
        "usual": "ply 1/2",
        "choices": [],
        "open": false
      },
      {
        "name": "groove",
        "kind": "length",
        "heading": "Depth of the groove",
        "usual": "1/4 in",
        "choices": [],
        "open": false
      },
      {
        "name": "clearance",
        "kind": "length",
        "heading": "Free in the grooves, in all",
        "usual": "1/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "stand",
    "heading": "Stand",
    "help": "legs, rails, shelves and a top",
    "caution": "What it is to carry is not checked here: full barrels and pots are heavy, and load-bearing work follows local codes.",
    "asks": [
      {
        "name": "length",
        "kind": "length",
        "heading": "Length, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "width",
        "kind": "length",
        "heading": "Width, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "height",
        "kind": "length",
        "heading": "Height, over all",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "leg stock",
        "kind": "stock",
        "heading": "Stock of the legs",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock of the rails",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "rails",
        "kind": "choice",
        "heading": "Rails",
        "usual": "set in",
        "choices": [
          "flush",
          "set in"
        ],
        "open": false
      },
      {
        "name": "shelves at",
        "kind": "lengths",
        "heading": "Shelves at (top edge), from the floor",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "top",
        "kind": "stock",
        "heading": "Stock of the top",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "top gap",
        "kind": "length",
        "heading": "Gap of the top, about",
        "usual": "1/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "door",
    "heading": "Door",
    "help": "stiles, rails and braces, or boards on ledges",
    "caution": "",
    "asks": [
      {
        "name": "width",
        "kind": "length",
        "heading": "Width of the opening",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "height",
        "kind": "length",
        "heading": "Height of the opening",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "gap",
        "kind": "length",
        "heading": "Gap all round",
        "usual": "1/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "leaves",
        "kind": "count",
        "heading": "Leaves",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "between",
        "kind": "length",
        "heading": "Gap between leaves",
        "usual": "1/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "kind",
        "kind": "choice",
        "heading": "Kind",
        "usual": "framed",
        "choices": [
          "framed",
          "ledged"
        ],
        "open": false
      },
      {
        "name": "rails",
        "kind": "count",
        "heading": "Rails of a leaf",
        "usual": "3",
        "choices": [],
        "open": false
      },
      {
        "name": "brace",
        "kind": "choice",
        "heading": "Braces",
        "usual": "yes",
        "choices": [
          "yes",
          "none"
        ],
        "open": false
      },
      {
        "name": "faces",
        "kind": "stock",
        "heading": "Boards on it, their stock",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "face gap",
        "kind": "length",
        "heading": "Gap of the boards, about",
        "usual": "1/8 in",
        "choices": [],
        "open": false
      },
      {
        "name": "strip",
        "kind": "stock",
        "heading": "Strip over the gap, its stock",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "brace",
    "heading": "Braces",
    "help": "between a post and a beam, left and right",
    "caution": "",
    "asks": [
      {
        "name": "run",
        "kind": "length",
        "heading": "Along the beam",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "rise",
        "kind": "length",
        "heading": "Down the post",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "angle",
        "kind": "angle",
        "heading": "Angle, from the beam",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "length",
        "kind": "length",
        "heading": "Length, long points",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "measured",
        "kind": "choice",
        "heading": "Measured",
        "usual": "long-long",
        "choices": [
          "long-long",
          "short-short",
          "centre"
        ],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "pairs",
        "kind": "count",
        "heading": "Pairs, left and right",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "splayed legs",
    "heading": "Splayed legs",
    "help": "two legs that stand apart, and stretchers",
    "caution": "",
    "asks": [
      {
        "name": "height",
        "kind": "length",
        "heading": "Height",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "top",
        "kind": "length",
        "heading": "Spread at the top, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "floor",
        "kind": "length",
        "heading": "Spread on the floor, outside",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "angle",
        "kind": "angle",
        "heading": "Lean of a leg",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stretchers at",
        "kind": "lengths",
        "heading": "Stretchers at (top edge), from the floor",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "crossed legs",
    "heading": "Crossed legs",
    "help": "two legs that cross, bolted or lapped",
    "caution": "",
    "asks": [
      {
        "name": "height",
        "kind": "length",
        "heading": "Height",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "spread",
        "kind": "length",
        "heading": "Spread on the floor, outside",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "cross at",
        "kind": "length",
        "heading": "They cross at, from the floor",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "joint",
        "kind": "choice",
        "heading": "Joint",
        "usual": "bolted",
        "choices": [
          "bolted",
          "half-lapped"
        ],
        "open": false
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  },
  {
    "name": "truss",
    "heading": "Trusses",
    "help": "rafters, a tie and supports, over posts",
    "caution": "A roof carries load: strength is not checked here. Local codes and a licensed engineer decide on stock, spacing and fasteners.",
    "asks": [
      {
        "name": "span",
        "kind": "length",
        "heading": "Span, over the tie",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "pitch",
        "kind": "angle",
        "heading": "Pitch, in degrees",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "stock",
        "kind": "stock",
        "heading": "Stock",
        "usual": "",
        "choices": [],
        "open": false
      },
      {
        "name": "overhang",
        "kind": "length",
        "heading": "Overhang, level",
        "usual": "0 in",
        "choices": [],
        "open": false
      },
      {
        "name": "tails",
        "kind": "choice",
        "heading": "Tails are cut",
        "usual": "plumb",
        "choices": [
          "plumb",
          "square"
        ],
        "open": false
      },
      {
        "name": "ridge",
        "kind": "length",
        "heading": "Thickness of the ridge",
        "usual": "0 in",
        "choices": [],
        "open": false
      },
      {
        "name": "supports",
        "kind": "shares",
        "heading": "Supports at (parts of the rafter)",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "supports stand",
        "kind": "choice",
        "heading": "Supports stand",
        "usual": "plumb",
        "choices": [
          "plumb",
          "square"
        ],
        "open": false
      },
      {
        "name": "cover",
        "kind": "length",
        "heading": "Width of a sheet of roofing",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "sheets",
        "kind": "count",
        "heading": "Sheets side by side",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "side lap",
        "kind": "length",
        "heading": "Side lap of the sheets",
        "usual": "0 in",
        "choices": [],
        "open": false
      },
      {
        "name": "stands over",
        "kind": "lengths",
        "heading": "Stand over (places along the roof)",
        "usual": "",
        "choices": [],
        "open": true
      },
      {
        "name": "copies",
        "kind": "count",
        "heading": "How many of it",
        "usual": "1",
        "choices": [],
        "open": false
      },
      {
        "name": "hand",
        "kind": "choice",
        "heading": "Hand",
        "usual": "as drawn",
        "choices": [
          "as drawn",
          "mirrored",
          "left and right"
        ],
        "open": false
      }
    ]
  }
] as const
