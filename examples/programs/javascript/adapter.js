// Lets `ninepegs compare GAME --program "node my_game.js"` ask a game that is written in JavaScript.
//
// Copy this file beside your game, give the game the methods below, and end it with
//
//   require("./adapter").serve(() => new MyGame());
//
//   class MyGame {
//     constructor() {}    // a new game
//     moves() {}          // the legal moves, a text each; none when it is over
//     play(move) {}       // plays a move; throws an Illegal if it is not legal
//     turn() {}           // the side to move
//     result() {}         // null, or {winner: "Black"}, or {winner: null} for a draw
//     board() {}          // rows from the top, or {cell: letter}; may be left out
//     choose(seed) {}     // a move, to play against people and opponents; may be left out
//   }
//
// What a method leaves out (undefined) is not compared.
"use strict";
const readline = require("node:readline");

class Illegal extends Error {}

// How the game stands, as the protocol has it.
function standing(game) {
  const result = game.result();
  const told = { moves: game.moves(), result: result };
  if (!result) told.turn = game.turn();
  if (game.board) told.board = game.board();
  return told;
}

// The answer to one request: {result} or {error}.
function answer(makeGame, state, request) {
  const params = request.params || {};
  switch (request.method) {
    case "start":
      state.game = makeGame();
      return { result: standing(state.game) };
    case "play":
      try {
        state.game.play(params.move);
      } catch (error) {
        if (!(error instanceof Illegal)) throw error;
        return { error: { code: 1, message: error.message } };
      }
      return { result: standing(state.game) };
    case "legal":
      return { result: state.game.moves().includes(params.move) };
    case "choose":
      if (state.game.choose) return { result: { move: state.game.choose(params.seed ?? 0) } };
    // falls through
    default:
      return { error: { code: -32601, message: "no such method" } };
  }
}

// Answers until standard input ends. Nothing else may print to standard output.
function serve(makeGame) {
  const state = {};
  readline.createInterface({ input: process.stdin }).on("line", (line) => {
    const request = JSON.parse(line);
    const told = { jsonrpc: "2.0", id: request.id, ...answer(makeGame, state, request) };
    process.stdout.write(JSON.stringify(told) + "\n");
  });
}

module.exports = { serve, standing, Illegal };
