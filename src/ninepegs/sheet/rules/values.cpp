// What the compiler makes of rules as a value, once.
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::rules {

Rules::Rules() = default;
Rules::Rules(const Rules&) = default;
Rules::Rules(Rules&&) noexcept = default;
Rules& Rules::operator=(const Rules&) = default;
Rules& Rules::operator=(Rules&&) noexcept = default;
Rules::~Rules() = default;

}  // namespace ninepegs::rules
