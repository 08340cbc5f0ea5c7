#include "by_hand.hpp"

#include <map>

#include "yardstick_chess.hpp"
#include "yardstick_large.hpp"
#include "yardstick_othello.hpp"
#include "yardsticks.hpp"

namespace yardstick {
namespace {

template <class Game>
int firstWins(std::uint64_t& random, int games) {
  Random stream{random};
  int won = 0;
  for (int i = 0; i < games; ++i) {
    int plies = 0;
    won += Game::playOut(stream, plies) == 1 ? 1 : 0;
  }
  random = stream.state;
  return won;
}

}  // namespace

FirstWins byHand(const std::string& name) {
  static const std::map<std::string, FirstWins> all{{"tic-tac-toe", firstWins<TicTacToe>},
                                                    {"connect-four", firstWins<ConnectFour>},
                                                    {"othello", firstWins<Othello>},
                                                    {"chess", firstWins<Chess>},
                                                    {"hex", firstWins<Hex>},
                                                    {"five-in-a-row", firstWins<FiveInARow>},
                                                    {"battleship", firstWins<Battleship>}};
  return all.at(name);
}

std::uint64_t chessSequences(int depth) {
  return Chess{}.sequences<0>(depth);
}

}  // namespace yardstick
