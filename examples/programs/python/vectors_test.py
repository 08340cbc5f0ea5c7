"""A unit test against `ninepegs vectors othello --out othello.jsonl`:

    python3 vectors_test.py othello.jsonl
"""
import json
import sys
import unittest

from adapter import standing
from othello import Othello


def told(game, wanted):
    """What the game says of what the vector says."""
    says = {"turn": None, **standing(game)}
    return {key: sorted(says[key]) if key == "moves" else says[key] for key in wanted}


def play(moves):
    game = Othello()
    for move in moves:
        game.play(move)
    return game


class Vectors(unittest.TestCase):
    def test_every_vector(self):
        with open(VECTORS, encoding="utf-8") as lines:
            next(lines)  # about the whole
            for line in lines:
                vector = json.loads(line)
                with self.subTest(position=vector["position"]):
                    stands = vector["stands"]
                    self.assertEqual(told(play(vector["play"]), stands), stands)
                    for move, after in vector["after"].items():
                        self.assertEqual(told(play(vector["play"] + [move]), after), after, move)


if __name__ == "__main__":
    VECTORS = sys.argv.pop()
    unittest.main()
