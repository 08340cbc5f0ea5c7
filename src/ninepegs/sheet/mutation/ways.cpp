// Directions that are easily mistaken for others.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/sheet/mutation/alternatives.hpp"

namespace ninepegs::rules {
namespace {

using Directions = std::array<std::vector<int>, 2>;

// The place of these directions in the list; they are added if they are new.
int place(Rules& rules, const std::string& word, const Directions& directions,
          const std::vector<int>& axes) {
  for (std::size_t i = 0; i < rules.ways.size(); ++i) {
    const Ways& one = rules.ways[i];
    if (one.word == word && one.directions == directions && one.axes == axes)
      return static_cast<int>(i);
  }
  rules.ways.push_back({word, directions, axes, false});
  return static_cast<int>(rules.ways.size()) - 1;
}

int place(Rules& rules, const std::string& word, const Directions& directions) {
  return place(rules, word, directions, rules.board.axes(directions[0]));
}

const std::string& nameOf(const Rules& rules, int direction) {
  return rules.board.directions()[direction].name;
}

const std::vector<std::string> groups = {"orthogonal", "diagonal", "any"};

std::vector<int> without(std::vector<int> list, std::size_t at) {
  list.erase(list.begin() + static_cast<std::ptrdiff_t>(at));
  return list;
}

}  // namespace

std::vector<OtherWays> otherWays(Rules& rules, int ways) {
  const Ways is = rules.ways[ways];  // a copy: the list may grow
  std::vector<OtherWays> out;
  auto add = [&](Slip slip, const std::string& word, const Directions& directions) {
    if (directions == is.directions) return;
    out.push_back({slip, place(rules, word, directions)});
  };
  std::size_t many = std::min(is.directions[0].size(), is.directions[1].size());
  for (std::size_t k = 0; k < many && many > 1; ++k)
    add(Slip::direction, fmt::format("{} but {}", is.word, nameOf(rules, is.directions[0][k])),
        {without(is.directions[0], k), without(is.directions[1], k)});
  for (int side = 0; side < 2 && many > 1; ++side) {
    Directions one = is.directions;
    std::size_t last = one[side].size() - 1;
    std::string word =
        fmt::format("{} but {} for {}", is.word, nameOf(rules, one[side][last]), rules.sides[side]);
    one[side] = without(one[side], last);
    add(Slip::oneSide, word, one);
  }
  // A group for a group.
  if (std::find(groups.begin(), groups.end(), is.word) != groups.end())
    for (const std::string& word : groups) {
      std::vector<int> all = rules.board.directionGroup(word);
      if (!all.empty()) add(Slip::direction, word, {all, all});
    }
  if (many == 0) return out;
  // Turned round, and aside.
  auto turned = [&](auto change) {
    Directions other = is.directions;
    bool sound = true;
    for (std::vector<int>& list : other)
      for (int& direction : list) direction = change(direction), sound = sound && direction >= 0;
    return sound ? other : is.directions;
  };
  auto back = [&](int direction) { return rules.board.opposite(direction); };
  auto word = [&](const Directions& directions) {
    std::string first = nameOf(rules, directions[0][0]), second = nameOf(rules, directions[1][0]);
    if (first == second) return first;
    return fmt::format("{} for {}, {} for {}", first, rules.sides[0], second, rules.sides[1]);
  };
  if (many == 1) {
    Directions other = turned(back);
    add(Slip::direction, word(other), other);
    other = turned([&](int direction) { return rules.board.turned(direction, 1); });
    add(Slip::direction, word(other), other);
    for (int side = 0; side < 2; ++side) {
      Directions one = is.directions;
      one[side] = {back(one[side][0])};
      add(Slip::oneSide, word(one), one);
    }
  } else if (is.word.rfind("forward", 0) == 0 || is.word.rfind("backward", 0) == 0) {
    add(Slip::direction, is.word + " turned round", turned(back));
  }
  return out;
}

std::vector<int> otherAxes(Rules& rules, int ways) {
  const Ways is = rules.ways[ways];
  std::vector<int> out;
  for (std::size_t k = 0; k < is.axes.size() && is.axes.size() > 1; ++k)
    out.push_back(place(rules, fmt::format("{} but {}", is.word, nameOf(rules, is.axes[k])),
                        is.directions, without(is.axes, k)));
  for (const std::string& word : groups) {
    std::vector<int> all = rules.board.directionGroup(word), axes = rules.board.axes(all);
    if (!axes.empty() && axes != is.axes) out.push_back(place(rules, word, {all, all}, axes));
  }
  return out;
}

}  // namespace ninepegs::rules
