// Games by name: the shipped sheets, or a path.
#pragma once

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs {

// Folders that hold shipped sheets, the first that exists being used.
class Library {
 public:
  explicit Library(std::vector<std::filesystem::path> folders) : folders_(std::move(folders)) {}

  std::vector<std::string> names() const;

  // Is it a path, and no name of a shipped game? Anything with a '/' or the ending .pegs.
  static bool isPath(const std::string& nameOrPath);

  // A shipped game's name, or a path. Throws BadInput.
  std::shared_ptr<const Game> open(const std::string& nameOrPath,
                                   const std::string& variant = {}) const;

  // Small sheets to begin a game with: what they are like, and their texts. Throws BadInput for one
  // that is not there.
  std::vector<std::string> likes() const;
  std::string like(const std::string& what) const;

 private:
  std::vector<std::filesystem::path> folders_;
};

}  // namespace ninepegs
