// Tidying changes the layout of a sheet and nothing else.
#include "ninepegs/sheet/text/tidy.hpp"

#include <filesystem>

#include "ninepegs/base/random.hpp"
#include "support/games.hpp"

namespace ninepegs::sheet {
namespace tidy_test {

std::string tidy(const std::string& text) {
  return tidied(Source("test.pegs", text));
}

std::vector<std::filesystem::path> allSheets() {
  std::vector<std::filesystem::path> out;
  for (const char* folder : {"/sheets", "/examples/faulty"})
    for (const auto& entry :
         std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + folder))
      if (entry.path().extension() == ".pegs" && entry.path().stem().extension() != ".cases")
        out.push_back(entry.path());
  return out;
}

// The compiled program without the numbers of lines.
std::string program(const std::string& text) {
  std::string out;
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  for (const Instruction& one : game->program().code)
    out += std::to_string(static_cast<int>(one.op)) + " " + std::to_string(one.a) + " " +
           std::to_string(one.b) + " " + std::to_string(one.c) + " " + std::to_string(one.d) + " " +
           std::to_string(one.n) + "\n";
  return out;
}

// The same sheet with other indentation, blanks and empty lines, as people leave them.
std::string disarranged(const std::string& text, Stream& stream) {
  std::string out;
  bool pictures = false;
  for (std::size_t from = 0; from < text.size();) {
    std::size_t to = std::min(text.find('\n', from), text.size());
    std::string line = text.substr(from, to - from);
    from = to + 1;
    std::size_t indent = line.find_first_not_of(' ');
    if (indent == std::string::npos) {
      out += std::string(1 + stream.below(2), '\n');
      continue;
    }
    if (indent == 0) pictures = line.rfind("about", 0) == 0;
    out += std::string(pictures ? indent : indent * 3, ' ');
    bool quoted = false, comment = false;
    for (char c : line.substr(indent)) {
      if (c == '"') quoted = !quoted;
      if (c == '#' && !quoted) comment = true;
      out += c;
      if (c == ' ' && !quoted && !comment && !pictures) out += std::string(stream.below(3), ' ');
    }
    out += "\n";
  }
  return out;
}

TEST(TidyText, ShippedAndFaultySheetsAreTidy) {
  for (const auto& path : allSheets()) {
    std::string text = readFile(path, 1'000'000);
    EXPECT_EQ(tidy(text), text) << path;
  }
}

TEST(TidyText, ADisarrangedSheetSaysTheSameAndIsTidiedTheSame) {
  Stream stream(7, 0);
  for (const auto& path : allSheets()) {
    std::string text = readFile(path, 1'000'000), loose = disarranged(text, stream);
    EXPECT_TRUE(program(loose) == program(text)) << path;
    std::string once = tidy(loose);
    EXPECT_EQ(tidy(once), once) << path;
    EXPECT_TRUE(program(once) == program(text)) << path;
    // But for empty lines, which are the author's, the layout is the standard one again.
    auto packed = [](const std::string& sheet) {
      std::string out;
      for (char c : sheet)
        if (c != '\n' || (!out.empty() && out.back() != '\n')) out += c;
      return out;
    };
    // Rows of hexes stand as the author shifted them.
    if (text.find("board hexagon") == std::string::npos) {
      EXPECT_EQ(packed(once), packed(text)) << path;
    }
  }
}

TEST(TidyText, KeepsEveryComment) {
  for (const auto& path : allSheets()) {
    std::string text = readFile(path, 1'000'000), once = tidy(text);
    for (std::size_t at = text.find("# "); at != std::string::npos; at = text.find("# ", at + 1)) {
      std::string comment = text.substr(at, text.find('\n', at) - at);
      EXPECT_NE(once.find(comment), std::string::npos) << path << ": " << comment;
    }
  }
}

TEST(TidyText, EndsInOneNewlineAndHasNoBlanksAtLineEnds) {
  for (const std::string text : {"game x", "game x\n\n\n", "game x   \n", "\n\ngame x\n"}) {
    std::string once = tidy(text);
    EXPECT_EQ(once.substr(once.size() - 2), "x\n") << text;
    EXPECT_EQ(once.find(" \n"), std::string::npos);
    EXPECT_EQ(once.find("\n\n\n"), std::string::npos);
  }
}

TEST(TidyText, DamagedTextsAreRefusedOrTidiedForGood) {
  Stream stream(8, 0);
  std::vector<std::filesystem::path> paths = allSheets();
  for (int round = 0; round < 300; ++round) {
    std::string text =
        readFile(paths[stream.below(static_cast<std::uint32_t>(paths.size()))], 1'000'000);
    for (std::uint32_t hits = 1 + stream.below(4); hits > 0; --hits) {
      std::size_t at = stream.below(static_cast<std::uint32_t>(text.size()));
      if (stream.below(2) == 0)
        text.erase(at, 1 + stream.below(9));
      else
        text.insert(at, std::string(1, "\n \"#()x,."[stream.below(9)]));
      if (text.empty()) text = "x";
    }
    try {
      std::string once = tidy(text);
      EXPECT_EQ(tidy(once), once);
    } catch (const BadInput& error) {
      EXPECT_FALSE(error.diagnostics().empty());
    }
  }
}

}  // namespace tidy_test
}  // namespace ninepegs::sheet
