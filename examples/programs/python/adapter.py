"""Lets `ninepegs compare GAME --program "python3 my_game.py"` ask a game that is written in Python.

Copy this file beside your game, give the game the five methods below, and end it with

    if __name__ == "__main__":
        adapter.serve(MyGame)

    class MyGame:
        def __init__(self): ...        # a new game
        def moves(self): ...           # the legal moves, a text each; none when it is over
        def play(self, move): ...      # plays a move; raises ValueError if it is not legal
        def turn(self): ...            # the side to move
        def result(self): ...          # None, or (winner,) with None for a draw
        def board(self): ...           # rows from the top, or {cell: letter}; may be left out
        def choose(self, seed): ...    # a move, to play against people and opponents; may be left out

What you leave out (None) is not compared.
"""
import json
import sys


def standing(game):
    """How the game stands, as the protocol has it."""
    result = game.result()
    told = {
        "moves": game.moves(),
        "turn": None if result else game.turn(),
        "result": {"winner": result[0]} if result else None,
        "board": game.board() if hasattr(game, "board") else None,
    }
    return {key: value for key, value in told.items() if value is not None or key == "result"}


def answer(make_game, state, request):
    """The answer to one request: {"result": ...} or {"error": ...}."""
    method, params = request.get("method"), request.get("params") or {}
    if method == "start":
        state["game"] = make_game()
        return {"result": standing(state["game"])}
    if method == "play":
        try:
            state["game"].play(params["move"])
        except ValueError as error:
            return {"error": {"code": 1, "message": str(error) or "not a legal move"}}
        return {"result": standing(state["game"])}
    if method == "legal":
        return {"result": params["move"] in state["game"].moves()}
    if method == "choose" and hasattr(state["game"], "choose"):
        return {"result": {"move": state["game"].choose(params.get("seed", 0))}}
    return {"error": {"code": -32601, "message": "no such method"}}


def serve(make_game):
    """Answers until standard input ends. Nothing else may print to standard output."""
    state = {}
    for line in sys.stdin:
        request = json.loads(line)
        told = {"jsonrpc": "2.0", "id": request.get("id"), **answer(make_game, state, request)}
        sys.stdout.write(json.dumps(told) + "\n")
        sys.stdout.flush()
