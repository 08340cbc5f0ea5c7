// What is legal in a sheet but suspect.
#pragma once

#include <string>

namespace ninepegs::verify {

struct Remark {
  int line = 0;  // of the sheet
  std::string message, hint;
};

}  // namespace ninepegs::verify
