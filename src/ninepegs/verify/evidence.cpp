#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

std::string findingName(FindingKind kind) {
  switch (kind) {
    case FindingKind::example:
      return "case";
    case FindingKind::overwrite:
      return "overwrite";
    case FindingKind::drawOverWin:
      return "draw over win";
    case FindingKind::noEnd:
      return "no end";
    case FindingKind::runaway:
      return "endless move";
    case FindingKind::endless:
      return "endless";
    case FindingKind::growing:
      return "number without bound";
    case FindingKind::invariant:
      return "invariant";
    case FindingKind::symmetry:
      return "symmetry";
    case FindingKind::leak:
      return "leak";
    case FindingKind::ambiguous:
      return "ambiguous text";
  }
  return "";
}

void Spread::merge(const Spread& other) {
  for (const auto& [value, number] : other.times) times[value] += number;
}

std::uint64_t Spread::count() const {
  std::uint64_t total = 0;
  for (const auto& [value, number] : times) total += number;
  return total;
}

double Spread::mean() const {
  std::uint64_t number = count(), sum = 0;
  for (const auto& [value, often] : times) sum += value * often;
  return number == 0 ? 0 : static_cast<double>(sum) / static_cast<double>(number);
}

bool Evidence::wants(const Fault& fault, std::uint64_t playout) const {
  auto known = faults.find({fault.kind, fault.line});
  return known == faults.end() || playout < known->second.playout;
}

void Evidence::see(const Fault& fault, FirstSeen seen) {
  if (!wants(fault, seen.playout)) return;
  seen.message = fault.message;
  faults[{fault.kind, fault.line}] = std::move(seen);
}

void Evidence::merge(const Evidence& other) {
  playouts += other.playouts;
  unfinished += other.unfinished;
  tooLong += other.tooLong;
  givenUp += other.givenUp;
  symmetryTests += other.symmetryTests;
  for (const auto& [outcome, number] : other.outcomes) outcomes[outcome] += number;
  lengths.merge(other.lengths);
  choices.merge(other.choices);
  if (uses.size() < other.uses.size()) uses.resize(other.uses.size(), 0);
  for (std::size_t i = 0; i < other.uses.size(); ++i) uses[i] += other.uses[i];
  for (const auto& [key, seen] : other.faults) {
    auto [it, added] = faults.insert({key, seen});
    if (!added && seen.playout < it->second.playout) it->second = seen;
  }
}

}  // namespace ninepegs::verify
