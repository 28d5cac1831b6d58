import {
  toColourWords,
  toSizeWords,
  type DevicePin,
  type Finding,
  type Job,
  type LoomPlan,
  type PowerPlan,
  KIND_WORDS,
} from 'wattograph-core';
import { FindingLines } from '../../ui/findings/FindingLine';
import { Swatch } from '../../ui/Swatch';
import { GiveTo } from './GiveTo';
import { PinNeeds } from './PinNeeds';
import { FactTable } from '../../ui/table/FactTable';
import controls from '../../ui/controls.module.css';

/** One pin: what it needs, its way through every loom to the box, and what is wrong with it. */
export function PinPanel({
  planned,
  pin,
  findings,
}: {
  planned: { job: Job; power: PowerPlan; looms: LoomPlan[] };
  pin: DevicePin | null;
  findings: readonly Finding[];
}) {
  if (!pin) return <p className={controls.wait}>Choose a pin on the board: its way to the box is shown here, loom by loom.</p>;
  const { job, looms } = planned;
  const { need } = pin;
  const end = job.looms[pin.loomId]!.ends[pin.endId]!;
  const about = findings.filter(
    ({ loomId, places }) =>
      loomId === pin.loomId &&
      places.some(({ kind, id }) => kind === 'end' && id === pin.endId) &&
      places.some(({ kind, id }) => kind === 'circuit' && (id === pin.circuitId || id === `${pin.endId}-${pin.cavity}`)),
  );
  const facts = [
    KIND_WORDS[need.kind],
    need.volts === null ? null : `${need.volts} V`,
    need.currentA === null ? null : need.currentA < 0.1 ? `${Math.round(need.currentA * 1000)} mA` : `${need.currentA} A`,
    need.wants && `wants ${need.wants}`,
    need.pwmHz && `${need.pwmHz} Hz`,
    need.lead && `its lead is ${need.lead}`,
    need.noise && `noise group ${need.noise}`,
    need.twistWith && `twisted with pin ${need.twistWith}`,
    need.screened ? 'screened' : null,
    need.required ? null : 'may stay empty',
  ].filter(Boolean);
  const net = pin.net;
  return (
    <div className={controls.facts}>
      <h2>
        {end.name} <span className="mono">{pin.cavity}</span> {need.function}
      </h2>
      <p className="faint">{facts.join(' · ')}</p>
      <FindingLines findings={about} />
      <GiveTo job={job} pin={pin} />
      {net === null ? (
        <p>{need.required ? 'Not wired. Assign what is open (a), or join it by hand in Bundle.' : 'Not wired, and need not be.'}</p>
      ) : (
        <FactTable label="Way through the looms">
          <tbody>
            {net.circuits.map(({ loomId, circuitId }) => {
              const circuit = job.looms[loomId]!.circuits[circuitId]!;
              const wires = looms.find((one) => one.loomId === loomId)?.wires.filter((wire) => wire.circuitId === circuitId) ?? [];
              return (
                <tr key={`${loomId}/${circuitId}`}>
                  <td>
                    {job.looms[loomId]!.name}
                    <br />
                    <span className="faint">
                      {wires.length} {wires.length === 1 ? 'wire' : 'wires'}
                      {wires[0] ? `, ${[...new Set(wires.map(({ conductor }) => toSizeWords(conductor)))].join(', ')}` : ''}
                    </span>
                  </td>
                  <td>
                    <Swatch colour={circuit.colour} words={false} /> <span className="mono">{circuit.number}</span> {circuit.name},{' '}
                    {toColourWords(circuit.colour)}
                    <br />
                    {circuit.terminations.map((one) => `${job.looms[loomId]!.ends[one.endId]!.name} ${one.cavity}`).join(' · ')}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </FactTable>
      )}
      {net && (
        <p>
          {pin.host
            ? `Served by ${job.looms[pin.host.loomId]!.ends[pin.host.endId]!.name} ${pin.host.cavity} (${job.looms[pin.host.loomId]!.ends[pin.host.endId]!.offers[pin.host.cavity]?.name ?? Object.values(job.looms[pin.host.loomId]!.ends[pin.host.endId]!.offers)[0]?.name ?? 'stud'}).`
            : 'No box in it: it leads nowhere.'}{' '}
          {net.volts !== null && `${net.volts} V. `}
          {Math.max(0, ...net.onA) > 0 && `${Math.max(...net.onA).toFixed(2)} A while on, in the worst mode.`}
          {net.unknown > 0 && ` ${net.unknown} of its loads have no current given.`}
        </p>
      )}
      <PinNeeds job={job} pin={pin} />
    </div>
  );
}
