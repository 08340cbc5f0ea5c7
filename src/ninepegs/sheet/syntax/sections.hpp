// The sections of a sheet: what is declared (parse_declarations.cpp) and how it is played
// (parse_rules.cpp). Internal to the parser.
#pragma once

#include <functional>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/sheet/syntax/cursor.hpp"
#include "ninepegs/sheet/syntax/tree.hpp"

namespace ninepegs::sheet {

class Parser {
 public:
  Parser(const Source& source, std::vector<Diagnostic>& found) : source_(source), found_(found) {}

  Tree sheet(std::vector<Block> blocks, const std::string& variant);

 private:
  using Section = void (Parser::*)(const Block&, Cursor&);
  static const std::map<std::string, Section>& sections();

  void guarded(const Block& block, const std::function<void(Cursor&)>& body);
  void section(const Block& block);
  void once(bool seen, const Block& block, Cursor& in);

  void game(const Block&, Cursor&);
  void title(const Block&, Cursor&);
  void about(const Block&, Cursor&);
  void sides(const Block&, Cursor&);
  void facing(const Block&, Cursor&);
  void board(const Block&, Cursor&);
  void piece(const Block&, Cursor&);
  void group(const Block&, Cursor&);
  void zone(const Block&, Cursor&);
  void mark(const Block&, Cursor&);
  void number(const Block&, Cursor&);
  void cell(const Block&, Cursor&);
  void track(const Block&, Cursor&);
  void start(const Block&, Cursor&);
  void define(const Block&, Cursor&);
  void move(const Block&, Cursor&);
  void after(const Block&, Cursor&);
  void forbid(const Block&, Cursor&);
  void repetition(const Block&, Cursor&);
  void notation(const Block&, Cursor&);
  void each(const Block&, Cursor&);
  void turn(const Block&, Cursor&);
  void ends(const Block&, Cursor&);
  void worth(const Block&, Cursor&);
  void always(const Block&, Cursor&);
  void symmetric(const Block&, Cursor&);
  void picture(const Block&, Cursor&);
  void caseBlock(const Block&, Cursor&);
  void variant(const Block&, Cursor&);

  void mayLast(const Block&, Cursor&);
  void end(const Block&, Cursor&);

  const Source& source_;
  std::vector<Diagnostic>& found_;
  Tree tree_;
};

}  // namespace ninepegs::sheet
