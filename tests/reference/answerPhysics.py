"""Answers the physics cases with scipy's ODE solvers and quadrature, the fluids package and networkx.

Shares nothing with the engine: balances are written down again from first principles and integrated in time. Reads the
cases as JSON on standard input, writes the answers as JSON on standard output. Versions the stored answers were made
with: Python 3.11, scipy 1.10.1, fluids 1.0.22, networkx 2.8.8, as Debian 12 packages them.
"""

import json
import math
import sys

import networkx as nx
from fluids.geometry import V_from_h, V_partial_sphere, V_vertical_conical
from fluids.safety_valve import API520_C, API520_F2
from scipy.integrate import quad, solve_ivp

R = 8.31446261815324
G = 9.80665


def reached(rate, start, target, guess):
    """Time at which dy/dt = rate(y) takes y from start to target."""
    hit = lambda t, y: y[0] - target
    hit.terminal = True
    span = guess
    for _ in range(60):
        done = solve_ivp(lambda t, y: [rate(y[0])], (0, span), [start], events=hit, method="LSODA", rtol=1e-11, atol=abs(target) * 1e-13)
        if done.t_events[0].size:
            return float(done.t_events[0][0])
        span *= 4
    raise RuntimeError("not reached")


def mass_flow(p1, p2, temperature, area, cd, k, molar):
    """API 520 sizing equations turned round: kg/s of gas or vapour through a nozzle, choked or subsonic."""
    critical = (2 / (k + 1)) ** (k / (k - 1))
    mm2, kpa, grams = area * 1e6, p1 / 1e3, molar * 1e3
    if p2 / p1 <= critical:
        per_hour = mm2 * API520_C(k) * cd * kpa * math.sqrt(grams / temperature)
    else:
        per_hour = mm2 * API520_F2(k, p1, p2) * cd * math.sqrt(grams * kpa * (kpa - p2 / 1e3) / temperature) / 17.9
    return per_hour / 3600


def blowdown(p, adiabatic):
    area = math.pi / 4 * p["orifice_m"] ** 2
    k, molar, volume = p["gamma"], p["molar_kg"], p["volume_m3"]
    start_mass = p["start_Pa"] * volume * molar / (R * p["temperature_K"])

    def state(mass):
        ratio = mass / start_mass
        if adiabatic:
            return p["start_Pa"] * ratio**k, p["temperature_K"] * ratio ** (k - 1)
        return p["start_Pa"] * ratio, p["temperature_K"]

    def rate(mass):
        pressure, temperature = state(mass)
        critical = (2 / (k + 1)) ** (k / (k - 1))
        r = max(p["ambient_Pa"] / pressure, critical)
        flux = math.sqrt(2 * k / (k - 1) * (r ** (2 / k) - r ** ((k + 1) / k)))
        return -p["cd"] * area * pressure * math.sqrt(molar / (R * temperature)) * flux

    end = start_mass * (p["end_Pa"] / p["start_Pa"]) ** (1 / k if adiabatic else 1)
    return reached(rate, start_mass, end, start_mass / -rate(start_mass)), -rate(start_mass)


def tank_area(p, h):
    d, length = p["diameter_m"], p["length_m"]
    if p["shape"] == "vertical":
        return math.pi / 4 * d * d
    if p["shape"] == "horizontal":
        return 2 * length * math.sqrt(max(0, h * (d - h)))
    if p["shape"] == "sphere":
        return math.pi * h * (d - h)
    return math.pi / 4 * (d * h / length) ** 2


def tank_volume(p, h):
    d, length = p["diameter_m"], p["length_m"]
    if p["shape"] == "vertical":
        return V_from_h(h, d, length, horizontal=False)
    if p["shape"] == "horizontal":
        return V_from_h(h, d, length, horizontal=True)
    if p["shape"] == "sphere":
        return V_partial_sphere(d, h)
    return V_vertical_conical(d, length, h)


def drain(p):
    """By time steps of the volume balance where some liquid stays; by quadrature over the level where none does."""
    opening = math.pi / 4 * p["outlet_m"] ** 2

    above = p["outlet_above_m"]

    def pad(h):
        if p.get("inlet") != "shut":
            return p["pad_Pa"]
        gone = tank_volume(p, p["level_m"] + above) - tank_volume(p, h + above)
        return (p["pad_Pa"] + 101325) * p["gas_m3"] / (p["gas_m3"] + gone) - 101325

    def fall(h):
        out = p["cd"] * opening * math.sqrt(max(0, 2 * (G * h + pad(h) / p["density_kg_m3"])))
        return -out / tank_area(p, h + above)

    if p["end_m"] > 0:
        time = reached(fall, p["level_m"], p["end_m"], p["level_m"] / -fall(p["level_m"]))
        left = tank_volume(p, p["end_m"] + above)
    else:
        # Over the square root of the level, so that the last drop does not take for ever.
        time, _ = quad(lambda u: 2 * u / -fall(u * u), 0, math.sqrt(p["level_m"]), epsabs=0, epsrel=1e-11, limit=400)
        left = tank_volume(p, above) if above > 0 else 0
    return {"time_s": time, "volume_m3": tank_volume(p, p["level_m"] + above) - left}


def answer(case):
    p = case["input"]
    name = case["name"]
    if name == "blowdown":
        isothermal, first = blowdown(p, False)
        adiabatic, _ = blowdown(p, True)
        first_api = mass_flow(p["start_Pa"], p["ambient_Pa"], p["temperature_K"], math.pi / 4 * p["orifice_m"] ** 2, p["cd"], p["gamma"], p["molar_kg"])
        return {"isothermal_s": isothermal, "adiabatic_s": adiabatic, "first_kg_s": first, "first_by_api520": first_api}
    if name == "tank-drain":
        return drain(p)
    if name == "purge-dilution":
        rate = lambda c: (p["flow_m3_s"] / p["mixing"] * (p["cs"] - c) + p["generation_m3_s"]) / p["volume_m3"]
        return {"time_s": reached(rate, p["c0"], p["c"], p["volume_m3"] * p["mixing"] / p["flow_m3_s"])}
    if name == "oxygen-displaced":
        q, leak, v = p["ventilation_m3_s"], p["leak_m3_s"], p["volume_m3"]
        ends = 0.209 * q / (q + leak)
        rate = lambda c: (q * 0.209 - (q + leak) * c) / v
        return {"time_s": None if ends >= 0.195 else reached(rate, 0.209, 0.195, v / (q + leak)), "ends_at": ends}
    if name == "passing-valve":
        share = {"class II": 0.005, "class III": 0.001, "class IV": 0.0001}[p["leak"]]
        area = math.pi / 4 * p["bore_m"] ** 2 * share
        k, molar = p["gamma"], p["molar_kg"]

        def rate(down):
            critical = (2 / (k + 1)) ** (k / (k - 1))
            r = max(down / p["upstream_Pa"], critical)
            flux = math.sqrt(max(0, 2 * k / (k - 1) * (r ** (2 / k) - r ** ((k + 1) / k))))
            flow = area * p["upstream_Pa"] * math.sqrt(molar / (R * p["temperature_K"])) * flux
            return flow * R * p["temperature_K"] / (molar * p["volume_m3"])

        return {"time_s": reached(rate, p["start_Pa"], p["harmful_Pa"], (p["harmful_Pa"] - p["start_Pa"]) / rate(p["start_Pa"]))}
    if name == "cool-down":
        rate = lambda t: (p["ambient_C"] - t) / p["tau_s"]
        return {"time_s": reached(rate, p["start_C"], p["target_C"], p["tau_s"])}
    if name == "capacitor":
        rate = lambda v: -v / (p["resistance_ohm"] * p["capacitance_F"])
        energy, _ = quad(lambda v: p["capacitance_F"] * v, 0, p["voltage_V"])
        return {"time_s": reached(rate, p["voltage_V"], p["target_V"], p["resistance_ohm"] * p["capacitance_F"]), "energy_J": energy}
    if name == "accumulator":
        v1, p1, pa, k = p["volume_m3"], p["pressure_Pa"], p["ambient_Pa"], p["gamma"]
        # Work of the gas, over the logarithm of its volume.
        gross, _ = quad(lambda s: p1 * v1, 0, math.log(p1 / pa), epsrel=1e-12)
        adiabatic, _ = quad(lambda s: p1 * (1 / math.exp(s)) ** k * v1 * math.exp(s), 0, math.log(p1 / pa) / k, epsrel=1e-12)
        return {"isothermal_J": gross, "isothermal_net_J": gross - pa * (v1 * p1 / pa - v1), "adiabatic_J": adiabatic}
    if name == "blocked-in":
        # Volume of liquid and of pipe at each step of warming, for the pressure that keeps them equal.
        def rate(_):
            return (p["alpha_1_K"] - 3 * 1.2e-5) / (p["beta_1_Pa"] + p["diameter_m"] / (p["wall_m"] * 2e11))

        done = solve_ivp(lambda t, y: [rate(y[0])], (0, p["warms_K"]), [0.0], rtol=1e-10)
        return {"pressure_Pa": float(done.y[0][-1])}
    if name == "critical-path":
        graph = nx.DiGraph()
        for step in p["steps"]:
            graph.add_edge((step["id"], "start"), (step["id"], "end"), weight=step["duration_s"])
            for before in step["after"]:
                graph.add_edge((before, "end"), (step["id"], "start"), weight=0)
        ends = {}
        for node in nx.topological_sort(graph):
            ends[node] = max([ends[before] + graph.edges[before, node]["weight"] for before in graph.predecessors(node)], default=0)
        return {
            "length_s": nx.dag_longest_path_length(graph, weight="weight"),
            "early_s": [ends[(step["id"], "start")] for step in p["steps"]],
        }
    raise ValueError(name)


json.dump([{"id": case["id"], "answer": answer(case)} for case in json.load(sys.stdin)], sys.stdout)
