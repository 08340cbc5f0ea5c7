// The rooms of the house: which folder may include which, and how long a file may be.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/base/files.hpp"
#include "support/lines.hpp"

namespace ninepegs {
namespace rooms_test {

namespace fs = std::filesystem;

struct Room {
  std::string folder;
  std::set<std::string> below;  // what it may include beside itself
};

// From the ground up: a room sees rooms that stand above it in this list, and of them only these.
const std::vector<Room>& rooms() {
  static const std::vector<Room> list = {
      {"base", {}},
      {"board", {"base"}},
      {"sheet/text", {"base"}},
      {"sheet/syntax", {"base", "board", "sheet/text"}},
      {"sheet/rules", {"base", "board", "sheet/text", "sheet/syntax"}},
      {"sheet/program", {"base", "board"}},
      {"sheet/plan", {"base", "board", "sheet/rules", "sheet/program"}},
      {"sheet/compile", {"base", "board", "sheet/rules", "sheet/plan", "sheet/program"}},
      {"sheet/machine", {"base", "board", "sheet/program"}},
      {"sheet/words", {"base", "board", "sheet/rules"}},
      {"sheet/mutation", {"base", "board", "sheet/rules"}},
      {"game",
       {"base", "board", "sheet/text", "sheet/syntax", "sheet/rules", "sheet/plan", "sheet/program",
        "sheet/compile", "sheet/machine"}},
      {"records", {"base", "board", "game"}},
      {"play", {"base", "board", "sheet/rules", "game"}},
      {"engines", {"base", "board", "game", "play"}},
      {"verify", {"base", "board", "sheet/rules", "sheet/mutation", "game", "play"}},
      {"compare", {"base", "board", "sheet/mutation", "game", "engines", "verify"}},
      {"draw", {"base", "board", "game", "play", "verify"}},
      {"report",
       {"base", "board", "sheet/text", "sheet/words", "game", "records", "play", "engines",
        "verify", "compare"}},
      {"cli",
       {"base", "board", "sheet/text", "game", "records", "play", "engines", "verify", "compare",
        "draw", "report"}},
  };
  return list;
}

const fs::path source = fs::path(NINEPEGS_SOURCE) / "src" / "ninepegs";

// "sheet/rules" of ninepegs/sheet/rules/types.hpp
std::string folderOf(const std::string& file) {
  return fs::path(file).parent_path().lexically_relative("ninepegs").generic_string();
}

std::vector<fs::path> sources() {
  std::vector<fs::path> out;
  for (const auto& entry : fs::recursive_directory_iterator(source))
    if (entry.path().extension() == ".hpp" || entry.path().extension() == ".cpp")
      out.push_back(entry.path());
  std::sort(out.begin(), out.end());
  return out;
}

// The include of a line that leaves the room by a door it does not have; empty if none does.
std::string wrongDoor(const Room& room, const std::string& line) {
  auto skip = [&](std::size_t at, std::string_view part) {
    at = std::min(line.find_first_not_of(" \t", at), line.size());
    return line.compare(at, part.size(), part) == 0 ? at + part.size() : line.size();
  };
  std::size_t at = skip(skip(0, "#"), "include");
  at = std::min(skip(at, "<"), skip(at, "\""));
  if (line.compare(at, 9, "ninepegs/") != 0) return "";
  std::string found = line.substr(at, line.find_first_of(">\"", at) - at);
  std::string folder = folderOf(found);
  return folder == room.folder || room.below.count(folder) > 0 ? "" : found;
}

TEST(Rooms, StandOnRoomsBelowThem) {
  std::set<std::string> standing;
  for (const Room& room : rooms()) {
    for (const std::string& below : room.below)
      EXPECT_TRUE(standing.count(below)) << room.folder << " stands on " << below;
    standing.insert(room.folder);
  }
}

TEST(Rooms, IncludeOnlyWhatStandsBelow) {
  std::map<std::string, const Room*> known;
  for (const Room& room : rooms()) known[room.folder] = &room;
  std::set<std::string> seen;
  for (const fs::path& path : sources()) {
    std::string folder = fs::relative(path.parent_path(), source).generic_string();
    ASSERT_TRUE(known.count(folder)) << path << " stands in no room";
    seen.insert(folder);
    for (const std::string& line : test::linesOf(readFile(path, 1 << 20)))
      EXPECT_EQ(wrongDoor(*known[folder], line), "") << path;
  }
  EXPECT_EQ(seen.size(), rooms().size());
}

TEST(Rooms, AWrongDoorIsSeen) {
  Room room{"play", {"base"}};
  EXPECT_EQ(wrongDoor(room, "#include \"ninepegs/verify/check.hpp\""), "ninepegs/verify/check.hpp");
  EXPECT_EQ(wrongDoor(room, "#  include <ninepegs/sheet/rules/types.hpp>  // why"),
            "ninepegs/sheet/rules/types.hpp");
  EXPECT_EQ(wrongDoor(room, "#include \"ninepegs/base/text.hpp\""), "");
  EXPECT_EQ(wrongDoor(room, "#include \"ninepegs/play/opponent.hpp\""), "");
  EXPECT_EQ(wrongDoor(room, "#include <vector>"), "");
}

TEST(Rooms, HaveNoFileOfMoreThan400Lines) {
  for (const fs::path& path : sources())
    EXPECT_LE(test::linesOf(readFile(path, 1 << 20)).size(), 400u) << path;
}

}  // namespace rooms_test
}  // namespace ninepegs
