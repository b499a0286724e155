"""Other machines that make pieces of films: they need neither database nor site, only a Redis server and

the folder of takes. A piece is a task that holds all that its worker has to know; what becomes of it is
written on a board. The rows of jobs stay the truth: a relay beside the database hands pieces out and
takes down what the board says.
"""
