"""Othello as a program of its own, for `ninepegs compare othello --program "python3 othello.py"`."""
import adapter

SIZE = 8
AROUND = [(x, y) for x in (-1, 0, 1) for y in (-1, 0, 1) if (x, y) != (0, 0)]


class Othello:
    def __init__(self):
        self.cells = [["."] * SIZE for _ in range(SIZE)]
        self.cells[3][3] = self.cells[4][4] = "o"
        self.cells[3][4] = self.cells[4][3] = "x"
        self.mover = "x"

    @staticmethod
    def inside(column, row):
        return 0 <= column < SIZE and 0 <= row < SIZE

    @staticmethod
    def name(column, row):
        return "abcdefgh"[column] + str(row + 1)

    @staticmethod
    def place(move):
        """Column and row of a text such as d3, counted from 0."""
        if len(move) != 2 or move[0] not in "abcdefgh" or move[1] not in "12345678":
            raise ValueError("no cell: " + move)
        return "abcdefgh".index(move[0]), int(move[1]) - 1

    def turned(self, column, row, side):
        """The discs that a disc here would turn."""
        if self.cells[row][column] != ".":
            return []
        turned = []
        for dx, dy in AROUND:
            line, x, y = [], column + dx, row + dy
            while self.inside(x, y) and self.cells[y][x] not in (".", side):
                line.append((x, y))
                x, y = x + dx, y + dy
            if self.inside(x, y) and self.cells[y][x] == side:
                turned += line
        return turned

    def can_place(self, side):
        return [(x, y) for y in range(SIZE) for x in range(SIZE) if self.turned(x, y, side)]

    def other(self):
        return "o" if self.mover == "x" else "x"

    def over(self):
        return not self.can_place("x") and not self.can_place("o")

    def moves(self):
        if self.over():
            return []
        return [self.name(x, y) for x, y in self.can_place(self.mover)] or ["pass"]

    def play(self, move):
        if self.over():
            raise ValueError("the game is over")
        if move == "pass":
            if self.can_place(self.mover):
                raise ValueError("there is a move")
        else:
            column, row = self.place(move)
            turned = self.turned(column, row, self.mover)
            if not turned:
                raise ValueError("turns nothing: " + move)
            for x, y in turned + [(column, row)]:
                self.cells[y][x] = self.mover
        self.mover = self.other()

    def turn(self):
        return "Black" if self.mover == "x" else "White"

    def result(self):
        if not self.over():
            return None
        count = sum(row.count("x") - row.count("o") for row in self.cells)
        return ("Black" if count > 0 else "White" if count < 0 else None,)

    def board(self):
        return ["".join(row) for row in self.cells]

    def choose(self, seed):
        """The move that turns most discs; the seed decides among equals."""
        moves = sorted(self.moves())
        if moves == ["pass"]:
            return "pass"
        counts = [len(self.turned(*self.place(move), self.mover)) for move in moves]
        best = [move for move, count in zip(moves, counts) if count == max(counts)]
        return best[seed % len(best)]


if __name__ == "__main__":
    adapter.serve(Othello)
