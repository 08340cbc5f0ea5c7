// Sheets that a new game begins with: small, commented, and playable as they stand.
#pragma once

#include <string>
#include <string_view>

namespace ninepegs::sheet {

// All throw BadInput if `name` cannot be the name of a game: small letters, digits and hyphens, a
// letter first.
std::string starterSheet(const std::string& name);

// Another sheet under that name, with a title made of it.
std::string sheetLike(const std::string& name, std::string_view sheet);

// A description in words as a sheet that works: the words are its `about`, and above each part
// stands what they say of it, with a line to fill in. The words have headings, each at the
// beginning of a line and with a colon or on a line of its own: players, board, pieces, a turn, how
// it ends. Throws BadInput for words without any of them; `source` names where they came from.
std::string sheetFromWords(const std::string& name, std::string_view words,
                           const std::string& source);

}  // namespace ninepegs::sheet
