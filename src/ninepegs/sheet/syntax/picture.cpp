// The section that says how the board is drawn.
#include "ninepegs/sheet/syntax/sections.hpp"

namespace ninepegs::sheet {

void Parser::picture(const Block& block, Cursor& in) {
  once(tree_.picture.has_value(), block, in);
  in.end();
  if (block.children.empty())
    in.refuse(block.span, "`picture` holds no lines", "such as: border round rows 1 to 3");
  PictureDecl picture;
  picture.span = block.span;
  for (const Block& line : block.children) {
    guarded(line, [&](Cursor& cursor) {
      if (cursor.sees("border")) {
        cursor.next();
        cursor.expect("round", "say: border round rows 1 to 3, rows 4 to 6");
        do picture.borders.push_back(expression(cursor));
        while (cursor.accept(","));
      } else {
        LookDecl look;
        look.what = expression(cursor);
        cursor.expect("as", "say: peg as ring, won as shade, or: border round rows 1 to 3");
        look.look = cursor.word("how it is drawn");
        picture.looks.push_back(std::move(look));
      }
      nothingFollows(line, cursor);
    });
  }
  tree_.picture = std::move(picture);
}

}  // namespace ninepegs::sheet
