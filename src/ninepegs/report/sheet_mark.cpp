#include "ninepegs/report/sheet_mark.hpp"

#include <fmt/format.h>

#include <cstdint>

#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::report {

std::string sheetMark(const Game& game) {
  std::uint64_t mark = 0;
  if (const auto* sheet = dynamic_cast<const SheetGame*>(&game);
      sheet != nullptr && sheet->rules().source)
    for (const std::string& line : sheet->rules().source->lines())
      for (unsigned char letter : line + "\n")
        mark = wordHash(static_cast<std::size_t>(letter) + 1, mark);
  return fmt::format("{:016x}", mark);
}

}  // namespace ninepegs::report
