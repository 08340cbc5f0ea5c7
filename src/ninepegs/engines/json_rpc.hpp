// A program that is asked in JSON-RPC 2.0, one object a line, on its standard input and output.
//
//   engines::RpcChild program("python3 my_game.py", "--program", {});
//   engines::RpcChild::Answer answer = program.ask("start", R"({"game": "othello"})");
//   if (answer.error.empty()) texts.push_back(answer.result);
//
// JSON goes in and out as text, so that who includes this needs no JSON library. Belongs to one
// thread.
#pragma once

#include <cstdint>
#include <memory>
#include <stdexcept>
#include <string>
#include <string_view>

#include "ninepegs/base/child.hpp"

namespace ninepegs::engines {

// It gave no answer, or none that can be understood; what() says how, as a sentence without a
// subject: "gave no answer within 5 seconds".
class ProgramFailed : public std::runtime_error {
 public:
  explicit ProgramFailed(const std::string& how, int exitCode = 0)
      : std::runtime_error(how), exitCode_(exitCode) {}
  // With which it ended, if it ended by itself; 0: without an error, or it did not.
  int exitCode() const { return exitCode_; }

 private:
  int exitCode_;
};

// Bytes of another program as text that does no harm on a terminal, and no more than fits a
// message.
std::string harmless(std::string_view bytes, std::size_t most = 60);

class RpcChild {
 public:
  // `source` names in messages where the command came from. Started at the first question.
  RpcChild(std::string command, std::string source, const ChildLimits& limits);
  ~RpcChild();

  struct Answer {
    std::string result;     // JSON; empty: it answered with an error
    std::string error;      // in words
    std::int64_t code = 0;  // of the error
    // It could not take the question at all, such as a method that it does not know.
    bool ofTheProtocol = false;
  };
  // `params` is a JSON object. Throws ProgramFailed, and BadInput at the first question if there is
  // no such program.
  Answer ask(const std::string& method, const std::string& params);

 private:
  [[noreturn]] void gone(const std::string& method);
  std::string said() const;

  std::string command_, source_;
  ChildLimits limits_;
  std::unique_ptr<Child> child_;
  std::int64_t id_ = 0;
};

inline constexpr std::int64_t methodNotFound = -32601;

}  // namespace ninepegs::engines
