// A unit test against `ninepegs vectors othello --out othello.jsonl`:
//
//   node vectors_test.js othello.jsonl
"use strict";
const assert = require("node:assert");
const fs = require("node:fs");
const { standing } = require("./adapter");
const { Othello } = require("./othello");

// What the game says of what the vector says.
function told(game, wanted) {
  const says = { turn: null, ...standing(game) };
  if (wanted.moves) says.moves.sort();
  return Object.fromEntries(Object.keys(wanted).map((key) => [key, says[key]]));
}

function play(moves) {
  const game = new Othello();
  for (const move of moves) game.play(move);
  return game;
}

const [, ...lines] = fs.readFileSync(process.argv[2], "utf8").trim().split("\n");
for (const line of lines) {
  const vector = JSON.parse(line);
  assert.deepStrictEqual(told(play(vector.play), vector.stands), vector.stands, vector.position);
  for (const [move, after] of Object.entries(vector.after))
    assert.deepStrictEqual(told(play([...vector.play, move]), after), after, vector.position);
}
console.log(`${lines.length} vectors hold`);
