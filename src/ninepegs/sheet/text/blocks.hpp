// First stage of reading a sheet: text -> lines -> tokens -> blocks by indentation.
//
// A block is one logical line (a line that ends in a comma, an operator or an open bracket takes
// the next one in) with the deeper lines below it. Picture rows (`x . o`) keep no indentation: they
// belong to the nearest block above that is not a picture row.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/base/diagnostic.hpp"

namespace ninepegs::sheet {

// Where something stands in the sheet; columns count characters from 1.
struct Span {
  int line = 0;
  int column = 0;
  int length = 1;
};

enum class TokenKind { word, number, text, symbol };

struct Token {
  TokenKind kind = TokenKind::symbol;
  std::string text;  // a text without its quotes
  long long number = 0;
  Span span;
};

struct Block {
  std::vector<Token> tokens;  // never empty
  std::string raw;            // the logical line without comment, from its first token on
  std::vector<Block> children;
  bool pictureRow = false;
  bool ofVariant = false;  // stands in the block of the variant that is read
  Span span;               // of the first line
  // Where the lines that go on begin: how many characters of `raw` stand before it, and its place.
  std::vector<std::pair<int, Span>> joints;

  const std::string& word() const { return tokens.front().text; }
};

// The lines of a text; messages show them. Behind those of a sheet may stand those of its cases
// file: they are counted on, and messages name that file and its own lines.
class Source {
 public:
  Source(std::string name, std::string_view text);
  void addCases(std::string name, std::string_view text);  // at most once
  const std::string& name() const { return name_; }
  const std::string& casesName() const { return casesName_; }
  // The first line of the cases file; beyond all lines if there is none.
  int firstOfCases() const {
    return casesName_.empty() ? static_cast<int>(lines_.size()) + 1 : firstOfCases_;
  }
  const std::vector<std::string>& lines() const { return lines_; }
  Place place(Span span) const;
  std::string line(int number) const;

 private:
  void addLines(std::string_view text);

  std::string name_, casesName_;
  int firstOfCases_ = 0;
  std::vector<std::string> lines_;
};

// Where a line's comment begins, npos if it has none: a '#' inside quotes begins none.
std::size_t commentAt(std::string_view line);
std::string withoutComment(std::string_view line);

// Refuses what is no text or too large: throws BadInput. `name` is the file's name for messages.
void requireText(const std::string& name, std::string_view text);

// Tokens of one line; a message goes to `found` for what cannot be read.
std::vector<Token> tokens(const Source& source, std::string_view line, int lineNumber,
                          std::vector<Diagnostic>& found);

// All blocks of the outermost level.
std::vector<Block> blocks(const Source& source, std::vector<Diagnostic>& found);

}  // namespace ninepegs::sheet
