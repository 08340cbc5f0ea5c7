#include "ninepegs/cli/slips_run.hpp"

#include "ninepegs/cli/context.hpp"

namespace ninepegs::cli {

SlipsRun runMutants(const Game& game, verify::MutantOptions options, const Context& context) {
  options.stop = &stopFlag();
  options.proof = proofMoves;
  SlipsRun out;
  out.mutants = std::make_shared<verify::Mutants>(
      sheetOf(game, "only a game with a sheet has mutants"), options);
  {
    Progress progress(context, "mutants", out.mutants->all().size());
    progress.doing("plays games to find positions");
    out.mutants->run([&](std::uint64_t done) { progress.at(done); });
  }
  out.said.seed = options.seed;
  out.said.playouts = options.playouts;
  out.said.stopped = wantsStop(options.stop);
  return out;
}

}  // namespace ninepegs::cli
