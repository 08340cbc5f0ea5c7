// What the examples in headers speak of without making it.
#pragma once

#include <map>
#include <memory>
#include <sstream>
#include <string>
#include <vector>

#include "ninepegs/board/bits.hpp"
#include "ninepegs/game/game.hpp"
#include "ninepegs/game/library.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/opponent.hpp"
#include "ninepegs/sheet/machine/machine.hpp"
#include "ninepegs/sheet/program/program.hpp"

namespace ninepegs::examples {

using namespace ninepegs::play;
using namespace ninepegs::sheet;
using ninepegs::Position;

inline std::shared_ptr<const Game> game;
inline Position position;
inline MoveList moves;
inline Stream stream(1, 2);
inline std::vector<std::string> texts;
inline std::string text, script;
inline std::uint64_t seed = 1, playoutNumber = 0, gameNumber = 0;
inline std::map<int, int> pieces;
inline std::int64_t score = 0;
inline Program program;
inline Bits<1> mine, board;

inline Move move;
inline std::unique_ptr<Opponent> opponent;

int count();  // of the examples that were compiled

}  // namespace ninepegs::examples
