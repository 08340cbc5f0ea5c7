// What is wrong with an input, where, and what may help.
//
//   throw BadInput({"ridge.pegs", 8, 17, 4, "  pick there in emty"},
//                  "there is no set of cells called \"emty\"", "did you mean \"empty\"?");
#pragma once

#include <exception>
#include <string>
#include <vector>

namespace ninepegs {

// A stretch of one line of an input. Line and column count from 1; line 0 means "the whole input",
// column 0 "the whole line". `text` is the line itself, so that a message can show it.
struct Place {
  std::string source;  // a file's name, or an option such as --at
  int line = 0;
  int column = 0;
  int length = 1;
  std::string text;
};

struct Diagnostic {
  Place place;
  std::string message;
  std::string hint;  // empty: none
};

// The message as lines of text: place and message, the source line, a caret below, the hint.
// Ends without a newline. Control characters of the source are shown as '?'.
std::string toText(const Diagnostic& diagnostic);

// All messages, at most limits::diagnostics of them and then how many more there are.
std::string toText(const std::vector<Diagnostic>& diagnostics);

// Adds a message to those of an input. At limits::diagnosticsKept nobody reads on: then it throws
// TooManyMessages, which whoever reads the input catches where that reading ends.
struct TooManyMessages {};
void addMessage(std::vector<Diagnostic>& found, Diagnostic one);

// What was asked for cannot be done. Holds at least one diagnostic; what() is the text of them all.
class Failure : public std::exception {
 public:
  explicit Failure(std::vector<Diagnostic> diagnostics);
  Failure(Place place, std::string message, std::string hint = {});
  const std::vector<Diagnostic>& diagnostics() const { return diagnostics_; }
  const char* what() const noexcept override { return text_.c_str(); }

 private:
  std::vector<Diagnostic> diagnostics_;
  std::string text_;
};

// Thrown by everything that reads an input when the input cannot be taken.
class BadInput : public Failure {
 public:
  using Failure::Failure;
};

// The input is fine, but the system does not do its part: a full disk, a program that is missing.
class SystemFailure : public Failure {
 public:
  using Failure::Failure;
};

}  // namespace ninepegs
