"""Othello with one planted fault, named by the first argument: what `compare` must find."""
import sys

sys.path.insert(0, sys.argv[1])  # where adapter.py and othello.py stand

import adapter
from othello import SIZE, Othello


class RowForColumn(Othello):
    @staticmethod
    def place(move):
        column, row = Othello.place(move)
        return row, column


class NegativeIndex(Othello):
    @staticmethod
    def place(move):
        column, row = "abcdefgh".index(move[0]), int(move[1:]) - 1
        if row >= SIZE:
            raise ValueError("off the board")
        return column, row  # row -2 is the last but one of a list


class AcrossTheEdge(Othello):
    """One list of 64 cells, and steps of 1, 7, 8 and 9 without a look at the edge."""

    def turned(self, column, row, side):
        flat = [cell for line in self.cells for cell in line]
        start = row * SIZE + column
        if flat[start] != ".":
            return []
        turned = []
        for step in (-9, -8, -7, -1, 1, 7, 8, 9):
            line, at = [], start + step
            while 0 <= at < 64 and flat[at] not in (".", side):
                line.append(at)
                at += step
            if 0 <= at < 64 and flat[at] == side:
                turned += [(place % SIZE, place // SIZE) for place in line]
        return turned


class AfterTheEnd(Othello):
    def play(self, move):
        if self.over():
            self.mover = self.other()
            return
        super().play(move)


class NoPass(Othello):
    def over(self):
        return not self.can_place(self.mover)


class SevenDirections(Othello):
    def turned(self, column, row, side):
        out = super().turned(column, row, side)
        straight = [(x, y) for x, y in out if x - column == y - row and x < column]
        return [place for place in out if place not in straight]


class OneLeftLying(Othello):
    def turned(self, column, row, side):
        out = super().turned(column, row, side)
        return out[:-1] if len(out) > 3 else out


class Overwritten(Othello):
    def play(self, move):
        if move != "pass" and not self.over():
            column, row = self.place(move)
            if self.cells[row][column] == self.mover:
                self.mover = self.other()
                return
        super().play(move)


class DrawIsAWin(Othello):
    def result(self):
        out = super().result()
        return ("Black",) if out == (None,) else out


class EmptyIsAPass(Othello):
    def play(self, move):
        if move == "":
            self.mover = self.other()
            return
        super().play(move)


class WinnerIsTheLast(Othello):
    def result(self):
        out = super().result()
        return out and (("White" if self.mover == "x" else "Black"),)


class ForcedPassIsOptional(Othello):
    def moves(self):
        out = super().moves()
        return out + ["pass"] if out and "pass" not in out and len(out) == 1 else out


if __name__ == "__main__":
    adapter.serve(globals()[sys.argv[2]])
