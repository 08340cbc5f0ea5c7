// The files that a check leaves in a folder.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "ninepegs/report/mutants_text.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::cli {

struct WrittenFile {
  std::filesystem::path path;
  std::string shows;
};

// Writes check.json, junit.xml, check.sarif, report.html, check.png and, if a fault was found,
// fault.png. A file that an earlier check left and this one does not write is removed.
std::vector<WrittenFile> writeCheckFiles(const Game& game, const verify::CheckOptions& options,
                                         const verify::CheckReport& report,
                                         const report::MutantsPart& mutants,
                                         const std::filesystem::path& folder);

}  // namespace ninepegs::cli
