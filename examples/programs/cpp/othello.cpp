// For `ninepegs compare othello --program ./othello`.
//
//   g++ -std=c++20 -O2 -o othello othello.cpp
#include "othello.hpp"

int main() {
  return adapter::serve<Othello>();
}
