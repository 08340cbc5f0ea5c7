"""The vectors' unit test on Othello with one planted fault: folder, fault, file."""
import sys
import unittest

import faulty_othello  # finds the folder of adapter.py in the first argument
import vectors_test

vectors_test.Othello = getattr(faulty_othello, sys.argv[2])
vectors_test.VECTORS = sys.argv[3]
suite = unittest.defaultTestLoader.loadTestsFromTestCase(vectors_test.Vectors)
sys.exit(0 if unittest.TextTestRunner(verbosity=0).run(suite).wasSuccessful() else 1)
