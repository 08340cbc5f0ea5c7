// The words that the language keeps for itself.
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

const std::vector<std::string>& reservedWords() {
  static const std::vector<std::string> words = {
      "game",      "title",     "about",   "sides",     "facing",     "board",     "piece",
      "group",     "zone",      "mark",    "number",    "cell",       "track",     "start",
      "define",    "move",      "after",   "forbid",    "repetition", "turn",      "ends",
      "each",      "worth",     "always",  "symmetric", "case",       "variant",   "notation",
      "pick",      "choose",    "let",     "set",       "need",       "put",       "shift",
      "take",      "flip",      "change",  "add",       "remove",     "when",      "otherwise",
      "again",     "must",      "tell",    "written",   "write",      "seen",      "repeat",
      "on",        "or",        "except",  "and",       "not",        "any",       "no",
      "count",     "my",        "their",   "mine",      "theirs",     "all",       "empty",
      "occupied",  "edge",      "corner",  "dark",      "light",      "row",       "rows",
      "column",    "columns",   "odd",     "even",      "step",       "leap",      "slide",
      "through",   "between",   "beyond",  "bracketed", "from",       "by",        "along",
      "line",      "lines",     "in",      "of",        "to",         "spread",    "groups",
      "where",     "cells",     "reach",   "touched",   "was",        "if",        "then",
      "else",      "total",     "for",     "min",       "max",        "within",    "is",
      "mover",     "opponent",  "next",    "stuck",     "plies",      "passes",    "times",
      "moves",     "hand",      "pass",    "draw",      "wins",       "loses",     "leader",
      "claim",     "showing",   "forward", "backward",  "orthogonal", "diagonal",  "position",
      "play",      "expect",    "leaves",  "ongoing",   "legal",      "sequences", "as",
      "into",      "kind",      "kinds",   "none",      "towards",    "nobody",    "up",
      "down",      "neutral",   "secret",  "edges",     "maximise",   "sees",      "compares",
      "north",     "northeast", "east",    "southeast", "south",      "southwest", "west",
      "northwest", "picture"};
  return words;
}

}  // namespace ninepegs::sheet
