// Tables for boards that fit one word, where most of the time of a slide or a fill can be saved.
#include <algorithm>
#include <bit>

#include "ninepegs/base/processor.hpp"
#include "ninepegs/sheet/compile/emitter.hpp"

namespace ninepegs::sheet {

namespace {

constexpr std::size_t slideBits = 12;
constexpr std::size_t slideEntries = std::size_t{1} << 17;

}  // namespace

// A step of every cell is one turn of the word if all cells move by the same amount.
void Emitter::makeTurns() {
  const Geometry& board = rules_.board;
  if (program_.words != 1) return;
  std::size_t longest = 1;
  for (std::size_t group = 0; group < program_.groupsOfDirections.size(); ++group) {
    std::vector<FourTurns> turns;
    std::size_t used = 0;
    for (int direction : program_.groupsOfDirections[group]) {
      const std::vector<ShiftPart>& parts = program_.directions[direction];
      if (parts.size() > 1) {
        turns.clear();
        break;
      }
      if (parts.empty()) continue;
      if (used % 4 == 0) turns.emplace_back();
      turns.back().by[used % 4] = static_cast<std::uint64_t>(parts[0].amount) & 63;
      turns.back().mask[used % 4] = program_.tables[parts[0].mask];
      ++used;
      for (Cell start = 0; start < board.size(); ++start) {
        std::size_t steps = 0;
        for (Cell cell = start; cell >= 0 && steps < 64; cell = program_.next[direction][cell])
          ++steps;
        longest = std::max(longest, steps);
      }
    }
    program_.turnsOfGroups[group] = std::move(turns);
  }
  program_.fillDoublings = static_cast<int>(std::bit_width(longest - 1));
}

// What lies on the lines of `directions` from every cell but what ends them: only pieces there
// matter to how far a slide comes.
std::vector<std::uint64_t> Emitter::slideMasks(const std::vector<int>& directions) const {
  std::vector<std::uint64_t> masks;
  for (Cell cell = 0; cell < rules_.board.size(); ++cell) {
    std::uint64_t mask = 0;
    for (int direction : directions) {
      std::uint64_t ray = program_.tables[program_.rays[direction] + cell];
      if (ray == 0) continue;
      std::uint64_t end = program_.rayUp[direction] ? std::bit_floor(ray) : ray & (0 - ray);
      mask |= ray & ~end;
    }
    masks.push_back(mask);
  }
  return masks;
}

// How many entries a table over these masks has; too many if one of them has too many cells.
std::size_t Emitter::slideTableSize(const std::vector<int>& directions) const {
  std::size_t total = 0;
  for (std::uint64_t mask : slideMasks(directions)) {
    if (static_cast<std::size_t>(std::popcount(mask)) > slideBits) return slideEntries + 1;
    total += std::size_t{1} << std::popcount(mask);
  }
  return total;
}

int Emitter::slideTable(const std::vector<int>& directions) {
  auto known = slideKeys_.find(directions);
  if (known != slideKeys_.end()) return known->second;
  std::vector<SlideCell> cells;
  for (std::uint64_t mask : slideMasks(directions)) {
    cells.push_back({mask, static_cast<std::uint32_t>(program_.slideSets.size())});
    Cell cell = static_cast<Cell>(cells.size()) - 1;
    std::uint64_t stops = 0;
    do {  // all subsets of the mask, in the order of their gathered bits
      std::uint64_t out = 0;
      for (int direction : directions) {
        int rays = program_.rays[direction];
        std::uint64_t ray = program_.tables[rays + cell], hit = ray & stops;
        if (hit == 0) {
          out |= ray;
          continue;
        }
        int stop = program_.rayUp[direction] ? std::countr_zero(hit) : 63 - std::countl_zero(hit);
        out |= ray & ~program_.tables[rays + stop];
      }
      program_.slideSets.push_back(out);
      stops = (stops - mask) & mask;
    } while (stops != 0);
  }
  program_.slideTables.push_back(std::move(cells));
  int index = static_cast<int>(program_.slideTables.size()) - 1;
  slideKeys_[directions] = index;
  return index;
}

// The directions of a group are joined, always the two parts that make the least table, as long as
// it stays small.
void Emitter::makeSlides() {
  if (!processor.gathers || program_.words != 1 || program_.rays.empty()) return;
  program_.slidesOfGroups.resize(program_.groupsOfDirections.size());
  for (const Instruction& one : program_.code) {
    if (one.op != Op::slide || !program_.slidesOfGroups[one.n].empty()) continue;
    std::vector<std::vector<int>> parts;
    std::size_t largest = 0;
    for (int direction : program_.groupsOfDirections[one.n]) parts.push_back({direction});
    for (const std::vector<int>& part : parts) largest = std::max(largest, slideTableSize(part));
    if (largest > slideEntries) continue;
    while (parts.size() > 1) {
      std::size_t best = slideEntries + 1, first = 0, second = 0;
      for (std::size_t i = 0; i < parts.size(); ++i)
        for (std::size_t k = i + 1; k < parts.size(); ++k) {
          std::vector<int> joined = parts[i];
          joined.insert(joined.end(), parts[k].begin(), parts[k].end());
          std::size_t size = slideTableSize(joined);
          if (size < best) best = size, first = i, second = k;
        }
      if (best > slideEntries) break;
      parts[first].insert(parts[first].end(), parts[second].begin(), parts[second].end());
      parts.erase(parts.begin() + static_cast<std::ptrdiff_t>(second));
    }
    for (std::vector<int>& part : parts) {
      std::sort(part.begin(), part.end());
      program_.slidesOfGroups[one.n].push_back(slideTable(part));
    }
  }
}

}  // namespace ninepegs::sheet
