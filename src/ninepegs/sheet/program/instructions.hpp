// The instructions of a program: their names, what each does with its operands, their meaning.
//
// Operands a, b, c, d are places in memory, n is a number. What an instruction does with each of
// the five is declared by a letter:
//
//   - nothing   # a plain number
//   s S U  a set: read, written, both        i I V  a number, cell or kind: the same
//   w X    a number of each cell: read, written
//   k  a kind; if n is 1, the place of one
//   behind: j jump   t cell table   g group of directions   d direction   l line set
//           f family of line sets   p property   r track   m move   e statement   x part of a text
//
// verify.hpp holds every program against them.
#pragma once

#include <cstdint>
#include <string_view>

namespace ninepegs::sheet {

// clang-format off
#define NINEPEGS_INSTRUCTIONS(X) \
  X(stop, "-----", "end of the routine") \
  X(jump, "----j", "go on at n") \
  X(copySet, "Ss---", "a = b") \
  X(both, "Sss--", "a = b on c") \
  X(either, "Sss--", "a = b or c") \
  X(minus, "Sss--", "a = b except c") \
  X(clear, "S----", "a = no cells") \
  X(cellSet, "Si---", "a = the cell b as a set") \
  X(setCell, "Is---", "a = the first cell of b") \
  X(step, "Ss--d", "a = b moved one step along direction n") \
  X(steps, "Ss--g", "a = b moved one step along each direction of group n") \
  X(table, "Si--t", "a = what table n holds for the cell b") \
  X(tableAll, "Ss--t", "a = what table n holds for the cells of b, together") \
  X(slide, "Sss-g", "a = from the cells of b along group n through c, up to the first other cell") \
  X(bracketing, "Sss-g", "a = cells from which runs of b along group n end on c") \
  X(between, "Sii--", "a = cells between the cells b and c") \
  X(beyond, "Iii--", "a = the cell behind b as seen from c") \
  X(bracketed, "Ssisg", "a = runs of b next to the cell c that end on d, along group n") \
  X(lineCells, "Ss--l", "a = the cells of all lines n within b") \
  X(spread, "Sss-g", "a = all of c joined to b along group n") \
  X(count, "Is---", "a = number of cells of b") \
  X(countLines, "Isi#l", "a = number of lines n within b (d = 1: through the cell c)") \
  X(copyNumber, "Ii---", "a = b") \
  X(add, "Iii--", "a = b + c") \
  X(subtract, "Iii--", "a = b - c") \
  X(multiply, "Iii--", "a = b * c") \
  X(divide, "Iii--", "a = b / c, towards zero; 0 if c is 0") \
  X(remainder, "Iii--", "a = b % c; 0 if c is 0") \
  X(least, "Iii--", "a = the smaller of b and c") \
  X(greatest, "Iii--", "a = the greater of b and c") \
  X(property, "Ii-#p", "a = property n of the piece on the cell b") \
  X(kindProperty, "Ii--p", "a = property n of the kind that b holds") \
  X(weight, "Ii---", "a = the weight of the cell b") \
  X(cellNumber, "Iwi--", "a = the number at b of the cell c") \
  X(setCellNumber, "iXi--", "the number at b of the cell c = a") \
  X(edgeOf, "Iii#-", "a = the edge of the piece on the cell b that touches the cell c") \
  X(onTrack, "Iii-r", "a = the cell b places behind the cell c on track n") \
  X(kindAt, "Ii-##", "a = the kind that stands on the cell b, of side d if that is 0 or 1") \
  X(kindPlane, "Si-##", "a = cells of the kind that b holds, of side d if that is 0 or 1") \
  X(handKinds, "S--##", "a = kinds in the hand of side d") \
  X(handTotal, "I--##", "a = number of pieces in the hand of side d") \
  X(handOf, "Ii-##", "a = number of pieces of the kind that b holds in the hand of side d") \
  X(touched, "S----", "a = cells that the last move changed") \
  X(groups, "SU--g", "a = the next group of b along group n, taken out of b; a is empty if none") \
  X(countMoves, "I--#-", "a = number of moves of side d") \
  X(timesSeen, "I----", "a = how often this position has been seen") \
  X(linesThrough, "Ssi-l", "a = the cells of the lines n within b that hold the cell c") \
  X(linesOfLength, "Ssi-f", "a = the cells of all lines of c cells within b, from family n") \
  X(rowNumber, "Ii---", "a = the row of the cell b") \
  X(columnNumber, "Ii---", "a = the column of the cell b") \
  X(jumpAny, "-s--j", "go on at n if b has cells") \
  X(jumpNone, "-s--j", "go on at n if b has no cells") \
  X(jumpIn, "-is-j", "go on at n if the cell b is in c") \
  X(jumpOut, "-is-j", "go on at n if the cell b is not in c") \
  X(jumpWithin, "-ss-j", "go on at n if b lies within c") \
  X(jumpBeyond, "-ss-j", "go on at n if b does not lie within c") \
  X(jumpLine, "-sl-j", "go on at n if b holds one of the lines c") \
  X(jumpNoLine, "-sl-j", "go on at n if b holds none of the lines c") \
  X(jumpLineThrough, "-slij", "go on at n if b holds one of the lines c through the cell d") \
  X(jumpNoLineThrough, "-slij", "go on at n if b holds none of the lines c through the cell d") \
  X(jumpSame, "-ss-j", "go on at n if the sets b and c are the same") \
  X(jumpOther, "-ss-j", "go on at n if the sets b and c differ") \
  X(jumpEqual, "-ii-j", "go on at n if b = c") \
  X(jumpUnequal, "-ii-j", "go on at n if b != c") \
  X(jumpLess, "-ii-j", "go on at n if b < c") \
  X(jumpLessEqual, "-ii-j", "go on at n if b <= c") \
  X(jumpStuck, "----j", "go on at n if the side to move has no move but a pass") \
  X(jumpUnstuck, "----j", "go on at n if the side to move has a move that is no pass") \
  X(jumpNobody, "----j", "go on at n if neither side has a move but a pass") \
  X(jumpSomebody, "----j", "go on at n if a side has a move that is no pass") \
  X(wholeBudget, "-----", "what follows has all steps again") \
  X(weigh, "---#-", "this turn of a loop takes d steps") \
  X(nextCell, "IU-#j", "a = the first cell of b, taken out, in d steps; go on at n if there is none") \
  X(lineChosen, "Sii-f", "a = line number b of c cells, of family n") \
  X(nextLineOf, "SVsfj", "a = the next line within c, of family d, b + 1 long, counted by b; else go on at n") \
  X(nextLine, "SVslj", "a = the next of the lines d within c, counted by b; go on at n if none") \
  X(emitOne, "#---m", "a legal move of group n") \
  X(emitMany, "#s--m", "a legal move of group n for every cell of b as the last choice") \
  X(emitLines, "#sifm", "a legal move of group n for every line within b, of family d, c long") \
  X(emitPass, "-----", "a pass is legal") \
  X(tryMove, "#---m", "play the move of group n on trial, a choices made; it is legal if it passes") \
  X(tryMany, "#s--m", "the same for every cell of b as the last choice, a choices with it") \
  X(keepBest, "----#", "n = 1: of what follows only measure; 2: only the best; 0: all") \
  X(pickCell, "Is-##", "a = one of the cells or kinds of b, a choice in d steps (n = 1: -1 if there is none)") \
  X(pickNumber, "Iii#-", "a = a number from b to c, a choice in d steps") \
  X(pickLine, "Ssi#f", "a = one of the lines of c cells within b, of family n, a choice in d steps") \
  X(round, "Vi-#j", "one more round, or go on at n, a choice; a counts rounds, up to b") \
  X(eachRound, "Vi--j", "a counts one more round, or go on at n when there were b") \
  X(attempt, "VI--j", "a round if it can be made, else go on at n; a counts rounds, b marks it") \
  X(attempted, "-i--j", "the round that b marks was made: go on at n") \
  X(fail, "-----", "this way is no legal move") \
  X(complete, "i---m", "the move on trial, of group n, is legal; a measures it") \
  X(useHand, "--k##", "take one of the kind c (n = 1: that c holds) from the hand of side d") \
  X(tierEnd, "-----", "stop if there was a legal move") \
  X(put, "-sk##", "put kind c (n = 1: the kind that c holds) of side d on the cells of b") \
  X(putCell, "-ik##", "put kind c (n = 1: the kind that c holds) of side d on the cell b") \
  X(take, "-s---", "take what stands on b") \
  X(shift, "-ii--", "move what stands on the cell b to the cell c") \
  X(shiftAll, "-s--d", "move what stands on b one step along direction n") \
  X(flip, "-s---", "what stands on b changes its side") \
  X(change, "-sk-#", "what stands on b becomes kind c (n = 1: the kind that c holds)") \
  X(again, "-----", "the same side moves next") \
  X(turnPass, "-----", "the turn passes, on trial") \
  X(write, "#--#x", "part n of a text, for channel d, with the value at a") \
  X(turnOver, "----j", "the ply is over: the turn passes, go on at n") \
  X(stepMinus, "SssSd", "d = c moved one step along direction n; a = b except d; skip one") \
  X(tableOn, "SisSt", "d = what table n holds for the cell b; a = d on c; skip one") \
  X(slideFrom, "SisSg", "d = the cell b as a set; a = from it along group n through c; skip one") \
  X(bothAny, "Sss-j", "a = b on c; go on at n if it has cells; skip one") \
  X(bothNone, "Sss-j", "a = b on c; go on at n if it has no cells; skip one") \
  X(countBoth, "IssS-", "d = b on c; a = its number of cells; skip one") \
  X(weighGo, "---#j", "this turn of a loop takes d steps; go on at n") \
  X(copySetGo, "Ss--j", "a = b; go on at n") \
  X(emitManyGo, "#s-mj", "as emitMany, of group d; go on at n") \
  X(stopAny, "-s--#", "end of the routine if b has cells") \
  X(emitLast, "#s--m", "as emitMany, then end of the routine") \
  X(putCellOver, "-i##j", "as putCell, then turnOver") \
  X(countdown, "-i---", "the number b must not be below zero") \
  X(cover, "----e", "statement n was used")
// clang-format on

enum class Op : std::uint16_t {
#define NINEPEGS_NAME(name, roles, meaning) name,
  NINEPEGS_INSTRUCTIONS(NINEPEGS_NAME)
#undef NINEPEGS_NAME
};

std::string_view name(Op op);
std::string_view roles(Op op);  // five letters
std::string_view meaning(Op op);

}  // namespace ninepegs::sheet
