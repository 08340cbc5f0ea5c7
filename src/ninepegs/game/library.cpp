#include "ninepegs/game/library.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs {
namespace fs = std::filesystem;

std::vector<std::string> Library::names() const {
  std::vector<std::string> names;
  for (const fs::path& folder : folders_) {
    std::error_code error;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, error))
      if (entry.path().extension() == ".pegs") names.push_back(entry.path().stem().string());
    if (!names.empty()) break;
  }
  std::sort(names.begin(), names.end());
  return names;
}

std::shared_ptr<const Game> Library::open(const std::string& nameOrPath,
                                          const std::string& variant) const {
  bool isPath = nameOrPath.find('/') != std::string::npos || nameOrPath.ends_with(".pegs");
  if (isPath)
    return SheetGame::fromText(nameOrPath, readFile(nameOrPath, limits::sheetBytes), variant);
  std::vector<std::string> all = names();
  if (std::find(all.begin(), all.end(), nameOrPath) == all.end())
    throw BadInput(
        Place{}, fmt::format("there is no shipped game \"{}\"", nameOrPath.substr(0, 80)),
        didYouMean(nameOrPath, all,
                   fmt::format("there are: {}; or give a path such as ./{}.pegs", joined(all, ", "),
                               nameOrPath.empty() ? "mine" : nameOrPath.substr(0, 80))));
  for (const fs::path& folder : folders_) {
    fs::path path = folder / (nameOrPath + ".pegs");
    if (fs::exists(path))
      return SheetGame::fromText(path.string(), readFile(path, limits::sheetBytes), variant);
  }
  throw BadInput(Place{}, fmt::format("the sheet of \"{}\" is missing", nameOrPath));
}

}  // namespace ninepegs
