// Othello as a program of its own, for `ninepegs compare othello --program "node othello.js"`.
"use strict";
const { serve, Illegal } = require("./adapter");

const size = 8;
const around = [-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => [x, y])).filter(([x, y]) => x || y);
const inside = (x, y) => x >= 0 && x < size && y >= 0 && y < size;
const nameOf = (x, y) => "abcdefgh"[x] + (y + 1);

class Othello {
  constructor() {
    this.cells = Array.from({ length: size }, () => Array(size).fill("."));
    this.cells[3][3] = this.cells[4][4] = "o";
    this.cells[3][4] = this.cells[4][3] = "x";
    this.mover = "x";
  }

  // The discs that a disc here would turn.
  turned(column, row, side) {
    if (this.cells[row][column] !== ".") return [];
    const turned = [];
    for (const [dx, dy] of around) {
      const line = [];
      let x = column + dx;
      let y = row + dy;
      for (; inside(x, y) && ![".", side].includes(this.cells[y][x]); x += dx, y += dy)
        line.push([x, y]);
      if (inside(x, y) && this.cells[y][x] === side) turned.push(...line);
    }
    return turned;
  }

  canPlace(side) {
    const out = [];
    for (let y = 0; y < size; y++)
      for (let x = 0; x < size; x++) if (this.turned(x, y, side).length > 0) out.push([x, y]);
    return out;
  }

  over() {
    return this.canPlace("x").length === 0 && this.canPlace("o").length === 0;
  }

  moves() {
    if (this.over()) return [];
    const places = this.canPlace(this.mover).map(([x, y]) => nameOf(x, y));
    return places.length > 0 ? places : ["pass"];
  }

  play(move) {
    if (!this.moves().includes(move)) throw new Illegal("not legal: " + move);
    if (move !== "pass") {
      const column = "abcdefgh".indexOf(move[0]);
      const row = Number(move[1]) - 1;
      for (const [x, y] of [...this.turned(column, row, this.mover), [column, row]])
        this.cells[y][x] = this.mover;
    }
    this.mover = this.mover === "x" ? "o" : "x";
  }

  turn() {
    return this.mover === "x" ? "Black" : "White";
  }

  result() {
    if (!this.over()) return null;
    const count = (letter) => this.cells.flat().filter((c) => c === letter).length;
    const lead = count("x") - count("o");
    return { winner: lead > 0 ? "Black" : lead < 0 ? "White" : null };
  }

  board() {
    return this.cells.map((row) => row.join(""));
  }

  // Any legal move, as the seed decides.
  choose(seed) {
    const moves = this.moves();
    return moves[seed % moves.length];
  }
}

if (require.main === module) serve(() => new Othello());

module.exports = { Othello };
