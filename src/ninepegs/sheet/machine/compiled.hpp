// Which machines are compiled where; read by machine.hpp at its end.
#pragma once

// Compiled once, in words_1.cpp and listing_1.cpp, and so on: in two parts, which takes a machine
// with two processors half as long.
#define NINEPEGS_MACHINES(prefix, W)                                                     \
  prefix template class ninepegs::sheet::Machine<W>;                                     \
  prefix template void ninepegs::sheet::Machine<W>::run(int, ninepegs::sheet::NoSink&);  \
  prefix template void ninepegs::sheet::Machine<W>::run(int, ninepegs::sheet::AnySink&); \
  prefix template void ninepegs::sheet::Machine<W>::run(int, ninepegs::sheet::TrialSink&);
#define NINEPEGS_LISTING_MACHINES(prefix, W)                                               \
  prefix template void ninepegs::sheet::Machine<W>::run(int, ninepegs::sheet::CountSink&); \
  prefix template void ninepegs::sheet::Machine<W>::run(int, ninepegs::sheet::FindSink&);  \
  prefix template void ninepegs::sheet::Machine<W>::run(int, ninepegs::sheet::BundleSink<W>&);
#ifndef NINEPEGS_COMPILES_MACHINE
#define NINEPEGS_MACHINES_ELSEWHERE(W) \
  NINEPEGS_MACHINES(extern, W)         \
  NINEPEGS_LISTING_MACHINES(extern, W)
NINEPEGS_MACHINES_ELSEWHERE(1)
NINEPEGS_MACHINES_ELSEWHERE(2)
NINEPEGS_MACHINES_ELSEWHERE(4)
NINEPEGS_MACHINES_ELSEWHERE(8)
#endif
