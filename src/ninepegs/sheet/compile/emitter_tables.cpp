// The layout of positions, and the tables that are worked out once for a sheet.
#include <algorithm>
#include <unordered_set>

#include "ninepegs/sheet/compile/emitter.hpp"

namespace ninepegs::sheet {

Emitter::Emitter(const rules::Rules& rules, Program& program, Shortcuts without)
    : rules_(rules), program_(program), without_(without) {
  int size = rules.board.size();
  program_.words = size <= 64 ? 1 : size <= 128 ? 2 : size <= 256 ? 4 : 8;
  makeLayout();
  int w = program_.words;
  int at = program_.layout.words;
  auto take = [&](int words) {
    Slot slot = static_cast<Slot>(std::min(at, limits::memoryWords));
    at += words;
    return slot;
  };
  program_.choicesAt = take(limits::choices);
  generatorFrom_ = take(96 * w + 160);
  program_.againSlot = take(1);
  program_.valueSlot = take(1);
  program_.shownSlot = take(w);
  if (rules.readsBefore) program_.beforeAt = take(program_.layout.words);
  otherFrom_ = take(96 * w + 160);
  otherEnd_ = static_cast<Slot>(std::min(at, limits::memoryWords));
  program_.invariantSlots = take(2 * static_cast<int>(rules.always.size()));
  program_.trialAt = take(96 * w + 160);
  program_.trialEnd = program_.trialAt;
  program_.constantsAt = static_cast<Slot>(std::min(at, limits::memoryWords));
  overflown_ = at >= limits::memoryWords;
  program_.allAt = tableSet(rules.board.all());
  makeDirections();
  if (takes(Shortcut::rays)) makeRays();
  makePieces();
}

void Emitter::makeLayout() {
  Layout& layout = program_.layout;
  int w = program_.words, at = 3;
  auto take = [&](int words) {
    Slot slot = static_cast<Slot>(std::min(at, limits::memoryWords));
    at += words;
    return slot;
  };
  auto pair = [&](int words, bool each) {
    Slot first = take(words);
    return Layout::BySide{first, each ? take(words) : first};
  };
  bool layered = layout.layered = rules_.layered();
  layout.sides = pair(w, true);
  layout.empty = pair(w, layered);
  program_.kinds = static_cast<int>(rules_.kinds.size());
  bool neutral = std::any_of(rules_.kinds.begin(), rules_.kinds.end(),
                             [](const rules::PieceKind& piece) { return piece.neutral; });
  if (program_.kinds > 1 || neutral)
    for (int kind = 0; kind < program_.kinds; ++kind) layout.kinds.push_back(pair(w, layered));
  layout.planesEnd = at;
  for (const rules::MarkRule& mark : rules_.marks) layout.marks.push_back(pair(w, mark.each));
  for (const rules::NumberRule& number : rules_.numbers) {
    layout.numbers.push_back(number.onCells ? Layout::BySide{} : pair(1, number.each));
    layout.cellNumbers.push_back(number.onCells ? take(rules_.board.size()) : Slot{0});
    if (number.onCells)
      for (Cell cell = 0; cell < rules_.board.size(); ++cell)
        program_.numberNames.push_back({static_cast<Slot>(layout.cellNumbers.back() + cell),
                                        number.name + " of " + rules_.board.label(cell),
                                        number.span.line});
    for (int side = 0; side < (number.onCells ? 0 : number.each ? 2 : 1); ++side)
      program_.numberNames.push_back(
          {layout.numbers.back()[side],
           number.name + (number.each ? " of " + rules_.sides[side] : ""), number.span.line});
  }
  for (const rules::RememberedRule& cell : rules_.remembered)
    layout.cells.push_back(pair(1, cell.each));
  if (rules_.hasHands) layout.hands = pair(program_.kinds, true);
  if (rules_.readsPasses) layout.passes = take(1);
  if (rules_.readsTimes) layout.seen = take(1);
  if (rules_.usesAgain) layout.lastMover = take(1);
  layout.words = at;
}

void Emitter::makeDirections() {
  const Geometry& board = rules_.board;
  for (const Direction& direction : board.directions()) {
    // All cells that move by the same amount make one shift.
    std::map<int, CellSet> arrive;
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (direction.next[cell] >= 0) arrive[direction.next[cell] - cell].set(direction.next[cell]);
    std::vector<ShiftPart> parts;
    for (const auto& [amount, mask] : arrive) parts.push_back({amount, tableSet(mask)});
    program_.directions.push_back(std::move(parts));
    program_.next.emplace_back(direction.next.begin(), direction.next.end());
  }
  for (Cell cell = 0; cell < board.size(); ++cell) {
    program_.rowNumbers.push_back(static_cast<std::int16_t>(board.rowNumber(cell)));
    program_.columnNumbers.push_back(static_cast<std::int16_t>(board.columnNumber(cell)));
  }
}

// A ray is what a piece could slide along on an empty board. Where cell numbers grow or shrink all
// the way along it, the first piece on it is its lowest or highest cell. Round joined edges they do
// not, and there are no rays.
void Emitter::makeRays() {
  const Geometry& board = rules_.board;
  if (!runsStraight(board)) return;
  std::vector<CellSet> rays;
  for (const Direction& direction : board.directions()) {
    bool up = false;
    for (Cell cell = 0; cell < board.size(); ++cell) up = up || direction.next[cell] > cell;
    program_.rayUp.push_back(up);
    for (Cell start = 0; start < board.size(); ++start) {
      CellSet ray;
      for (Cell cell = direction.next[start]; cell >= 0; cell = direction.next[cell]) ray.set(cell);
      rays.push_back(ray);
    }
  }
  for (std::size_t i = 0; i < rays.size(); ++i) {
    int where = tableSet(rays[i]);
    if (i % board.size() == 0) program_.rays.push_back(where);
  }
}

void Emitter::makePieces() {
  const Geometry& board = rules_.board;
  if (rules_.hasEdges)
    for (const rules::PieceKind& piece : rules_.kinds) {
      program_.edges.emplace_back(piece.edges.begin(), piece.edges.end());
      program_.edges.back().resize(board.directions().size(), 0);
    }
  for (const rules::TrackRule& track : rules_.tracks) {
    for (const std::vector<Cell>& cells : track.cells) {
      std::vector<std::int16_t> next(board.size(), -1);
      for (std::size_t i = 0; i < cells.size(); ++i)
        next[cells[i]] = static_cast<std::int16_t>(cells[(i + 1) % cells.size()]);
      program_.tracks.push_back(std::move(next));
    }
  }
  for (const rules::PieceKind& piece : rules_.kinds) {
    program_.kindSides.push_back(static_cast<std::uint8_t>(piece.neutral ? 3 : piece.only + 1));
    program_.kindsDiffer = program_.kindsDiffer || program_.kindSides.back() != 0;
  }
  program_.weights = rules_.weights;
}

// Where every step of an axis is the same shift, a line is found by shifting; elsewhere (joined
// edges, points) each line is a mask of its own.
void Emitter::shiftedLines(LineSet& lines, const std::vector<int>& axes) {
  const Geometry& board = rules_.board;
  for (int axis : axes)
    if (program_.directions[axis].size() > 1) return;
  if (board.shape().kind == Shape::points || axes.size() > lines.axes.size()) return;
  // Each shift as far as the runs known so far are long.
  std::vector<int> strides;
  for (int have = 1; have < lines.length; have += strides.back())
    strides.push_back(std::min(have, lines.length - have));
  lines.shiftCount = static_cast<int>(strides.size());
  for (int axis : axes) {
    if (program_.directions[axis].empty()) continue;
    // Shift downwards in memory, whichever way the axis is named.
    int direction = program_.directions[axis][0].amount > 0 ? axis : board.opposite(axis);
    CellSet starts;
    for (const std::vector<Cell>& line : board.lines(lines.length, {direction}))
      starts.set(line[0]);
    if (starts.none()) continue;
    LineAxis& one = lines.axes[lines.axisCount++];
    one.starts = tableSet(starts);
    for (std::size_t k = 0; k < strides.size(); ++k)
      one.shifts[k] = strides[k] * program_.directions[direction][0].amount;
  }
}

// Are the lines found by shifting all of them, in the order of their first cells along each axis?
void Emitter::orderLines(LineSet& lines, const std::vector<CellSet>& masks) {
  std::size_t at = 0;
  bool same = lines.axisCount > 0;
  for (int i = 0; same && i < lines.axisCount; ++i) {
    LineAxis& axis = lines.axes[i];
    axis.first = static_cast<int>(at);
    for (Cell cell = 0; same && cell < rules_.board.size(); ++cell) {
      if ((program_.tables[axis.starts + cell / 64] >> (cell % 64) & 1) == 0) continue;
      CellSet line;
      for (int k = 0; k < lines.length; ++k) line.set(cell + k * axis.shifts[0]);
      same = at < masks.size() && masks[at++] == line;
    }
  }
  lines.ordered = same && at == masks.size();
}

int Emitter::lineSet(int length, const std::vector<int>& axes, LineUse use) {
  auto it = lineKeys_.find({length, axes, use});
  if (it != lineKeys_.end()) return it->second;
  const Geometry& board = rules_.board;
  LineSet lines;
  lines.length = length;
  lines.exact = use == LineUse::exact;
  if (use != LineUse::exact && length > 1 && takes(Shortcut::lineShifts)) shiftedLines(lines, axes);
  lines.through.resize(use == LineUse::family ? 0 : board.size());
  std::vector<CellSet> masks, ends;
  std::unordered_set<CellSet> known;  // round joined edges lines meet themselves
  for (int axis : length == 1 ? std::vector<int>{axes.front()} : axes) {
    for (const std::vector<Cell>& line : board.lines(length, {axis})) {
      CellSet mask, end;
      for (Cell cell : line) mask.set(cell);
      if (!known.insert(mask).second) continue;
      for (Cell cell : line)
        if (use != LineUse::family) lines.through[cell].push_back(lines.count);
      if (std::optional<Cell> cell = board.step(line.back(), axis)) end.set(*cell);
      if (std::optional<Cell> cell = board.step(line.front(), board.opposite(axis))) end.set(*cell);
      masks.push_back(mask);
      ends.push_back(end & ~mask);
      ++lines.count;
    }
  }
  orderLines(lines, masks);
  lines.masks = static_cast<int>(program_.tables.size());
  for (const CellSet& mask : masks) tableSet(mask);
  lines.ends = static_cast<int>(program_.tables.size());
  if (lines.exact)
    for (const CellSet& end : ends) tableSet(end);
  program_.lineSets.push_back(std::move(lines));
  return lineKeys_[{length, axes, use}] = static_cast<int>(program_.lineSets.size()) - 1;
}

int Emitter::lineFamily(const std::vector<int>& lengths, const std::vector<int>& axes) {
  std::vector<int> family;
  for (int length : lengths) {
    if (length < 1 || length > limits::cells) continue;
    if (static_cast<int>(family.size()) <= length) family.resize(length + 1, -1);
    family[length] = lineSet(length, axes, LineUse::family);
  }
  program_.lineFamilies.push_back(std::move(family));
  return static_cast<int>(program_.lineFamilies.size()) - 1;
}

}  // namespace ninepegs::sheet
