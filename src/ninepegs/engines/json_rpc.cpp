#include "ninepegs/engines/json_rpc.hpp"

#include <fmt/format.h>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"

namespace ninepegs::engines {
namespace {

constexpr std::int64_t leastOfTheProtocol = -32768, mostOfTheProtocol = -32600;
constexpr std::size_t ofErrors = 400;  // bytes of a line that it wrote as an error

std::string errorText(const Json& error) {
  if (error.is_object() && error.contains("message") && error["message"].is_string())
    return harmless(error["message"].get<std::string>());
  return harmless(asciiJson(error));
}

}  // namespace

std::string harmless(std::string_view bytes, std::size_t most) {
  std::string out;
  for (char c : bytes.substr(0, most)) out += c >= ' ' && c <= '~' ? c : '?';
  return bytes.size() > most ? out + " ..." : out;
}

RpcChild::RpcChild(std::string command, std::string source, const ChildLimits& limits)
    : command_(std::move(command)), source_(std::move(source)), limits_(limits) {}

RpcChild::~RpcChild() = default;

RpcChild::Answer RpcChild::ask(const std::string& method, const std::string& params) {
  if (!child_) child_ = std::make_unique<Child>(command_, limits_);
  Json request = {
      {"jsonrpc", "2.0"}, {"id", ++id_}, {"method", method}, {"params", readJson(params)}};
  std::string line;
  switch (child_->ask(asciiJson(request), line)) {
    case Child::Came::line:
      break;
    case Child::Came::stopped:
      throw ProgramFailed("was not waited for");
    case Child::Came::nothing:
      throw ProgramFailed(fmt::format("gave no answer to \"{}\" within {:g} seconds{}", method,
                                      limits_.seconds, said()));
    case Child::Came::tooMuch:
      throw ProgramFailed(fmt::format("answered \"{}\" with a line of more than {} bytes", method,
                                      grouped(limits_.lineBytes)));
    case Child::Came::end:
      gone(method);
  }
  Json answer = readJsonOrNone(line);
  if (answer.is_discarded())
    throw ProgramFailed(
        fmt::format("answered \"{}\" with what is no JSON: {}", method, harmless(line)));
  if (!answer.is_object() || (!answer.contains("result") && !answer.contains("error")))
    throw ProgramFailed(fmt::format("answered \"{}\" with neither a result nor an error: {}",
                                    method, harmless(line)));
  if (!answer.contains("id") || answer["id"] != id_)
    throw ProgramFailed(
        fmt::format("answered \"{}\" under another number than it was asked under: {}", method,
                    harmless(line)));
  Answer out;
  if (!answer.contains("error")) {
    out.result = asciiJson(answer["result"]);
    return out;
  }
  const Json& error = answer["error"];
  if (error.is_object() && error.contains("code") && error["code"].is_number_integer())
    out.code = error["code"].get<std::int64_t>();
  out.error = errorText(error);
  out.ofTheProtocol = out.code >= leastOfTheProtocol && out.code <= mostOfTheProtocol;
  return out;
}

void RpcChild::gone(const std::string& method) {
  std::string how = child_->howItEnded();
  if (id_ == 1 && (child_->exitCode() == 126 || child_->exitCode() == 127))
    throw BadInput({source_, 1, 1, columnsOf(command_), command_},
                   "this program cannot be started" + said(),
                   "the command is given to the shell as it stands");
  throw ProgramFailed(fmt::format("{} when it was asked \"{}\"{}", how, method, said()),
                      std::max(child_->exitCode(), 0));
}

// What it last wrote to standard error: the last lines as they are, the useful end being in them.
std::string RpcChild::said() const {
  std::vector<std::string> lines;
  for (std::string& line : splitTrimmed(child_->errors(), '\n'))
    if (!line.empty()) lines.push_back(harmless(line, ofErrors));
  if (lines.empty()) return "";
  constexpr std::size_t shown = 12;
  if (lines.size() > shown) lines.erase(lines.begin(), lines.end() - shown);
  return "; it wrote: " + joined(lines, lines.size() > 1 ? "\n  " : "");
}

}  // namespace ninepegs::engines
