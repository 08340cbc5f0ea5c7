#include "ninepegs/game/library.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <iostream>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs {
namespace fs = std::filesystem;

namespace {

constexpr std::string_view casesEnding = ".cases";

// NAME.cases.pegs holds cases of NAME.pegs.
bool isCasesFile(const fs::path& path) {
  return path.stem().string().ends_with(casesEnding);
}

// A file that is not there: which one beside it, or which shipped game, may be meant.
BadInput missing(const fs::path& path) {
  fs::path folder = path.has_parent_path() ? path.parent_path() : fs::path(".");
  std::vector<std::string> beside;
  std::error_code error;
  for (const fs::directory_entry& entry : fs::directory_iterator(folder, error))
    if (entry.path().extension() == ".pegs" && !isCasesFile(entry.path()))
      beside.push_back(entry.path().filename().string());
  std::sort(beside.begin(), beside.end());
  std::string hint = didYouMean(path.filename().string(), beside, "");
  if (hint.empty() && !beside.empty() && beside.size() <= 12)
    hint = "there are here: " + joined(beside, ", ");
  if (hint.empty()) hint = "shipped games are named without .pegs, such as: chess";
  return BadInput(Place{path.string(), 0, 0, 1, {}}, "there is no such file", hint);
}

std::shared_ptr<const Game> opened(const fs::path& path, const std::string& variant) {
  if (isCasesFile(path)) {
    std::string stem = path.stem().string();
    stem.resize(stem.size() - casesEnding.size());
    throw BadInput(Place{path.string(), 0, 0, 1, {}}, "this file holds cases, not a game",
                   fmt::format("they are run with the sheet: name {}.pegs", stem));
  }
  std::error_code there;
  if (!fs::exists(path, there)) throw missing(path);
  std::string text = readFile(path, limits::sheetBytes);
  SheetGame::CasesFile cases;
  fs::path beside = path;
  beside.replace_filename(path.stem().string() + std::string(casesEnding) + ".pegs");
  std::error_code error;
  if (fs::exists(beside, error)) cases = {beside.string(), readFile(beside, limits::sheetBytes)};
  return SheetGame::fromText(path.string(), std::move(text), variant, 0, std::move(cases));
}

}  // namespace

namespace {

constexpr const char* likeFolder = "like";

// The names of the sheets in the first of the folders, or of folders in them, that has any.
std::vector<std::string> namesIn(const std::vector<fs::path>& folders, const char* inside) {
  std::vector<std::string> names;
  for (const fs::path& one : folders) {
    fs::path folder = one / inside;
    std::error_code error;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, error))
      if (entry.path().extension() == ".pegs" && !isCasesFile(entry.path()))
        names.push_back(entry.path().stem().string());
    if (!names.empty()) break;
  }
  std::sort(names.begin(), names.end());
  return names;
}

// The sheet on standard input.
std::string readInput(std::size_t most) {
  std::string text;
  char buffer[1 << 14];
  while (std::cin.read(buffer, sizeof buffer) || std::cin.gcount() > 0) {
    text.append(buffer, static_cast<std::size_t>(std::cin.gcount()));
    if (text.size() > most) break;
  }
  return text;
}

}  // namespace

std::vector<std::string> Library::names() const {
  return namesIn(folders_, "");
}

std::vector<std::string> Library::likes() const {
  return namesIn(folders_, likeFolder);
}

std::string Library::like(const std::string& what) const {
  std::vector<std::string> all = likes();
  if (std::find(all.begin(), all.end(), what) == all.end())
    throw BadInput(Place{"--like", 1, 1, columnsOf(what), what},
                   fmt::format("no small sheet is called \"{}\"", clipped(what, 80)),
                   didYouMean(what, all, "there are: " + joined(all, ", ")));
  for (const fs::path& folder : folders_)
    if (fs::path path = folder / likeFolder / (what + ".pegs"); fs::exists(path))
      return readFile(path, limits::sheetBytes);
  throw BadInput(Place{}, fmt::format("the sheet of \"{}\" is missing", what));
}

bool Library::isPath(const std::string& nameOrPath) {
  return nameOrPath.find('/') != std::string::npos || nameOrPath.ends_with(".pegs");
}

std::shared_ptr<const Game> Library::open(const std::string& nameOrPath,
                                          const std::string& variant) const {
  if (nameOrPath == "-") return SheetGame::fromText("-", readInput(limits::sheetBytes), variant);
  if (isPath(nameOrPath)) return opened(nameOrPath, variant);
  std::vector<std::string> all = names();
  if (all.empty())
    throw BadInput(Place{}, "the folder of the shipped sheets is missing",
                   "NINEPEGS_SHEETS names it; or give a path such as ./mine.pegs");
  if (std::find(all.begin(), all.end(), nameOrPath) == all.end())
    throw BadInput(
        Place{}, fmt::format("there is no shipped game \"{}\"", clipped(nameOrPath, 80)),
        didYouMean(nameOrPath, all,
                   fmt::format("there are: {}; or give a path such as ./{}.pegs", joined(all, ", "),
                               nameOrPath.empty() ? "mine" : clipped(nameOrPath, 80))));
  for (const fs::path& folder : folders_) {
    fs::path path = folder / (nameOrPath + ".pegs");
    if (fs::exists(path)) return opened(path, variant);
  }
  throw BadInput(Place{}, fmt::format("the sheet of \"{}\" is missing", nameOrPath));
}

}  // namespace ninepegs
