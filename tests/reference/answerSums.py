"""Answers the cases of the sums that the work needs by other means: time stepping, quadrature, geometry, the fluids package.

Shares nothing with the engine. Reads the cases as JSON on standard input, writes the answers as JSON on standard output.
Versions the stored answers were made with: Python 3.11, scipy 1.10.1, fluids 1.0.22, as Debian 12 packages them.
"""

import cmath
import json
import math
import sys

import numpy as np
from fluids.compressible import P_isothermal_critical_flow, isothermal_gas
from fluids.friction import Churchill_1977
from scipy.constants import R, g, mu_0
from scipy.integrate import quad, solve_ivp
from scipy.optimize import brentq

ATM = 101325.0


def until(rate, start, value, guess):
    """Time at which the first of the states reaches a value."""
    hit = lambda t, y: y[0] - value
    hit.terminal = True
    for _ in range(60):
        done = solve_ivp(rate, (0, guess), start, events=hit, method="LSODA", rtol=1e-11, atol=1e-13)
        if done.t_events[0].size:
            return float(done.t_events[0][0]), done.y_events[0][0]
        guess *= 4
    raise RuntimeError("not reached")


def ventilation(p):
    """The share at the end of a long time, by stepping, and the flow that brings it to the limit, by halving."""
    k, cs = p["mixing"], p["supply"]
    if p["from"] == "gas at a known rate":
        given = p["generation_m3_s"]
    else:
        given = p["mass_kg_s"] / p["molar_kg"] * R * p["temperature_K"] / ATM

    def ends(q):
        # A small room turns over fast: two hundred changes are for ever.
        v = q / k
        done = solve_ivp(lambda t, y: [(given + q / k * (cs - y[0])) / v], (0, 60), [cs], method="LSODA", rtol=1e-11, atol=1e-16)
        return done.y[0][-1] - p["limit"]

    first = k * given / p["limit"]
    return {"flow_m3_s": brentq(ends, first * 0.3, first * 50, rtol=1e-10), "generation_m3_s": given}


def fume(p):
    """Milligrams in a mixed room, stepped until they stand still, and the flow that makes them the limit."""
    grams = {"stick": 38.4, "flux-cored wire": 20.8, "solid wire": 20.5}[p["arc"]]
    given = grams * 1000 * p["burnt_kg_s"] * (1 - p["captured"])
    k, cs = p["mixing"], p["supply_kg_m3"] * 1e6

    def ends(q):
        v = q / k
        done = solve_ivp(lambda t, y: [(given + q / k * (cs - y[0])) / v], (0, 60), [cs], method="LSODA", rtol=1e-11, atol=1e-12)
        return done.y[0][-1] - p["limit_kg_m3"] * 1e6

    first = k * given / (p["limit_kg_m3"] * 1e6)
    return {"flow_m3_s": brentq(ends, first * 0.3, first * 50, rtol=1e-10), "fume_kg_s": given / 1e6}


def open_secondary(p):
    """Iron that saturates smoothly, driven by a sine of current: the steepest its flux ever is, by small steps over a cycle."""
    w = 2 * math.pi * 50
    inductance = p["knee_V"] / w / p["knee_A"]
    full = math.sqrt(2) * p["knee_V"] / w
    crest = math.sqrt(2) * p["primary_A"] * p["ratedSecondary_A"] / p["ratedPrimary_A"]
    # Near the crossing, where the iron is not full: there the flux is steepest.
    narrow = min(1.0, full / inductance / crest)
    t = np.linspace(-narrow, narrow, 200_001) / w
    flux = full * np.tanh(inductance * crest * np.sin(w * t) / full)
    return {"peak_V": float(np.max(np.diff(flux) / np.diff(t)))}


def into_service(p):
    """Lines in the triangle of fuel, oxygen and inert gas: air to the corner of the flammable range, and fuel to it."""
    lfl = p["lfl"] * 100
    corner = (lfl, p["oxygen_moles"] * lfl)
    # From air (0, 21) through the corner to oxygen 0; from fuel (100, 0) through it to fuel 0.
    a = np.polyfit([21, corner[1]], [0, corner[0]], 1)
    b = np.polyfit([100, corner[0]], [0, corner[1]], 1)
    out, into = np.polyval(a, 0) / 100, np.polyval(b, 0) / 100

    def swept(start, end):
        # Share left as inert gas goes in, one volume at a time.
        rate = lambda v, y: [-y[0] / (p["mixing"] * p["volume_m3"])]
        return until(rate, [start], end, p["volume_m3"])[0]

    return {
        "out_of_service": out,
        "into_service": into,
        "out_m3": swept(p["fuel"], out) if p["fuel"] > out else 0,
        "into_m3": swept(0.209, into) if into < 0.209 else 0,
    }


def exhaust(p):
    limit = {"19.5 % oxygen": 1 - 0.195 / 0.209, "the lower limit": p["lfl"], "a tenth of the lower limit": p["lfl"] / 10}[p["ends"]]
    if p["share"] <= limit:
        return {"still_m": 0.0, "wind_m": 0.0}
    density = (p["share"] * 0.044 + (1 - p["share"]) * 0.02896) / 0.02896
    still = 5.4 * p["diameter_m"] * p["share"] / limit * math.sqrt(max(1, density))

    def over(x):
        sy = 0.04 * x * (1 + 0.0001 * x) ** -0.5
        sz = 0.016 * x * (1 + 0.0003 * x) ** -1
        return math.log(p["flow_m3_s"] * p["share"] / (math.pi * p["wind_m_s"] * sy * sz) / limit)

    return {"still_m": still, "wind_m": brentq(over, 1e-4, 1e5, rtol=1e-12)}


def line_drain(p):
    """Steps of the level, the speed at each found anew from the energy balance."""

    def speed(level):
        head = level + p["drop_m"] + p["push_Pa"] / (p["density_kg_m3"] * g)

        def left(v):
            re = p["density_kg_m3"] * v * p["bore_m"] / p["viscosity_Pa_s"]
            f = Churchill_1977(re, p["roughness_m"] / p["bore_m"])
            return (1 + p["fittings"] + f * p["length_m"] / p["bore_m"]) * v * v / 2 / g - head

        return brentq(left, 1e-9, math.sqrt(2 * g * head) * 1.0001, xtol=1e-14, rtol=1e-13)

    ratio = (p["bore_m"] / p["diameter_m"]) ** 2
    time, _ = until(lambda t, y: [-ratio * speed(max(y[0], p["end_m"] * 0.5))], [p["level_m"]], p["end_m"], 1 / ratio)
    return {"time_s": time, "speed_m_s": speed(p["level_m"])}


def tank_drain(p):
    """Steps of the volume left, the level found from it through areas summed anew, the speed from the energy balance."""
    d, length, opening = p["diameter_m"], p["length_m"], math.pi / 4 * p["outlet_m"] ** 2

    def area(h):
        if p["shape"] == "vertical":
            return math.pi / 4 * d * d
        if p["shape"] == "horizontal":
            half = math.sqrt(max(0.0, (d / 2) ** 2 - (h - d / 2) ** 2))
            return length * 2 * half
        if p["shape"] == "sphere":
            return math.pi * max(0.0, (d / 2) ** 2 - (h - d / 2) ** 2)
        return math.pi / 4 * (d * h / length) ** 2

    def push(h):
        if p.get("inlet") != "shut":
            return p["pad_Pa"]
        gone = quad(area, h, p["level_m"], epsabs=0, epsrel=1e-12)[0]
        return (p["pad_Pa"] + ATM) * p["gas_m3"] / (p["gas_m3"] + gone) - ATM

    def speed(h):
        head = h + push(h) / (p["density_kg_m3"] * g)

        def left(v):
            re = p["density_kg_m3"] * v * p["outlet_m"] / p["viscosity_Pa_s"]
            f = Churchill_1977(re, p["roughness_m"] / p["outlet_m"])
            return (1 / p["cd"] ** 2 + f * p["hose_m"] / p["outlet_m"]) * v * v / 2 / g - head

        return brentq(left, 1e-9, math.sqrt(2 * g * head) * 1.0001, xtol=1e-14, rtol=1e-13)

    fall = lambda t, y: [-opening * speed(max(y[0], p["end_m"] * 0.5)) / area(max(y[0], p["end_m"] * 0.5))]
    guess = p["level_m"] / -fall(0, [p["level_m"]])[0] if area(p["level_m"]) > 0 else 100.0
    time, _ = until(fall, [p["level_m"]], p["end_m"], guess)
    return {"time_s": time, "volume_m3": quad(area, p["end_m"], p["level_m"], epsabs=0, epsrel=1e-12)[0]}


def line_blowdown(p):
    """Steps of the pressure; the flow by the fluids package, choked where it says so. The exit is a length of pipe more."""
    d, fd, t, m = p["bore_m"], p["friction"], p["temperature_K"], p["molar_kg"]
    length = p["length_m"] + (1 + p["fittings"]) * d / fd

    def flow(pressure):
        end = max(ATM, P_isothermal_critical_flow(P=pressure, fd=fd, D=d, L=length))
        # The package's formula holds with the density at the inlet.
        return isothermal_gas(rho=pressure * m / R / t, fd=fd, P1=pressure, P2=end, L=length, D=d)

    per = p["volume_m3"] * m / R / t
    time, _ = until(lambda s, y: [-flow(max(y[0], ATM * 1.0001)) / per], [p["start_Pa"]], p["end_Pa"], per * 1e5 / flow(p["start_Pa"]))
    return {"time_s": time, "first_kg_s": flow(p["start_Pa"])}


def long_line(p):
    area, _ = quad(lambda r: 2 * math.pi * r, 0, p["bore_m"] / 2)
    moles = (p["pressure_Pa"] + ATM) * area * p["length_m"]
    return {
        "volume_m3": area * p["length_m"],
        "time_s": area * p["length_m"] / p["flow_m3_s"],
        "speed_m_s": p["flow_m3_s"] / area,
        "inert_m3": moles / ATM,
        "force_N": p["pressure_Pa"] * area,
    }


def line_heads(p):
    """Let water sink from high above until nothing moves."""
    heights = [s["height_m"] for s in p["stations"]]
    level = [max(heights)] * len(heights)
    level[0], level[-1] = heights[0], heights[-1]
    for _ in range(len(heights) ** 2):
        for i in range(1, len(heights) - 1):
            level[i] = max(heights[i], min(level[i], max(level[i - 1], heights[i]), max(level[i + 1], heights[i])))
    head = max(a - b for a, b in zip(level, heights))
    return {"head_m": head, "pressure_Pa": head * p["density_kg_m3"] * g}


def portable_earth(p):
    """Heat in a copper cable of the thickness found: from 30 °C it may reach 200."""
    area = p["current_A"] * math.sqrt(p["time_s"]) / 159
    # Volumetric heat of copper and its resistivity, IEC 60949, from memory.
    rate = lambda t, y: [p["current_A"] ** 2 * 17.241e-6 * (1 + (y[0] - 20) / 254.5) / (area * area * 3.45e-3)]
    done = solve_ivp(rate, (0, p["time_s"]), [30.0], method="LSODA", rtol=1e-9)
    return {"area_m2": area * 1e-6, "ends_C": float(done.y[0][-1])}


def three_phase(p):
    """Current of a phase from the moment of the fault, at the worst moment of the wave."""
    z = complex(p["resistance_ohm"], p["reactance_ohm"])
    steady = p["voltage_V"] / math.sqrt(3) / abs(z)
    w = 2 * math.pi * 50
    worst = 0.0
    for angle in np.linspace(0, math.pi, 181):
        for t in np.linspace(0, 0.02, 401):
            wave = math.sin(w * t + angle - cmath.phase(z))
            offset = math.sin(angle - cmath.phase(z)) * math.exp(-p["resistance_ohm"] / p["reactance_ohm"] * w * t)
            worst = max(worst, math.sqrt(2) * steady * abs(wave - offset))
    return {"current_A": steady, "peak_by_waves": worst}


def arc(p):
    if p["supply"] == "alternating":
        # Lee's own form: feet, MVA, seconds, to a burn of the second degree.
        mva = math.sqrt(3) * p["voltage_V"] * p["current_A"] / 1e6
        return {"boundary_by_feet": 0.3048 * math.sqrt(2.65 * mva * p["time_s"])}
    # Half the voltage over the arc, half the current in it, over a sphere.
    heat = p["voltage_V"] / 2 * p["current_A"] / 2 * p["time_s"] / (4 * math.pi * p["at_m"] ** 2)
    return {"energy_by_sphere": heat}


OXYGEN = {"at rest": 0.3, "light": 0.8, "moderate": 1.5, "heavy": 2.5}
BREATH = {"at rest": 20, "light": 30, "moderate": 40, "heavy": 60}


def breathing(p):
    left = (p["filled_Pa"] - p["reserve_Pa"]) * p["volume_m3"] / ATM * 1000
    minutes = left / BREATH[p["work"]]
    return {"whistle_s": 60 * minutes, "time_s": max(0, 60 * minutes - p["out_s"] - p["rescue_s"])}


def people(p):
    use = p["people"] * OXYGEN[p["work"]] / 60000
    oxygen, _ = until(lambda t, y: [-use / p["volume_m3"]], [0.209], 0.195, 1000)
    co2, _ = until(lambda t, y: [use / p["volume_m3"]], [p["co2"]], p["co2_limit"], 1000)
    return {"oxygen_s": oxygen, "co2_s": co2, "time_s": min(oxygen, co2)}


def spark(p):
    mass = p["density_kg_m3"] * math.pi / 6 * p["drop_m"] ** 3
    area = math.pi / 4 * p["drop_m"] ** 2

    def rate(t, y):
        air = np.array([p["wind_m_s"], 0.0])
        v = y[2:] - air
        force = -0.5 * 1.2 * 0.4 * area * np.linalg.norm(v) * v
        return np.concatenate([y[2:], force / mass + np.array([0, -g])])

    ground = lambda t, y: y[1]
    ground.terminal = True
    done = solve_ivp(rate, (0, 600), [0, p["height_m"], p["speed_m_s"], 0], events=ground, method="DOP853", rtol=1e-11, atol=1e-12)
    return {"throw_m": float(done.y_events[0][0][0])}


def wall(p):
    plate, air = p["thick_m"] / p["conductivity_W_mK"], 1 / p["off_W_m2_K"]
    heat = (p["hot_C"] - p["ambient_C"]) / (plate + air)
    return {"other_C": p["hot_C"] - heat * plate}


def sling(p):
    legs = min(2, p["legs"])
    # Forces at the hook, up and sideways.
    if legs == 1:
        return {"tension_N": p["mass_kg"] * g / math.cos(p["lean_rad"])}
    c, s = math.cos(p["lean_rad"]), math.sin(p["lean_rad"])
    if s < 1e-12:
        return {"tension_N": p["mass_kg"] * g / 2}
    pull = np.linalg.solve([[c, c], [s, -s]], [p["mass_kg"] * g, 0])
    return {"tension_N": float(pull[0])}


def drop_zone(p):
    ground = lambda t, y: y[1]
    ground.terminal = True
    done = solve_ivp(lambda t, y: [y[2], y[3], 0, -g], (0, 100), [p["half_m"], p["height_m"], p["speed_m_s"], 0], events=ground, rtol=1e-11, atol=1e-12)
    return {"distance_m": float(done.y_events[0][0][0])}


def pin(p):
    piston, _ = quad(lambda r: 2 * math.pi * r * p["pressure_Pa"], 0, p["piston_m"] / 2)
    force = piston + p["mass_kg"] * g
    planes = 2 if p["shear"] == "double" else 1
    shear = force / planes / (math.pi * (p["diameter_m"] / 2) ** 2)
    bearing = force / p["diameter_m"] / p["plate_m"]
    # Von Mises of pure shear, from the principal stresses.
    s1, s2 = np.linalg.eigvalsh([[0, shear], [shear, 0]])
    mises = math.sqrt(s1 * s1 - s1 * s2 + s2 * s2)
    return {"force_N": force, "shear_Pa": shear, "bearing_Pa": bearing, "factor": min(p["yield_Pa"] / mises, p["yield_Pa"] / bearing)}


def test_pressure(p):
    if p["medium"] == "gas":
        return {"test_Pa": 1.1 * p["design_Pa"], "bottom_Pa": 1.1 * p["design_Pa"]}
    top = 1.5 * p["design_Pa"] * min(6.5, max(1, p["cold_Pa"] / p["hot_Pa"]))
    head, _ = quad(lambda h: p["density_kg_m3"] * g, 0, p["height_m"])
    # What the water gives back, as it is let go by little and little; as much explosive, and its distance.
    energy, _ = quad(lambda q: 4.6e-10 * p["volume_m3"] * q, 0, top)
    return {
        "test_Pa": top,
        "bottom_Pa": top + head,
        "weight_kg": p["density_kg_m3"] * p["volume_m3"],
        "distance_m": 20 * (2 * energy / 4.267e6) ** (1 / 3),
    }


def pressure_hold(p):
    before = p["start_Pa"] * p["volume_m3"] / R / p["start_K"]
    after = p["end_Pa"] * p["volume_m3"] / R / p["end_K"]
    lost = (before - after) * R * p["end_K"]
    return {"lost_Pa": lost / p["volume_m3"], "leak_Pa_m3_s": lost / p["over_s"]}


def bleed(p):
    leak = p["measured_m3_s"]
    harmful = leak * p["share"]
    done = solve_ivp(lambda t, y: [harmful - (harmful + p["ventilation_m3_s"]) * y[0]], (0, 60 / p["ventilation_m3_s"]), [0.0], method="LSODA", rtol=1e-11, atol=1e-18)
    return {"leak": leak / p["rated_m3_s"], "concentration": float(done.y[0][-1])}


def induced(p):
    depth = 658 * math.sqrt(p["soil_ohm_m"] / p["frequency_Hz"])
    # Flux between the dead conductor and the return in the earth, a metre long.
    flux, _ = quad(lambda s: mu_0 / 2 / math.pi, math.log(p["apart_m"]), math.log(depth))
    return {"voltage_V": 2 * math.pi * p["frequency_Hz"] * flux * p["current_A"] * p["length_m"]}


def cable(p):
    c = p["perMetre_F"] * p["length_m"] / 1000
    energy, _ = quad(lambda v: c * v, 0, p["voltage_V"])
    if p["voltage_V"] <= 50:
        return {"energy_J": energy, "time_s": 0.0}
    rc = p["resistance_ohm"] * c
    time, _ = until(lambda t, y: [-y[0]], [p["voltage_V"]], 50, 1)
    return {"energy_J": energy, "time_s": time * rc}


def outrigger(p):
    force = (p["crane_kg"] + p["load_kg"]) * g * p["share"]
    return {"pressure_Pa": force / p["mat_m2"], "used": force / p["mat_m2"] / p["ground_Pa"]}


def residual(p):
    force, _ = quad(lambda r: 2 * math.pi * r * p["pressure_Pa"], 0, p["width_m"] / 2)
    return {"force_N": force}


ANSWERS = {
    "ventilation": ventilation,
    "welding-fume": fume,
    "open-secondary": open_secondary,
    "into-service": into_service,
    "exhaust-distance": exhaust,
    "line-drain": line_drain,
    "tank-drain": tank_drain,
    "line-blowdown": line_blowdown,
    "long-line": long_line,
    "line-heads": line_heads,
    "residual-force": residual,
    "bleed-flow": bleed,
    "test-pressure": test_pressure,
    "pressure-hold": pressure_hold,
    "portable-earth": portable_earth,
    "three-phase-fault": three_phase,
    "induced-voltage": induced,
    "cable-charge": cable,
    "arc-energy": arc,
    "breathing-air": breathing,
    "people-in-space": people,
    "spark-throw": spark,
    "wall-heat": wall,
    "sling": sling,
    "outrigger": outrigger,
    "drop-zone": drop_zone,
    "pin": pin,
}

json.dump([{"id": case["id"], "answer": ANSWERS[case["name"]](case["input"])} for case in json.load(sys.stdin)], sys.stdout)
