import type { Plan } from "@/core/plan/plan";
import { figure } from "@/core/units/format";
import type { UnitSystem } from "@/core/units/units";
import { energy } from "@/ui/text/energy";
import { Carrier } from "@/ui/text/Carrier";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";

/** What lies behind the points: cavities and their bleeds, what is trapped, and blinds. */
export function Behind({ plan, units }: { plan: Plan; units: UnitSystem }) {
  return (
    <>
      {plan.cavities.length > 0 && (
        <section>
          <h2 className="mb-2 text-lg font-semibold">Sections between barriers and their bleeds</h2>
          <WideTable label="Sections between barriers">
            <table className="table">
              <thead>
                <tr>
                  <th>Section</th>
                  <th>Holds</th>
                  <th>Closed by</th>
                  <th>Open, rod clear, lock open</th>
                  <th>Not surely drained</th>
                </tr>
              </thead>
              <tbody>
                {plan.cavities.map((cavity) => (
                  <tr key={`${cavity.carrier}${cavity.places[0]}`}>
                    <td className="max-w-80">
                      {cavity.zone === "work" ? <strong>Work zone: </strong> : "Between barriers: "}
                      <Tags tags={cavity.places} most={6} />
                    </td>
                    <td>
                      <Carrier name={cavity.carrier} />
                    </td>
                    <td>
                      <Tags tags={cavity.barriers} most={8} />
                    </td>
                    <td>
                      {cavity.bleeds.length > 0 ? <Tags tags={cavity.bleeds} /> : "no bleed"}
                      {cavity.opens.length > 0 && (
                        <span className="mt-0.5 block">
                          with <Tags tags={cavity.opens} /> opened and locked open
                        </span>
                      )}
                    </td>
                    <td>
                      {cavity.undrained.length > 0 ? (
                        <strong>
                          <Tags tags={cavity.undrained} most={6} />
                        </strong>
                      ) : (
                        "nothing"
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </WideTable>
        </section>
      )}
      {plan.darkZone.trapped.length > 0 && (
        <section>
          <h2 className="mb-2 text-lg font-semibold">Trapped energy</h2>
          <WideTable label="Trapped energy">
            <table className="table max-w-4xl">
              <thead>
                <tr>
                  <th>Where</th>
                  <th>What</th>
                  <th className="text-right">Volume</th>
                  <th className="text-right">Pressure</th>
                  <th>Released by</th>
                  <th>Through</th>
                </tr>
              </thead>
              <tbody>
                {plan.darkZone.trapped.map((row) => (
                  <tr key={row.place}>
                    <td className="tag">{row.place}</td>
                    <td>{row.fluid}</td>
                    <td className="num text-right whitespace-nowrap">
                      {row.volume_m3 === null ? "not known: take it as full" : figure(row.volume_m3, "volume", units)}
                    </td>
                    <td className="num text-right whitespace-nowrap">
                      {row.pressure_Pa === null ? "not known: as its source" : figure(row.pressure_Pa, "gauge", units)}
                    </td>
                    <td>{row.energy ? energy(row.energy, units) : "–"}</td>
                    <td>{row.bleeds.length > 0 ? <Tags tags={row.bleeds} most={4} /> : "no bleed"}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </WideTable>
        </section>
      )}
      {plan.blinds.length > 0 && <Blinds plan={plan} units={units} />}
    </>
  );
}

function Blinds({ plan, units }: { plan: Plan; units: UnitSystem }) {
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">Blind list</h2>
      <p className="mb-2 max-w-prose text-sm">
        Stage 1 locks first, then these; they come out before anything is lifted. Thickness by ASME B31.3, 304.5.3,
        quoted from memory, for carbon steel plate of 138 MPa without corrosion allowance. A check, not a design.
      </p>
      <WideTable label="Blinds">
        <table className="table max-w-4xl">
          <thead>
            <tr>
              <th>Blind</th>
              <th className="text-right">Line, inside</th>
              <th>Class</th>
              <th className="text-right">Pressure</th>
              <th className="text-right">At least</th>
              <th>Missing from the register</th>
            </tr>
          </thead>
          <tbody>
            {plan.blinds.map((blind) => (
              <tr key={blind.device}>
                <td className="tag">{blind.device}</td>
                <td className="num text-right">{blind.bore_m === null ? "?" : figure(blind.bore_m, "bore", units)}</td>
                <td>{blind.flangeClass ?? "?"}</td>
                <td className="num text-right">
                  {blind.pressure_Pa === null ? "?" : figure(blind.pressure_Pa, "gauge", units)}
                </td>
                <td className="num text-right">
                  {blind.thickness_m === null ? "not computed" : figure(blind.thickness_m, "bore", units)}
                </td>
                <td className="text-sm">{blind.missing.join(", ") || "nothing"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </WideTable>
    </section>
  );
}
