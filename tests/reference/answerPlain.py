"""Answers the cases of the short sums and of the tables by other means: stepping, quadrature, root finding, counting, dealing out.

Shares nothing with the engine. Tables are typed here once more, from memory of what is named beside them. Reads the cases as JSON
on standard input, writes the answers as JSON on standard output. Versions as in answerSums.py.
"""

import itertools
import json
import math
import sys

from scipy.constants import g
from scipy.integrate import quad, solve_ivp
from scipy.optimize import brentq

ATM = 101325.0


def until(rate, start, value):
    """Time at which what is stepped reaches a value."""
    hit = lambda t, y: y[0] - value
    hit.terminal = True
    guess = 1.0
    for _ in range(80):
        done = solve_ivp(rate, (0, guess), [start], events=hit, method="LSODA", rtol=1e-11, atol=1e-15)
        if done.t_events[0].size:
            return float(done.t_events[0][0])
        guess *= 4
    raise RuntimeError("not reached")


def pump_out(p):
    """The level of a straight-sided sump, stepped down by the pump; the lift where the column weighs what presses on it."""
    flow = p["flow_m3_s"] * p["share"]
    time = until(lambda t, y: [-flow], p["volume_m3"], p["heel_m3"])
    lift = brentq(lambda h: p["vapour_Pa"] + p["density_kg_m3"] * g * h - p["above_Pa"], 0, 1000, xtol=1e-12, rtol=1e-14)
    return {"time_s": time, "lifts_m": lift}


def sample_wait(p):
    """Points dealt out one by one to whoever is free; the fewest testers found by trying one, two, three."""
    hose = math.pi * (p["bore_m"] / 2) ** 2 * p["hose_m"] / p["pump_m3_s"]
    each = hose + 2 * p["t90_s"] + p["each_s"]

    def ends(testers):
        free = [0.0] * testers
        for _ in range(p["points"]):
            first = min(range(testers), key=lambda i: free[i])
            free[first] += each
        return max(free)

    needed = next(n for n in range(1, 1000) if ends(n) <= p["round_s"])
    return {"hose_s": hose, "needed": needed, "all_s": ends(p.get("instruments", needed))}


def manhole(p):
    flow = p["rated_m3_s"]
    for _ in range(p["bends"]):
        flow -= 0.3 * flow
    rate = flow / p["mixing"] / p["volume_m3"]
    swept = until(lambda t, y: [rate * (p["cs"] - y[0])], p["c0"], p["c"])
    rule = 60 * sum(20 if chimney == 0 else 10 for chimney in range(p["chimneys"]))
    return {"flow_m3_s": flow, "computed_s": swept, "rule_s": rule, "time_s": max(swept, rule)}


def blower(p):
    flow = p["rated_m3_s"]
    for _ in range(p["bends"]):
        flow -= 0.3 * flow
    return {"flow_m3_s": flow}


def changes(p):
    flow = brentq(lambda q: q * p["time_s"] / p["volume_m3"] - p["changes"], 0, 1e9, xtol=1e-14, rtol=1e-14)
    mixed = solve_ivp(lambda t, y: [-flow / p["volume_m3"] * y[0]], (0, p["time_s"]), [1.0], method="LSODA", rtol=1e-12, atol=1e-18)
    return {"flow_m3_s": flow, "left": float(mixed.y[0][-1])}


def cycles(p):
    """One cycle after the other: filled up with the purge gas, mixed, let down."""
    share, count = p["c0"], 0
    while share > p["c"]:
        share = (share * p["low_Pa"] + p["cs"] * (p["high_Pa"] - p["low_Pa"])) / p["high_Pa"]
        count += 1
    return {"cycles": count}


def air(p):
    """29 CFR 1910.146(b); NIOSH 10 and 35 ppm; EH40 5 and 20 ppm; a tenth of the lower limit. From memory."""
    h2s, co = {"us-style": (10, 35)}.get(p["limits"], (5, 20))
    most = 22.0 if p["limits"] == "hot work" else 23.5
    percent = round(p["oxygen"] * 100, 6)
    burns = p["flammable"] > 0 if p["limits"] == "hot work" else p["flammable"] >= 0.1
    shares = [p["h2s"] * 1e6 / h2s, p["co"] * 1e6 / co]
    # The hydrogen sulphide of the US set is a ceiling and adds to no mean.
    added = max(shares) if p["limits"] == "us-style" else sum(shares)
    fit = 19.5 <= percent <= most and not burns and added < 1
    return {"fit": 1 if fit else 0, "toxic_share": max(shares)}


def points(p):
    """Walks and climbs: never more than four feet, which are 1.2 m, from one to the next; three heights at least."""

    def along(length):
        if length == 0:
            return 1
        here, count = 0.0, 1
        while here < length - 1e-9:
            here, count = here + 1.2, count + 1
        return count

    heights = max(3, along(p["depth_m"]))
    lines = 1 if p["width_m"] <= 1.2 else along(p["width_m"])
    total = heights * along(p["travel_m"]) * lines + 2 * p["corners"] + p["ducts"]

    def round_s(testers):
        free = [0.0] * testers
        for _ in range(total):
            first = free.index(min(free))
            free[first] += p["each_s"]
        return max(free)

    return {"points": total, "instruments": next(n for n in range(1, 5000) if round_s(n) <= p["retest_s"])}


ATOMS = {"H": 1.008, "C": 12.011, "N": 14.007, "O": 15.999, "S": 32.06}
MADE_OF = {
    "methane": "CHHHH",
    "propane": "CCCHHHHHHHH",
    "hydrogen": "HH",
    "acetylene": "CCHH",
    "carbon monoxide": "CO",
    "hydrogen sulphide": "HHS",
    "ammonia": "NHHH",
    "hexane": "C" * 6 + "H" * 14,
}
# Lower limits in percent: NIOSH Pocket Guide; IEC 60079-20-1 where it has another. From memory.
BURNS_FROM = {
    "methane": (5.0, 4.4),
    "propane": (2.1, 1.7),
    "hydrogen": (4.0, 4.0),
    "acetylene": (2.5, 2.3),
    "carbon monoxide": (12.5, 10.9),
    "hydrogen sulphide": (4.0, 4.0),
    "ammonia": (15.0, 15.0),
    "hexane": (1.1, 1.0),
}


def weight(p):
    mass = sum(ATOMS[atom] for atom in MADE_OF[p["gas"]])
    us, european = BURNS_FROM[p["gas"]]
    lfl = {"lower": min(us, european), "us": us, "european": european}[p["set"]] / 100
    return {"relative_by_atoms": mass / 28.96, "lfl": lfl}


def mixture(p):
    """How many times over the mixture may be thinned or thickened until the shares of the limits make one."""
    total = sum(part["vol"] for part in p["parts"])
    times = brentq(lambda s: sum(s * part["vol"] / part["lfl"] for part in p["parts"]) - 1, 1e-9, 1e9, xtol=1e-15, rtol=1e-14)
    return {"lfl": times * total, "total": total, "share": 1 / times, "flammable": 1 if times <= 1 else 0}


def sensor(p):
    if p["sensor"] == "catalytic":
        sees = p["oxygen"] >= 0.1 and p["silicones"] == "no"
    else:
        sees = p["gas"] in {"methane", "propane", "hexane"}
    return {"fit": 1 if sees else 0}


# What a sensor set on methane shows too little of, from memory of makers' tables.
TOO_LITTLE = {"methane": 1.0, "propane": 2.0, "hydrogen": 1.3, "acetylene": 1.9, "carbon monoxide": 1.3, "hydrogen sulphide": 2.5, "ammonia": 0.9, "hexane": 2.7}


def reading(p):
    times = p.get("factor", TOO_LITTLE[p["gas"]] / TOO_LITTLE[p["calibrated"]])
    # Never made less than it shows.
    true = max(p["reading"], p["reading"] * times)
    return {"share": true, "fraction": true * min(BURNS_FROM[p["gas"]]) / 100}


def hidden(p):
    """Air pushed aside until the oxygen is what was read; water by Antoine's formula, in millimetres of mercury."""
    gas = brentq(lambda share: 0.209 * (1 - share) - p["oxygen"], -1, 1, xtol=1e-15)
    t = p["temperature_C"]
    water = 10 ** (8.07131 - 1730.63 / (233.426 + t)) / 760
    return {"hidden": gas, "wet_by_antoine": 0.2095 * (1 - water)}


def head(p):
    return {"pressure_Pa": quad(lambda h: p["density_kg_m3"] * g, 0, p["height_m"])[0]}


SEATS = {"class II": 0.5, "class III": 0.1, "class IV": 0.01}


def passing_liquid(p):
    if "measured_m3_s" in p:
        flow = p["measured_m3_s"]
    else:
        gap = math.pi * (p["bore_m"] / 2) ** 2 * SEATS[p["leak"]] / 100
        speed = brentq(lambda v: p["density_kg_m3"] * v * v / 2 - p["difference_Pa"], 0, 1e5, xtol=1e-13, rtol=1e-14)
        flow = gap * speed
    return {"flow_m3_s": flow, "time_s": until(lambda t, y: [flow], 0.0, p["harmful_m3"])}


def rise(p):
    """A cushion of one cubic metre, pressed by what makes the rise that was seen; steady rise beside it."""
    before, now, harmful = (x + ATM for x in (p["start_Pa"] - p["rise_Pa"], p["start_Pa"], p["harmful_Pa"]))
    flow = brentq(lambda q: before / (1 - q * p["over_s"]) - now, 0, (1 - 1e-12) / p["over_s"], xtol=1e-18, rtol=1e-14)
    left = 1 - flow * p["over_s"]
    cushion = until(lambda t, y: [-flow], left, before / harmful)
    steady = until(lambda t, y: [p["rise_Pa"] / p["over_s"]], p["start_Pa"], p["harmful_Pa"])
    return {"cushion_s": cushion, "steady_s": steady, "time_s": min(cushion, steady)}


def run_down(p):
    omega = p["speed_rpm"] * 2 * math.pi / 60
    turned = 0.0 if omega == 0 else until(lambda t, y: [-p["drag_Nm"] / p["inertia_kg_m2"]], omega, 0.0)
    energy = quad(lambda w: p["inertia_kg_m2"] * w, 0, omega)[0]
    return {"time_s": max(turned, p.get("measured_s", 0.0)), "energy_J": energy}


def raised(p):
    return {"energy_J": quad(lambda h: p["mass_kg"] * g, 0, p["height_m"])[0]}


def spring(p):
    return {"energy_J": quad(lambda x: p["stiffness_N_m"] * x, 0, p["travel_m"])[0], "force_N": p["stiffness_N_m"] * p["travel_m"]}


def flywheel(p):
    omega = p["speed_rpm"] * 2 * math.pi / 60
    return {"energy_J": quad(lambda w: p["inertia_kg_m2"] * w, 0, omega)[0]}


def dead(p):
    wires = {"three-phase with neutral": "123NE", "three-phase without neutral": "123E", "single-phase": "LNE"}[p["supply"]]
    return {"tests": len(list(itertools.combinations(wires, 2)))}


# NFPA 70E-2021 table 130.4, fixed parts: up to so many volts, nobody unqualified, nobody unshielded. From memory.
BY_NFPA = [(150, 1.07, 0.0), (750, 1.07, 0.3), (15000, 1.5, 0.66), (36000, 1.83, 0.78)]
BY_CLEARANCE = [(1000, 1.0, 0.3), (10000, 1.5, 0.7), (36000, 2.0, 1.2)]


def approach(p):
    tables = {"us-style": [BY_NFPA], "uk-style": [BY_CLEARANCE], "strict": [BY_NFPA, BY_CLEARANCE]}[p["profile"]]
    rows = [next(row for row in table if p["voltage_V"] <= row[0]) for table in tables]
    return {"limited_m": max(row[1] for row in rows), "restricted_m": max(row[2] for row in rows)}


def fault(p):
    amps = brentq(lambda i: i * p["impedance_ohm"] - p["voltage_V"], 0, 1e9, xtol=1e-12, rtol=1e-14)
    return {"current_A": amps}


def touch(p):
    ohms = brentq(lambda r: r * p["residual_A"] - p["limit_V"], 0, 1e6, xtol=1e-12, rtol=1e-14)
    return {"resistance_ohm": ohms}


def back_feed(p):
    """As many volts a turn on both sides."""
    a_turn = p["applied_V"] / p["appliedSide_V"]
    return {"voltage_V": a_turn * p["otherSide_V"]}


def gas_energy(p):
    """What the gas pushes out as it swells without heat from its volume to the pressure outside; water as it swells a little."""
    outside, start, gamma = 101000.0, p["pressure_Pa"], p["gamma"]
    if start <= outside:
        energy = 0.0
    else:
        ends = p["volume_m3"] * (start / outside) ** (1 / gamma)
        # Over the logarithm of the volume.
        energy = quad(lambda u: start * (p["volume_m3"] / math.exp(u)) ** gamma * math.exp(u), math.log(p["volume_m3"]), math.log(ends), epsabs=0, epsrel=1e-12, limit=400)[0]
    tnt = energy / 4.267e6
    least = 30 if energy <= 135.5e6 else 60
    water = quad(lambda x: x * 4.6e-10 * p["volume_m3"], 0, max(0.0, start - outside))[0]
    return {"energy_J": energy, "tnt_kg": tnt, "distance_m": max(least, 20 * (2 * tnt) ** (1 / 3)), "water_J": water}


def blank(p):
    """The thickness at which the plate's stress, 3/16·P·(d/t)², is what it may be."""
    allowed = p["stress_Pa"] * p["quality"] * p["weld"]
    if p["pressure_Pa"] == 0:
        return {"thickness_m": p["corrosion_m"]}
    thick = brentq(lambda t: 3 / 16 * p["pressure_Pa"] * (p["gasket_m"] / t) ** 2 - allowed, 1e-9, 10, xtol=1e-16, rtol=1e-14)
    return {"thickness_m": thick + p["corrosion_m"]}


def dates(p):
    every = {"portable or temporary": 6, "fixed": 12, "vessel showing rust": 36}[p["kind"]]
    return {"interval_months": every, "left_months": every - p["months"]}


def zone(p):
    foot = 12 * 0.0254
    return {"clear_m": 35 * foot, "cylinders_m": 25 * foot, "longest_s": 24 * 3600}


def watch(p):
    """29 CFR 1910.252(a)(2)(iii), NFPA 51B since 2019, from memory; the classes by practice."""
    hours, checks = {"30 min": (0.5, 0), "60 min": (1, 0), "class 1": (1, 0), "class 2": (1, 3), "class 3": (3, 3), "class 4": (24, 3)}[p["rule"]]
    return {"continuous_s": hours * 3600, "total_s": (hours + checks) * 3600, "checks": 2 * checks}


def cylinder(p):
    return {"distance_m": 100 if p["gas"] == "flammable" else 100 * 12 * 0.0254}


# ACGIH screening values, °C, from memory: light, moderate, heavy, very heavy; a quarter, half, three quarters, all of the hour.
MOST_HEAT = {
    "no": {"light": (30, 29.5, 28.5, 28), "moderate": (29, 27, 26, 25), "heavy": (28, 25.5, 24, None), "very heavy": (27, 24.5, None, None)},
    "yes": {"light": (32.5, 32, 31, 31), "moderate": (31.5, 30, 29, 28), "heavy": (30.5, 29, 27.5, None), "very heavy": (30, 28, None, None)},
}
WORN = {"work clothes": 0, "double layer": 3, "suit that lets vapour through": 1, "vapour-tight suit": 11}


def heat(p):
    felt = p["wbgt_C"] + WORN[p["clothing"]]
    quarters = [i + 1 for i, most in enumerate(MOST_HEAT[p["used"]][p["work"]]) if most is not None and felt <= most]
    return {"felt_C": felt, "work_share": max(quarters, default=0) / 4}


def hasps(p):
    """Locks hung one by one: a hasp with its holes full but one takes another hasp in the last."""
    each, places = (p["people"], 1) if p["school"] == "on the box" else (p["people"] + 1, p["points"])

    def carries(chain):
        return 1 if chain == 0 else chain * p["holes"] - (chain - 1)

    # One lock goes through the device itself.
    chain = 0 if each == 1 else next(n for n in range(1, 10000) if carries(n) >= each)
    own = p["people"] if p["school"] == "on the box" else p["people"] * p["points"]
    return {"hasps": chain * places, "personal_locks": own, "carries": carries(chain)}


def lift(p):
    """Fifty pounds each."""
    each = 22.68
    people = next(n for n in range(1, 1000000) if n * each >= p["mass_kg"] - 1e-9)
    return {"people": people if people <= 2 else None}


ANSWERS = {
    "pump-out": pump_out,
    "sample-wait": sample_wait,
    "hasps": hasps,
    "lift-load": lift,
    "manhole-purge": manhole,
    "blower-flow": blower,
    "air-changes": changes,
    "purge-cycles": cycles,
    "air-test": air,
    "test-points": points,
    "gas-weight": weight,
    "mixture-lfl": mixture,
    "sensor-choice": sensor,
    "true-reading": reading,
    "hidden-gas": hidden,
    "static-head": head,
    "passing-liquid": passing_liquid,
    "measured-rise": rise,
    "run-down": run_down,
    "raised-mass": raised,
    "spring": spring,
    "flywheel": flywheel,
    "dead-tests": dead,
    "approach-distance": approach,
    "fault-current": fault,
    "touch-resistance": touch,
    "back-feed": back_feed,
    "gas-energy": gas_energy,
    "blank-thickness": blank,
    "equipment-dates": dates,
    "hot-work-zone": zone,
    "after-watch": watch,
    "leaking-cylinder": cylinder,
    "heat-stress": heat,
}

json.dump([{"id": case["id"], "answer": ANSWERS[case["name"]](case["input"])} for case in json.load(sys.stdin)], sys.stdout)
