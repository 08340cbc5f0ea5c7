// Turn, ends, what is forbidden, what comes after a move, what is remembered.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/mutation/parts.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {
namespace {

class Sections {
 public:
  Sections(const Rules& rules, std::vector<Mutation>& out) : rules_(rules), out_(out) {}

  void all() {
    afters();
    turn();
    for (std::size_t i = 0; i < rules_.forbids.size(); ++i)
      add(Slip::leftOut, rules_.forbids[i].span.line,
          fmt::format("forbid \"{}\"", rules_.forbids[i].reason), "",
          [i](Rules& to) { erase(to.forbids, i); });
    for (std::size_t i = 0; i < rules_.ends.size(); ++i) end(i);
    memory();
  }

 private:
  template <class Make>
  void add(Slip slip, int line, const std::string& was, const std::string& now, Make make) {
    out_.push_back(mutationOf(slip, line, was, now, std::move(make)));
  }
  template <class T>
  static void erase(std::vector<T>& list, std::size_t at) {
    list.erase(list.begin() + static_cast<std::ptrdiff_t>(at));
  }
  std::string name(int move) const {
    return move == passMove ? "pass" : rules_.moves[static_cast<std::size_t>(move)].name;
  }

  void afters() {
    for (std::size_t i = 0; i < rules_.afters.size(); ++i) {
      const AfterRule& after = rules_.afters[i];
      std::vector<std::string> names;
      for (int move : after.moves) names.push_back(name(move));
      add(Slip::leftOut, after.span.line,
          "after " + (names.empty() ? "every move" : joined(names, ", ")), "",
          [i](Rules& to) { erase(to.afters, i); });
      for (std::size_t k = 0; k < after.moves.size() && after.moves.size() > 1; ++k)
        add(Slip::leftOut, after.span.line, "after " + joined(names, ", "), "not after " + names[k],
            [i, k](Rules& to) { erase(to.afters[i].moves, k); });
    }
  }

  // As the sheet would say it.
  std::string said(const std::vector<std::vector<int>>& tiers) const {
    std::vector<std::string> texts;
    for (const auto& tier : tiers) {
      std::vector<std::string> names;
      for (int move : tier) names.push_back(name(move));
      texts.push_back(joined(names, " or "));
    }
    return "turn " + joined(texts, " else ");
  }
  void turn() {
    using Tiers = std::vector<std::vector<int>>;
    Tiers is;
    int line = rules_.moves.empty() ? 0 : rules_.moves.front().span.line;
    if (rules_.turn) {
      is = rules_.turn->tiers;
      line = rules_.turn->span.line;
    } else {
      is.emplace_back();
      for (std::size_t move = 0; move < rules_.moves.size(); ++move)
        is.back().push_back(static_cast<int>(move));
    }
    auto becomes = [&](Tiers tiers) {
      std::erase_if(tiers, [](const std::vector<int>& tier) { return tier.empty(); });
      if (tiers.empty() || tiers == is) return;
      add(Slip::turn, line, said(is), said(tiers), [tiers](Rules& to) {
        if (!to.turn) to.turn = TurnRule{};
        to.turn->tiers = tiers;
      });
    };
    bool passes = false;
    for (const auto& tier : is)
      passes = passes || std::find(tier.begin(), tier.end(), passMove) != tier.end();
    for (std::size_t i = 0; i < is.size(); ++i) {
      if (i + 1 < is.size()) {  // `or` for `else`
        Tiers tiers = is;
        tiers[i].insert(tiers[i].end(), tiers[i + 1].begin(), tiers[i + 1].end());
        erase(tiers, i + 1);
        becomes(tiers);
        tiers = is;
        std::swap(tiers[i], tiers[i + 1]);
        becomes(tiers);
      }
      for (std::size_t k = 0; k < is[i].size(); ++k) {
        Tiers tiers = is;
        erase(tiers[i], k);
        becomes(tiers);  // left out
        if (is[i].size() < 2) continue;
        int move = is[i][k];  // `else` for `or`
        tiers.insert(tiers.begin() + static_cast<std::ptrdiff_t>(i) + 1, std::vector<int>{move});
        becomes(tiers);
      }
    }
    if (passes) return;
    Tiers tiers = is;
    tiers.push_back({passMove});
    becomes(tiers);
    tiers = is;
    tiers.back().push_back(passMove);
    becomes(tiers);
  }

  void end(std::size_t i) {
    using sheet::EndKind;
    const EndRule& end = rules_.ends[i];
    int line = end.span.line;
    std::string name = fmt::format("\"{}\"", end.name);
    // Its name stays, for cases that speak of it.
    add(Slip::end, line, "the end " + name, "", [i](Rules& to) {
      Any never;
      never.what = make(Type::set, to.ends[i].span, NoCells{});
      to.ends[i].condition = make(Type::truth, to.ends[i].span, std::move(never));
      to.ends[i].showing = nullptr;
    });
    if (i + 1 < rules_.ends.size()) {
      std::string next = fmt::format("\"{}\"", rules_.ends[i + 1].name);
      add(Slip::end, line, name + " before " + next, next + " before " + name,
          [i](Rules& to) { std::swap(to.ends[i], to.ends[i + 1]); });
    }
    if (end.kind == EndKind::moverWins || end.kind == EndKind::moverLoses)
      for (int side = 0; side < 2; ++side)
        add(Slip::oneSide, line, name, name + " only if " + rules_.sides[side] + " has moved",
            [i, side](Rules& to) {
              And both;
              both.left = make(Type::truth, to.ends[i].span, IsSide{Role::mover, side});
              both.right = to.ends[i].condition;
              to.ends[i].condition = make(Type::truth, to.ends[i].span, std::move(both));
            });
    auto becomes = [&](const std::string& was, const std::string& now, auto edit) {
      add(Slip::end, line, was + " " + name, now + " " + name,
          [i, edit](Rules& to) { edit(to.ends[i]); });
    };
    switch (end.kind) {
      case EndKind::moverWins:
        becomes("mover wins", "mover loses", [](EndRule& to) { to.kind = EndKind::moverLoses; });
        becomes("mover wins", "draw", [](EndRule& to) { draws(to); });
        break;
      case EndKind::moverLoses:
        becomes("mover loses", "mover wins", [](EndRule& to) { to.kind = EndKind::moverWins; });
        becomes("mover loses", "draw", [](EndRule& to) { draws(to); });
        break;
      case EndKind::sideWins:
        becomes(rules_.sides[end.side], rules_.sides[1 - end.side],
                [](EndRule& to) { to.side = 1 - to.side; });
        break;
      case EndKind::leader:
        becomes("leader", "last", [](EndRule& to) {
          Arithmetic less;
          less.sum = Sum::subtract;
          less.left = make(Type::number, to.span, Number{0});
          less.right = to.measure;
          to.measure = make(Type::number, to.span, std::move(less));
        });
        break;
      case EndKind::draw:
        becomes("draw", "mover wins", [](EndRule& to) { to.kind = EndKind::moverWins; });
        break;
    }
    if (end.claim) becomes("claim", "at once", [](EndRule& to) { to.claim = false; });
  }
  static void draws(EndRule& end) {
    end.kind = sheet::EndKind::draw;
    end.drawName = end.name;
  }

  void memory() {
    for (std::size_t i = 0; i < rules_.numbers.size(); ++i) {
      const NumberRule& number = rules_.numbers[i];
      for (int side = 0; side < (number.each ? 2 : 1) && number.given; ++side)
        for (int by : {1, -1})
          add(Slip::number, number.span.line,
              fmt::format("{} = {}", number.name, number.start[side]),
              fmt::format("{} = {}", number.name, number.start[side] + by),
              [i, side, by, each = number.each](Rules& to) {
                to.numbers[i].start[side] += by;
                if (!each) to.numbers[i].start[1] = to.numbers[i].start[0];
              });
    }
    for (std::size_t i = 0; i < rules_.remembered.size(); ++i)
      if (rules_.remembered[i].lastsOneMove)
        add(Slip::memory, rules_.remembered[i].span.line,
            rules_.remembered[i].name + ", lasts one move", rules_.remembered[i].name,
            [i](Rules& to) { to.remembered[i].lastsOneMove = false; });
    if (rules_.repetition)
      for (std::size_t i = 0;
           i < rules_.repetition->compares.size() && rules_.repetition->compares.size() > 1; ++i)
        add(Slip::leftOut, rules_.repetition->span.line, "repetition compares",
            "without " + rules_.nameOf(rules_.repetition->compares[i]),
            [i](Rules& to) { erase(to.repetition->compares, i); });
    for (std::size_t i = 0; i < rules_.tracks.size(); ++i)
      add(Slip::direction, rules_.tracks[i].span.line, "track " + rules_.tracks[i].name,
          "track " + rules_.tracks[i].name + " the other way", [i](Rules& to) {
            for (std::vector<Cell>& cells : to.tracks[i].cells)
              std::reverse(cells.begin(), cells.end());
          });
    for (std::size_t i = 0; i < rules_.zones.size(); ++i)
      if (rules_.zones[i].bySide)
        add(Slip::whose, rules_.zones[i].span.line, "zone " + rules_.zones[i].name,
            "zone " + rules_.zones[i].name + " of the other side", [i](Rules& to) {
              std::swap(to.zones[i].says[0], to.zones[i].says[1]);
              std::swap(to.zones[i].cells[0], to.zones[i].cells[1]);
            });
    for (std::size_t i = 0; i < rules_.sees.size(); ++i)
      add(Slip::leftOut, rules_.sees[i].span.line, "sees " + toText(rules_, *rules_.sees[i].what),
          "", [i](Rules& to) { erase(to.sees, i); });
  }

  const Rules& rules_;
  std::vector<Mutation>& out_;
};

}  // namespace

void mutationsOfSections(const Rules& rules, std::vector<Mutation>& out) {
  Sections(rules, out).all();
}

}  // namespace ninepegs::rules
