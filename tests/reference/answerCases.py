"""Answers the reference cases with general-purpose libraries, sharing nothing with the engine.

Reads the cases as JSON on standard input, writes the answers as JSON on standard output. Versions the stored answers
were made with: Python 3.11, networkx 2.8.8, scipy 1.10.1 (HiGHS), python-igraph 0.10.2, as Debian 12 packages them.

For each case: the pairs of feeding source and face that energy joins, with
  available  least credited devices on any way, every creditable device isolated
  depth      the same with the case's own set isolated
and the cost of the cheapest set, in hundredths of a minute, by
  one barrier             minimum cut of the split graph, igraph and networkx both
  two and three barriers  the linear programme of potentials, HiGHS, where nothing falls short and every pair asks k
  else                    a set-covering integer programme over ways, HiGHS, until no way is left short
"""

import heapq
import json
import sys

import igraph
import networkx as nx
import numpy as np
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import coo_matrix

CONVERTS = {
    "pump": [("shaft", "fluid"), ("fluid", "shaft")],
    "motor": [("power", "shaft"), ("shaft", "power")],
    "starter": [("power", "control")],
    "transformer": [("power", "control"), ("control", "power")],
}
CARRIERS = ["power", "control", "fluid", "hydraulic", "pneumatic", "shaft", "gravity", "bulk", "heat", "radiation"]


class Case:
    def __init__(self, case):
        plant, job = case["plant"], case["job"]
        self.faces = [face["place"] for face in job["faces"]]
        self.require = job["require"]
        self.isolated = set(job["isolated"])
        self.items = {item["tag"]: item for item in plant["items"]}
        self.graph = nx.DiGraph()
        for tag in self.items:
            for carrier in CARRIERS:
                self.graph.add_node((tag, carrier))
        for link in plant["links"]:
            a, b = (link["from"], link["carries"]), (link["to"], link["carries"])
            self.graph.add_edge(a, b)
            if not link.get("oneWay", False):
                self.graph.add_edge(b, a)
        for tag, item in self.items.items():
            if "device" not in item:
                for a, b in CONVERTS.get(item["kind"], []):
                    self.graph.add_edge((tag, a), (tag, b))
        self.creditable = {
            tag for tag, item in self.items.items() if item.get("device", {}).get("credit") and tag not in self.faces
        }
        self.several = {
            self.unit(tag)
            for tag in self.creditable
            if len(self.items[tag]["device"]["stops"]) > 1 or "commonCause" in self.items[tag]["device"]
        }

    def unit(self, tag):
        return "cause " + self.items[tag]["device"]["commonCause"] if "commonCause" in self.items[tag]["device"] else tag

    def gates(self, devices, source):
        """The vertices at which these devices stop energy that comes from this source."""
        return {
            (tag, carrier): self.unit(tag)
            for tag in devices
            if tag in self.creditable and tag != source
            for carrier in self.items[tag]["device"]["stops"]
        }

    def way(self, start, face, gates):
        """Least distinct units crossed from start to the face, and such a way. Dijkstra over (vertex, units that count
        once and were crossed); without such units this is networkx's own shortest path."""
        targets = {(face, carrier) for carrier in CARRIERS}
        if not self.several:
            weight = lambda a, b, _: 1 if b in gates else 0
            try:
                length, way = nx.multi_source_dijkstra(self.graph, {start}, weight=weight, target=None)
            except nx.NodeNotFound:
                return None
            ends = [t for t in targets if t in length]
            if not ends:
                return None
            end = min(ends, key=lambda t: length[t])
            return length[end], way[end]
        first = (start, frozenset())
        best = {first: 0}
        came = {}
        queue = [(0, 0, first)]
        count = 0
        while queue:
            cost, _, state = heapq.heappop(queue)
            if cost > best[state]:
                continue
            vertex, crossed = state
            if vertex in targets:
                way = [vertex]
                while state in came:
                    state = came[state]
                    way.append(state[0])
                return cost, way[::-1]
            for to in self.graph.successors(vertex):
                price, then = 0, crossed
                unit = gates.get(to)
                if unit is not None:
                    price = 0 if unit in crossed else 1
                    if unit in self.several:
                        then = crossed | {unit}
                after = (to, then)
                if cost + price < best.get(after, 1 << 30):
                    best[after] = cost + price
                    came[after] = state
                    count += 1
                    heapq.heappush(queue, (cost + price, count, after))
        return None

    def pairs(self):
        found = []
        for tag, item in self.items.items():
            for carrier in dict.fromkeys(source["carrier"] for source in item.get("source", [])):
                for face in self.faces:
                    everything = self.way((tag, carrier), face, self.gates(self.creditable, tag))
                    if everything is None:
                        continue
                    own = self.way((tag, carrier), face, self.gates(self.isolated, tag))
                    found.append(
                        {
                            "source": tag,
                            "carrier": carrier,
                            "face": face,
                            "required": self.require.get(carrier, 0),
                            "available": everything[0],
                            "depth": own[0],
                        }
                    )
        return found

    def cost(self, tag):
        return round(self.items[tag]["device"]["effort"] * 100)

    def asking(self, pairs):
        return [(p, min(p["required"], p["available"])) for p in pairs if min(p["required"], p["available"]) > 0]

    def simple(self, pairs):
        """Is the linear programme of potentials exact here?"""
        ks = {k for _, k in self.asking(pairs)}
        return not self.several and len(ks) == 1 and all(p["available"] >= p["required"] for p in pairs)

    def own_gate(self, pairs):
        """A source inside a creditable device: its gate counts for others and not for itself."""
        return any(p["source"] in self.creditable for p in pairs)

    def minimum_cut(self, pairs):
        asking = self.asking(pairs)
        sources = {(p["source"], p["carrier"]) for p, _ in asking}
        faces = {p["face"] for p, _ in asking}
        split = nx.DiGraph()
        for a, b in self.graph.edges:
            split.add_edge((a, "out"), (b, "in"))
        gates = self.gates(self.creditable, None)
        for v in self.graph.nodes:
            if v in gates and v not in sources:
                split.add_edge((v, "in"), (v, "out"), capacity=self.cost(v[0]))
            else:
                split.add_edge((v, "in"), (v, "out"))
        for s in sources:
            split.add_edge("S", (s, "in"))
        for face in faces:
            for carrier in CARRIERS:
                split.add_edge(((face, carrier), "out"), "T")
        value, _ = nx.minimum_cut(split, "S", "T")
        names = {v: i for i, v in enumerate(split.nodes)}
        edges = [(names[a], names[b]) for a, b in split.edges]
        capacity = [float(split.edges[e].get("capacity", 1e12)) for e in split.edges]
        again = igraph.Graph(len(names), edges, directed=True).maxflow_value(names["S"], names["T"], capacity)
        assert round(again) == value, (again, value)
        return round(value)

    def potentials(self, pairs):
        """min Σ c·x with one potential field: 0 at the sources, k at the faces, rising only across chosen devices."""
        asking = self.asking(pairs)
        k = asking[0][1]
        gates = self.gates(self.creditable, None)
        devices = sorted({tag for tag, _ in gates})
        at = {tag: i for i, tag in enumerate(devices)}
        n = len(devices)
        before = {v: n + 2 * i for i, v in enumerate(self.graph.nodes)}
        size = n + 2 * len(self.graph.nodes)
        rows, columns, values, limits = [], [], [], []

        def at_most(terms, limit):
            for column, value in terms:
                rows.append(len(limits)), columns.append(column), values.append(value)
            limits.append(limit)

        sources = {(p["source"], p["carrier"]) for p, _ in asking}
        targets = {(p["face"], c) for p, _ in asking for c in CARRIERS}
        for a, b in self.graph.edges:
            at_most([(before[b], 1), (before[a] + 1, -1)], 0)
        for v in self.graph.nodes:
            rise = [(before[v] + 1, 1), (before[v], -1)]
            at_most(rise + [(at[v[0]], -1)] if v in gates and v not in sources else rise, 0)
        low = np.zeros(size)
        high = np.concatenate([np.ones(n), np.full(2 * len(self.graph.nodes), float(k))])
        for v in sources:
            high[before[v]] = high[before[v] + 1] = 0
        for v in targets:
            low[before[v]] = k
        matrix = coo_matrix((values, (rows, columns)), shape=(len(limits), size)).tocsr()
        price = np.concatenate([[self.cost(tag) for tag in devices], np.zeros(2 * len(self.graph.nodes))])
        done = linprog(price, A_ub=matrix, b_ub=limits, bounds=np.column_stack([low, high]), method="highs")
        assert done.status == 0, done.message
        return round(done.fun)

    def cover(self, pairs):
        """The cheapest set by an integer programme over the ways found so far, until no way is left short."""
        devices = sorted(self.creditable)
        at = {tag: i for i, tag in enumerate(devices)}
        ways = []
        while True:
            units = [unit for way, _ in ways for unit in way]
            size = len(devices) + len(units)
            rows, columns, values, low = [], [], [], []

            def at_least(terms, limit):
                for column, value in terms:
                    rows.append(len(low)), columns.append(column), values.append(value)
                low.append(limit)

            slot = len(devices)
            for way, k in ways:
                mine = list(range(slot, slot + len(way)))
                slot += len(way)
                at_least([(i, 1) for i in mine], k)
                for i, members in zip(mine, way):
                    at_least([(at[tag], 1) for tag in members] + [(i, -1)], 0)
            if ways:
                matrix = coo_matrix((values, (rows, columns)), shape=(len(low), size)).tocsr()
                price = np.concatenate([[self.cost(tag) for tag in devices], np.zeros(len(units))])
                done = milp(
                    price,
                    constraints=LinearConstraint(matrix, lb=low),
                    integrality=np.ones(size),
                    bounds=Bounds(0, 1),
                    options={"mip_rel_gap": 0},
                )
                assert done.status == 0, done.message
                chosen = {tag for tag in devices if done.x[at[tag]] > 0.5}
            else:
                chosen = set()
            short = False
            for p, k in self.asking(pairs):
                cost, way = self.way((p["source"], p["carrier"]), p["face"], self.gates(chosen, p["source"]))
                if cost >= k:
                    continue
                short = True
                every = self.gates(self.creditable, p["source"])
                members = {}
                for vertex in way[1:]:
                    if vertex in every:
                        members.setdefault(every[vertex], set()).add(vertex[0])
                ways.append(([sorted(m) for m in members.values()], k))
            if not short:
                return sum(self.cost(tag) for tag in chosen)

    def answer(self):
        pairs = self.pairs()
        asking = self.asking(pairs)
        if not asking:
            return {"pairs": pairs, "optimum": 0, "by": "nothing asked"}
        if self.simple(pairs) and not self.own_gate(pairs):
            if asking[0][1] == 1 and all(k == 1 for _, k in asking) and self.whole(pairs, asking):
                return {"pairs": pairs, "optimum": self.minimum_cut(pairs), "by": "minimum cut"}
            if self.whole(pairs, asking):
                return {"pairs": pairs, "optimum": self.potentials(pairs), "by": "linear programme"}
        return {"pairs": pairs, "optimum": self.cover(pairs), "by": "integer programme"}

    def whole(self, pairs, asking):
        """One field for all pairs is right only where every source asks the same of every face that it reaches."""
        return len(asking) == len(pairs)


if __name__ == "__main__":
    cases = json.load(sys.stdin)
    json.dump([{"id": case["id"], **Case(case).answer()} for case in cases], sys.stdout)
