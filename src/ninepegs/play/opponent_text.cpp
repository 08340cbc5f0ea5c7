// Opponents from texts: search:depth=6,time=0.5.
#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <optional>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {
namespace {

// A setting behind the colon: a whole number from 1 to `most`, or seconds if that is 0.
struct Setting {
  const char* word;
  unsigned long long most;
  const char* what;
};
struct Kind {
  const char* word;
  std::vector<Setting> settings;
  const char* example;
};

constexpr unsigned long long many = 1'000'000'000'000ull;

const std::vector<Kind>& kinds() {
  static const Setting depth{"depth", limits::searchDepth, "PLIES"}, time{"time", 0, "SECONDS"},
      nodes{"nodes", many, "POSITIONS"}, memory{"memory", 65536, "MEGABYTES"},
      playouts{"playouts", many, "GAMES"}, level{"level", 9, "1 to 9"},
      pasts{"pasts", 10'000, "GAMES"}, threads{"threads", 64, "NUMBER"};
  static const std::vector<Kind> all = {
      {"random", {}, ""},
      {"greedy", {}, ""},
      {"minimax", {{"depth", 12, "PLIES"}}, "minimax:depth=3"},
      {"search", {depth, time, nodes, memory, level, pasts, threads}, "search:depth=6"},
      {"playouts", {playouts, time, memory, pasts, threads}, "playouts:playouts=2000"}};
  return all;
}

class Reader {
 public:
  Reader(std::string_view text, const std::string& source) : text_(text), source_(source) {}

  std::unique_ptr<Opponent> read() {
    std::size_t colon = text_.find(':');
    std::string_view word = text_.substr(0, colon);
    auto kind = std::find_if(kinds().begin(), kinds().end(),
                             [&](const Kind& one) { return one.word == word; });
    if (kind == kinds().end())
      for (const Kind& one : kinds())
        for (const Setting& setting : one.settings)
          if (text_.substr(0, text_.find('=')) == setting.word && text_.find('=') != text_.npos &&
              std::string_view(one.word) != "minimax")
            refuse(0, text_.size(), fmt::format("there is no opponent \"{}\"", clipped(text_, 40)),
                   fmt::format("did you mean \"{}:{}\"?", one.word, text_));
    if (kind == kinds().end())
      refuse(0, word.size(), fmt::format("there is no opponent \"{}\"", clipped(word, 40)),
             didYouMean(word, opponentNames(),
                        "there are: " + joined(opponentNames(), ", ") + ", search:depth=6"));
    if (colon != text_.npos) {
      if (kind->settings.empty())
        refuse(colon, text_.size() - colon, fmt::format("\"{}\" takes no settings", word),
               "such as `search` does");
      settings(*kind, colon + 1);
    }
    return made(word);
  }

 private:
  [[noreturn]] void refuse(std::size_t at, std::size_t length, const std::string& message,
                           const std::string& hint) const {
    throw BadInput(Place{source_, 1, static_cast<int>(utf8Symbols(text_.substr(0, at)).size()) + 1,
                         static_cast<int>(std::max<std::size_t>(length, 1)), std::string(text_)},
                   message, hint);
  }

  void settings(const Kind& kind, std::size_t from) {
    while (true) {
      std::size_t to = std::min(text_.find(',', from), text_.size());
      setting(kind, from, text_.substr(from, to - from));
      if (to == text_.size()) return;
      from = to + 1;
    }
  }

  void setting(const Kind& kind, std::size_t from, std::string_view said) {
    std::size_t equals = said.find('=');
    std::string_view word = said.substr(0, equals);
    std::string_view value = equals == said.npos ? "" : said.substr(equals + 1);
    std::size_t valueAt = from + (equals == said.npos ? said.size() : equals + 1);
    auto setting = std::find_if(kind.settings.begin(), kind.settings.end(),
                                [&](const Setting& one) { return one.word == word; });
    if (setting == kind.settings.end()) {
      std::vector<std::string> words, list;
      for (const Setting& one : kind.settings) {
        words.push_back(one.word);
        list.push_back(fmt::format("{}={}", one.word, one.what));
      }
      refuse(from, word.size(),
             fmt::format("`{}` has no setting \"{}\"", kind.word, clipped(word, 40)),
             didYouMean(word, words, "there are: " + joined(list, ", ")));
    }
    if (values_.count(setting->word) > 0)
      refuse(from, word.size(), fmt::format("\"{}\" is said twice", std::string(word)), "");
    double& into = values_[setting->word];
    if (setting->most > 0) {
      std::optional<unsigned long long> number = wholeNumber(value, setting->most);
      if (!number || *number < 1)
        refuse(valueAt, value.size(),
               setting->most < many
                   ? fmt::format("{} is a whole number from 1 to {}", word, setting->most)
                   : fmt::format("{} is a whole number from 1 up", word),
               std::string("such as: ") + kind.example);
      into = static_cast<double>(*number);
      return;
    }
    auto [end, error] = std::from_chars(value.data(), value.data() + value.size(), into);
    if (value.empty() || error != std::errc() || end != value.data() + value.size() ||
        !std::isfinite(into) || into <= 0 || into > 86400)
      refuse(valueAt, value.size(), "time is a number of seconds above 0 and at most 86400",
             fmt::format("such as: {}:time=0.5", kind.word));
  }

  double value(const char* word) const {
    auto it = values_.find(word);
    return it == values_.end() ? 0 : it->second;
  }
  std::unique_ptr<Opponent> made(std::string_view word) const {
    auto whole = [&](const char* setting) { return static_cast<std::uint64_t>(value(setting)); };
    if (word == "random") return makeRandom();
    if (word == "greedy") return makeGreedy();
    if (word == "minimax") return makeMinimax(std::max(1, static_cast<int>(value("depth"))));
    if (word == "playouts") {
      PlayoutLimits limits{whole("playouts"), value("time"), whole("memory"), whole("pasts"),
                           static_cast<int>(value("threads"))};
      if (limits.playouts == 0 && limits.seconds <= 0)
        limits.playouts = 2000, limits.steps = usualSteps;
      return makePlayouts(limits);
    }
    SearchLimits limits;
    limits.depth = static_cast<int>(value("depth"));
    limits.seconds = value("time");
    limits.nodes = whole("nodes");
    limits.megabytes = whole("memory");
    limits.level = static_cast<int>(value("level"));
    limits.pasts = whole("pasts");
    limits.threads = static_cast<int>(value("threads"));
    if (limits.depth == 0 && limits.seconds <= 0 && limits.nodes == 0 && limits.level == 0)
      limits.nodes = 100'000, limits.steps = usualSteps;
    return makeSearch(limits);
  }

  std::string_view text_;
  const std::string& source_;
  std::map<std::string, double> values_;
};

// An opponent's word and its settings.
class Name {
 public:
  explicit Name(std::string word) : text_(std::move(word)) {}
  template <class Number>
  void add(const char* setting, Number value) {
    if (value > 0) word(fmt::format("{}={}", setting, value));
  }
  void word(const std::string& text) {
    text_ += mark_ + text;
    mark_ = ',';
  }
  const std::string& text() const { return text_; }

 private:
  std::string text_;
  char mark_ = ':';
};

}  // namespace

std::string nameOf(const SearchLimits& limits) {
  Name name("search");
  name.add("level", limits.level);
  name.add("depth", limits.depth);
  name.add("time", limits.seconds);
  name.add("nodes", limits.nodes);
  if (limits.exact) name.word("exact");
  name.add("memory", limits.megabytes);
  name.add("pasts", limits.pasts);
  name.add("threads", limits.threads);
  return name.text();
}

std::string nameOf(const PlayoutLimits& limits) {
  Name name("playouts");
  name.add("playouts", limits.playouts);
  name.add("time", limits.seconds);
  name.add("memory", limits.megabytes);
  name.add("pasts", limits.pasts);
  name.add("threads", limits.threads);
  return name.text();
}

std::vector<std::string> opponentNames() {
  std::vector<std::string> out;
  for (const Kind& one : kinds()) out.push_back(one.word);
  return out;
}

std::unique_ptr<Opponent> makeOpponent(std::string_view text, const std::string& source) {
  return Reader(text, source).read();
}

}  // namespace ninepegs::play
