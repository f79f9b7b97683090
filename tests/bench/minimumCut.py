"""The minimum vertex cut of a state graph by igraph (C), and by networkx where the graph is small enough to wait for."""

import json
import sys
import time

import igraph
import networkx as nx

with open(sys.argv[1]) as file:
    problem = json.load(file)
n = problem["n"]
arcs = problem["arcs"]
gates = dict(map(tuple, problem["gates"]))
sources = set(problem["sources"])
FREE = 1e12
edges = [(2 * arcs[i] + 1, 2 * arcs[i + 1]) for i in range(0, len(arcs), 2)]
capacity = [FREE] * len(edges)
for v in range(n):
    edges.append((2 * v, 2 * v + 1))
    capacity.append(FREE if v in sources else float(gates.get(v, FREE)))
source, sink = 2 * n, 2 * n + 1
for v in sources:
    edges.append((source, 2 * v))
    capacity.append(FREE)
for v in problem["targets"]:
    edges.append((2 * v + 1, sink))
    capacity.append(FREE)
graph = igraph.Graph(2 * n + 2, edges, directed=True)
start = time.perf_counter()
value = graph.maxflow_value(source, sink, capacity)
out = {"igraph cut": 1000 * (time.perf_counter() - start), "igraph value": value}
if problem["networkx"]:
    graph = nx.DiGraph()
    for (a, b), c in zip(edges, capacity):
        graph.add_edge(a, b, **({} if c == FREE else {"capacity": c}))
    start = time.perf_counter()
    value = nx.minimum_cut_value(graph, source, sink)
    out["networkx cut"] = 1000 * (time.perf_counter() - start)
    out["networkx value"] = value
json.dump(out, sys.stdout)
