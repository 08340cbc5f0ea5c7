#include "ninepegs/sheet/syntax/parser.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/sections.hpp"

namespace ninepegs::sheet {

const std::map<std::string, Parser::Section>& Parser::sections() {
  static const std::map<std::string, Section> table = {{"game", &Parser::game},
                                                       {"title", &Parser::title},
                                                       {"about", &Parser::about},
                                                       {"sides", &Parser::sides},
                                                       {"facing", &Parser::facing},
                                                       {"board", &Parser::board},
                                                       {"piece", &Parser::piece},
                                                       {"group", &Parser::group},
                                                       {"zone", &Parser::zone},
                                                       {"mark", &Parser::mark},
                                                       {"number", &Parser::number},
                                                       {"start", &Parser::start},
                                                       {"define", &Parser::define},
                                                       {"move", &Parser::move},
                                                       {"after", &Parser::after},
                                                       {"turn", &Parser::turn},
                                                       {"ends", &Parser::ends},
                                                       {"worth", &Parser::worth},
                                                       {"always", &Parser::always},
                                                       {"symmetric", &Parser::symmetric},
                                                       {"case", &Parser::caseBlock},
                                                       {"variant", &Parser::variant},
                                                       {"cell", &Parser::cell},
                                                       {"track", &Parser::track},
                                                       {"forbid", &Parser::forbid},
                                                       {"each", &Parser::each},
                                                       {"repetition", &Parser::repetition},
                                                       {"notation", &Parser::notation},
                                                       {"picture", &Parser::picture}};
  return table;
}

void Parser::guarded(const Block& block, const std::function<void(Cursor&)>& body) {
  Cursor in(source_, block.tokens, found_);
  try {
    body(in);
  } catch (const Refused&) {
  }
}

void Parser::section(const Block& block) {
  guarded(block, [&](Cursor& in) {
    const Token head = in.next();
    if (block.span.line >= source_.firstOfCases() && block.word() != "case")
      in.refuse(head.span, "a file of cases holds cases only",
                fmt::format("rules stand in {}", source_.name()));
    auto it = sections().find(head.text);
    if (it != sections().end() && head.kind == TokenKind::word) {
      (this->*it->second)(block, in);
      return;
    }
    std::vector<std::string> words;
    for (const auto& [word, unused] : sections()) words.push_back(word);
    in.refuse(head.span, fmt::format("a sheet has no section that begins with \"{}\"", head.text),
              didYouMean(head.text, words, "such as: game, sides, board, piece, move, ends"));
  });
}

void Parser::once(bool seen, const Block& block, Cursor& in) {
  if (seen)
    in.refuse(block.span, fmt::format("`{}` stands here a second time", block.word()),
              "a sheet has one of it");
}

void Parser::variant(const Block& block, Cursor& in) {
  Name name = in.word("a name for the variant");
  std::string says = in.peek().kind == TokenKind::text && !in.atEnd() ? in.next().text : "";
  in.end();
  if (block.children.empty()) in.refuse(block.span, "this variant changes nothing");
  for (const auto& [other, unused] : tree_.variants)
    if (other.text == name.text)
      in.refuse(name.span, fmt::format("variant \"{}\" stands here a second time", name.text));
  tree_.variants.push_back({name, says});
}

namespace {

// The word and, where a sheet may have several, the name of a section: what a variant replaces.
std::string sectionKey(const Block& block) {
  static const std::set<std::string> many = {"piece",  "group", "zone",   "mark",     "number",
                                             "define", "move",  "case",   "cell",     "track",
                                             "forbid", "after", "always", "symmetric"};
  std::string key = block.word();
  if (many.count(key) > 0 && block.tokens.size() > 1) key += " " + block.tokens[1].text;
  return key;
}

}  // namespace

Tree Parser::sheet(std::vector<Block> all, const std::string& wanted) {
  tree_.variant = wanted;
  if (!wanted.empty()) {
    std::vector<std::string> names;
    const Block* chosen = nullptr;
    for (const Block& block : all) {
      if (block.word() != "variant" || block.tokens.size() < 2) continue;
      names.push_back(block.tokens[1].text);
      if (block.tokens[1].text == wanted) chosen = &block;
    }
    if (chosen == nullptr) {
      addMessage(found_,
                 {Place{source_.name(), 0, 0, 1, {}},
                  fmt::format("the sheet has no variant \"{}\"", wanted),
                  names.empty() ? "it has no variants"
                                : didYouMean(wanted, names, "it has: " + joined(names, ", "))});
      return tree_;
    }
    std::vector<Block> changes = chosen->children;
    for (Block& change : changes) {
      // A case of the variant itself is one more case; it may have the name of another.
      if (change.word() == "case") {
        change.ofVariant = true;
        all.push_back(change);
        continue;
      }
      auto same = [&](const Block& block) { return sectionKey(block) == sectionKey(change); };
      auto it = std::find_if(all.begin(), all.end(), same);
      if (it != all.end())
        *it = change;
      else
        all.push_back(change);
    }
  }
  for (const Block& block : all) section(block);
  auto missing = [&](bool there, const std::string& what, const std::string& hint) {
    if (!there)
      addMessage(found_,
                 {Place{source_.name(), 0, 0, 1, {}}, "the sheet does not say " + what, hint});
  };
  auto has = [&](const char* word) {
    return std::any_of(all.begin(), all.end(), [&](const Block& b) { return b.word() == word; });
  };
  missing(has("game"), "its name", "begin it with a line such as: game three-in-a-row");
  missing(has("sides"), "who plays", "add a line such as: sides Amber and Slate");
  missing(has("board"), "its board", "add a line such as: board square 3 x 3");
  missing(has("move"), "any move", "add a block such as: move place");
  missing(has("ends"), "how a game ends", "add a block `ends`");
  return std::move(tree_);
}

Tree parse(const Source& source, const std::string& variant, std::vector<Diagnostic>& found) {
  try {
    std::vector<Block> all = blocks(source, found);
    return Parser(source, found).sheet(std::move(all), variant);
  } catch (const TooManyMessages&) {
    return {};
  }
}

}  // namespace ninepegs::sheet
